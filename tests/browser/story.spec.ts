import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from './world';
import yauzl from 'yauzl';
import { as, base, choose, documentId, go, pick, ready, said } from './people';

const NUMBER = 'VFT-MW-QW-00-DR-0302';
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

async function downloaded(page: Page, click: () => Promise<unknown>): Promise<Buffer> {
	const [download] = await Promise.all([page.waitForEvent('download'), click()]);
	return readFile(await download.path());
}

/** The files of a zip by name. */
function unzip(bytes: Buffer): Promise<Map<string, Buffer>> {
	return new Promise((resolve, reject) => {
		yauzl.fromBuffer(bytes, { lazyEntries: true }, (error, zip) => {
			if (error) return reject(error);
			const files = new Map<string, Buffer>();
			zip.on('entry', (entry: yauzl.Entry) => {
				zip.openReadStream(entry, (fault, stream) => {
					if (fault) return reject(fault);
					const chunks: Buffer[] = [];
					stream.on('data', (chunk: Buffer) => chunks.push(chunk));
					stream.on('end', () => {
						files.set(entry.fileName, Buffer.concat(chunks));
						zip.readEntry();
					});
				});
			});
			zip.on('end', () => resolve(files));
			zip.on('error', reject);
			zip.readEntry();
		});
	});
}

test('a drawing goes the whole way: Oke hands in, Ines builds and issues, Halla approves, the client receives', async ({
	browser
}) => {
	const [oke, ines, halla] = [
		await as(browser, 'oke'),
		await as(browser, 'ines'),
		await as(browser, 'halla')
	];
	const { id, folder } = await documentId(oke, NUMBER);
	const address = `/vft/place/${folder}?document=${id}`;
	await oke.goto(address);
	await ines.goto(address);
	await ready(oke);
	await ready(ines);

	await test.step('Oke locks; Ines sees it at once and cannot take it', async () => {
		const block = oke.getByRole('region', { name: `Title block of ${NUMBER}` });
		await block.getByRole('button', { name: 'Lock' }).click();
		await oke.getByLabel('What for').fill('tie rod moved');
		await oke.getByRole('dialog').getByRole('button', { name: 'Lock' }).click();
		await expect(block.getByText('have this in hand')).toBeVisible();
		const hers = ines.getByRole('region', { name: `Title block of ${NUMBER}` });
		await expect(hers.getByText('has this in hand')).toBeVisible();
		await expect(hers.getByText('tie rod moved')).toBeVisible();
		await expect(hers.getByRole('button', { name: 'Lock', exact: true })).toHaveCount(0);
		await expect(hers.getByRole('button', { name: 'Ask for the lock…' })).toBeVisible();
		await expect(ines.locator(`[data-document="${id}"]`)).toContainText('Oke Lindvar');
	});

	let label = '';
	let handedIn: Buffer = Buffer.alloc(0);
	await test.step('Oke downloads, changes the drawing and hands it in with a note', async () => {
		const block = oke.getByRole('region', { name: `Title block of ${NUMBER}` });
		const drawing = await downloaded(oke, () => block.getByRole('link', { name: 'Download' }).last().click());
		expect(drawing.toString('latin1')).toContain('SECTION');
		handedIn = Buffer.from(
			drawing
				.toString('latin1')
				.replace('CHAINAGE', 'CHAINAGE')
				.replace(
					/\r\nENDSEC\r\n0\r\nEOF/,
					'\r\nLINE\r\n8\r\nSTEEL\r\n10\r\n20000\r\n20\r\n20000\r\n11\r\n24000\r\n21\r\n21000\r\n0\r\nENDSEC\r\n0\r\nEOF'
				),
			'latin1'
		);
		expect(sha256(handedIn)).not.toBe(sha256(drawing));
		await block.getByRole('button', { name: 'Hand in' }).click();
		await oke
			.getByLabel('The file you worked on')
			.setInputFiles({ name: `${NUMBER}.dxf`, mimeType: 'application/octet-stream', buffer: handedIn });
		await oke.getByLabel('What changed').fill('Tie rod moved 200 landward');
		await oke.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click();
		await expect(block.getByText('Nobody has this in hand')).toBeVisible();
		const hers = ines.getByRole('region', { name: `Title block of ${NUMBER}` });
		await expect(hers.getByText('Tie rod moved 200 landward')).toBeVisible();
		label = (await hers.locator('tbody tr').first().locator('td').first().innerText()).trim();
	});

	let release = '';
	await test.step('Ines builds a release and asks Halla', async () => {
		await choose(ines, 'Put in release…', ines.getByRole('region', { name: `Title block of ${NUMBER}` }));
		const dialog = ines.getByRole('dialog');
		await dialog.getByLabel('Title').fill('Quay wall section for approval');
		// Nothing is chosen beforehand that somebody could forget to look at.
		await expect(dialog.getByRole('combobox', { name: 'Purpose', exact: true })).toContainText('choose');
		await expect(dialog.getByRole('combobox', { name: 'To', exact: true })).toHaveValue('');
		await pick(dialog.getByRole('combobox', { name: 'Purpose', exact: true }), 'For approval');
		// By the distribution list it goes to the client.
		await expect(dialog.getByText('Goes to, as the distribution list says')).toBeVisible();
		await expect(dialog.getByText('Maren Aldgate', { exact: true })).toBeVisible();
		// The project keeps a route for it: any one of three leads.
		await expect(dialog.getByText('Halla Brandt')).toBeVisible();
		await dialog.getByRole('button', { name: 'Build release' }).click();
		await ines.waitForURL(/\/releases\/\d+/);
		release = ines.url();
		await expect(ines.getByRole('row', { name: new RegExp(NUMBER) })).toContainText(label);
		// The sheet still says the revision before; it goes out only with a reason, which is kept.
		await expect(ines.getByText(/Title block: /)).toBeVisible();
		await expect(ines.getByRole('button', { name: 'Ask for approval' })).toBeDisabled();
		await ines.getByRole('button', { name: 'Goes out…' }).click();
		await ines.getByRole('dialog').getByRole('textbox').fill('The sheet is redrawn with the next change');
		await ines.getByRole('dialog').getByRole('button', { name: 'Goes out' }).click();
		await expect(ines.getByText('Ines Maddock: The sheet is redrawn with the next change')).toBeVisible();
		await ines.getByRole('button', { name: 'Ask for approval' }).click();
		await expect(ines.getByText('in review')).toBeVisible();
	});

	await test.step('Halla approves; Ines sees the stamp and issues', async () => {
		await halla.goto('/vft/releases');
		await halla.getByRole('link', { name: 'Quay wall section for approval' }).click();
		await ready(halla);
		await halla.getByRole('button', { name: 'Approve' }).click();
		await expect(ines.getByText(/Approved .* H Brandt/i)).toBeVisible();
		await ines.getByRole('link', { name: 'Issue…' }).click();
		await ines.waitForURL(/\/issue$/);
		await ready(ines);
		const gets = ines.getByRole('table', { name: 'Who gets what' });
		await expect(gets.getByRole('row', { name: /Maren Aldgate/ })).toContainText('1 document');
		const number = /\d+$/.exec(release)![0].padStart(4, '0');
		await expect(ines.getByRole('button', { name: `Issue ${number}` })).toBeDisabled();
		await ines.getByLabel(`Type ${number} to issue it`).fill(number);
		await ines.getByRole('button', { name: `Issue ${number}` }).click();
		await expect(ines.getByText('1 pass went out by mail')).toBeVisible();
	});

	const pass = (await ines.getByRole('link', { name: /\/pass\// }).getAttribute('href'))!;
	await test.step('the mail with the pass is in the outbox, which keeps its link to itself', async () => {
		const page = await ines.context().newPage();
		await page.goto('/vft/outbox');
		await page.getByRole('button', { name: /Quay wall section for approval.*to Maren/ }).click();
		await expect(page.getByRole('article')).toContainText('delivered');
		await expect(page.getByRole('article')).not.toContainText(pass);
		await page.close();
	});

	await test.step('the client opens the pass without an account, takes the files and answers', async () => {
		const context = await browser.newContext({ baseURL: base(), acceptDownloads: true });
		const client = await context.newPage();
		await go(client, pass);
		await expect(client.getByRole('heading', { level: 1 })).toContainText('Quay wall section for approval');
		await client.getByRole('button', { name: 'Confirm receipt' }).click();
		await expect(client.getByText('Receipt confirmed')).toBeVisible();
		await expect(ines.getByText(/Received .* M Aldgate/i)).toBeVisible();

		const single = await downloaded(client, () =>
			client
				.getByRole('row', { name: new RegExp(NUMBER) })
				.getByRole('link', { name: 'Download' })
				.click()
		);
		expect(sha256(single)).toBe(sha256(handedIn));
		const files = await unzip(
			await downloaded(client, () => client.getByRole('link', { name: /Download all/ }).click())
		);
		const manifest = JSON.parse(files.get('proof/manifest.json')!.toString()) as {
			documents: { file: string; sha256: string; revision: string }[];
		};
		expect(manifest.documents).toHaveLength(1);
		for (const item of manifest.documents) expect(sha256(files.get(item.file)!)).toBe(item.sha256);
		expect(manifest.documents[0]!.sha256).toBe(sha256(handedIn));
		expect([...files.keys()].some((name) => name.startsWith('Cover note'))).toBe(true);

		await client.getByRole('link', { name: 'View' }).click();
		await expect(client.getByRole('button', { name: /Layers \d+/ })).toBeVisible();
		await client.goBack();
		await ready(client);
		await client.getByRole('radio', { name: 'B' }).click();
		await client.getByLabel(`Remark on ${NUMBER}`).fill('Show mean low water.');
		await client.getByRole('button', { name: 'Sign and send 1 verdict' }).click();
		await expect(client.getByText('All verdicts are signed and sent')).toBeVisible();
		await context.close();
	});

	await test.step('Ines sees the verdict arrive', async () => {
		expect(ines.url()).toBe(release);
		await expect(ines.getByRole('row', { name: new RegExp(NUMBER) })).toContainText(
			'accepted with comments: Show mean low water.'
		);
	});

	await test.step('Ines takes the release as a package, whose every file is listed with its hash', async () => {
		const files = await unzip(
			await downloaded(ines, () => ines.getByRole('link', { name: 'Package', exact: true }).click())
		);
		const listed = ['manifest-sha256.txt', 'tagmanifest-sha256.txt'].flatMap((list) =>
			files.get(list)!.toString().split('\n').slice(0, -1)
		);
		expect(listed).toHaveLength(files.size - 1);
		for (const line of listed) expect(sha256(files.get(line.slice(66))!), line).toBe(line.slice(0, 64));
		expect(listed.join()).toContain(sha256(handedIn));
		expect(files.get('data/verdicts.csv')!.toString()).toContain('Show mean low water.');
	});

	await test.step('she begins the next round from it, to the same people', async () => {
		await ines.getByRole('button', { name: 'Build another like it' }).click();
		await expect(ines).not.toHaveURL(release);
		await said(ines, /^This is release \d{4}, to the same people/);
		await expect(ines.getByRole('row', { name: new RegExp(NUMBER) })).toBeVisible();
		await expect(ines.getByText('Maren Aldgate').first()).toBeVisible();
		await ines.goto('/vft/activity');
		await expect(ines.getByText(/gave verdict B on/).first()).toBeVisible();
	});
});
