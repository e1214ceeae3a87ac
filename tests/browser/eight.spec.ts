import { expect, test, type Page } from './world';
import { act, as, base, documentId, go, pick, ready, sendBytes } from './people';

/** How many documents go out. */
const FORTY = 40;
/** On which the clients do not agree. */
const NUMBER = 'VFT-MW-LS-00-DR-0127';

/** Chooses the reasons for which everything that is only to be looked at goes out. */
async function accept(ines: Page): Promise<void> {
	const reasons = ines.getByRole('button', { name: /^(All of these go out…|Goes out…)$/ });
	if (!(await reasons.count())) return;
	await reasons.first().click();
	await ines.getByRole('dialog').getByRole('textbox').fill('The client wants the whole set together.');
	await ines.getByRole('dialog').getByRole('button', { name: 'Goes out' }).click();
	await expect(ines.getByRole('dialog')).toHaveCount(0);
}

async function approve(page: Page, way: string, button: string): Promise<void> {
	await go(page, way);
	await page.getByRole('button', { name: button }).click();
	await expect(page.getByRole('button', { name: button })).toHaveCount(0);
}

test('eight people bring forty documents from the register to the clients, and what comes back goes out anew', async ({
	browser
}) => {
	test.slow();
	const ines = await as(browser, 'ines');
	const dialog = ines.getByRole('dialog');
	const { members, recipients } = await act(ines, 'people', { project: 'VFT' });
	const idOf = (name: string) => members.find((one) => one.name === name)!.id;
	const outside = (name: string) => recipients.find((one) => one.name === name)!.id;
	let way = '';
	let number = '';

	await test.step('Ines puts what the register lists in a release', async () => {
		await go(ines, '/vft/register');
		const table = ines.getByRole('table', { name: 'Deliverables' });
		await pick(ines.getByLabel('Department', { exact: true }), 'Marine works');
		await ines.keyboard.press('Escape');
		await ines.getByLabel('Narrow by words').fill('VFT-MW');
		const first = table.getByRole('checkbox', { name: `Tick ${NUMBER}` });
		await expect(first).toBeVisible();
		await first.check();
		await ines.getByRole('button', { name: /^1 deliverable/ }).click();
		await ines.getByRole('menuitem', { name: /^Tick all \d+ of the list/ }).click();
		await ines.getByRole('button', { name: /^\d+ deliverables/ }).click();
		await ines.getByRole('menuitem', { name: /^Put in release/ }).click();
		await dialog.getByLabel('Title').fill('Linkspan, the whole set');
		await pick(dialog.getByRole('combobox', { name: 'Purpose', exact: true }), 'For comment');
		await expect(dialog.getByText('Goes to, as the distribution list says')).toBeVisible();
		await dialog.getByRole('button', { name: 'Build release' }).click();
		await ines.waitForURL(/\/releases\/\d+$/);
		way = new URL(ines.url()).pathname;
		number = /\d+$/.exec(way)![0];
	});
	const see = () => act(ines, 'releaseView', { project: 'VFT', number: Number(number) });
	const release = (await see()).release.id;

	await test.step('two check, then two of three leads decide; it goes to two companies; what cannot go stays out', async () => {
		const person = (name: string) => ({ kind: 'person' as const, id: idOf(name) });
		await act(ines, 'changeRelease', {
			release,
			recipients: [{ recipient: outside('Maren Aldgate') }, { recipient: outside('Kaja Dorn') }],
			route: [
				{ name: 'Checked', of: [person('Rhosyn Hale'), person('Aino Weir')], needs: 'all', days: 2 },
				{
					name: 'Leads',
					of: [person('Oke Lindvar'), person('Halla Brandt'), person('Tomas Verrin')],
					needs: 2,
					days: 3
				}
			]
		});
		const { items } = await see();
		const stopping = items.filter((item) => item.checks.some((check) => check.result === 'stops'));
		const rest = items.filter((item) => !stopping.includes(item) && item.number !== NUMBER);
		for (const { documentId: document } of [...stopping, ...rest.slice(FORTY)])
			await act(ines, 'leaveOut', { release, document });
		await go(ines, way);
		await expect(ines.getByRole('heading', { name: `${FORTY + 1} documents` })).toBeVisible();
		await accept(ines);
		await ines.getByRole('button', { name: 'Ask for approval' }).click();
		await expect(ines.getByText('in review, step 1 of 2')).toBeVisible();
	});

	const [rhosyn, aino] = [await as(browser, 'rhosyn'), await as(browser, 'aino')];
	await test.step('the second who checks sends it back; it is mended, and both look again', async () => {
		await approve(rhosyn, way, 'Approve step 1');
		const { items } = await see();
		const gone = items.find((item) => item.number !== NUMBER)!;
		await go(aino, way);
		await aino.getByRole('button', { name: 'Send back' }).click();
		await aino.getByRole('dialog').getByLabel('Reason').fill('One of them is not ready.');
		await aino.getByLabel(`What is wrong with ${gone.number}`).fill('It is another revision on site.');
		await aino.getByRole('dialog').getByRole('button', { name: 'Send back' }).click();
		await expect(ines.getByText('Aino Weir sent it back:')).toBeVisible();
		await expect(ines.getByRole('row', { name: new RegExp(gone.number) }).first()).toContainText(
			'sent back by Aino Weir: It is another revision on site.'
		);
		await ines
			.getByRole('row', { name: new RegExp(gone.number) })
			.getByRole('button', { name: 'Leave out' })
			.first()
			.click();
		await expect(ines.getByRole('heading', { name: `${FORTY} documents` })).toBeVisible();
		await accept(ines);
		await ines.getByRole('button', { name: 'Ask for approval' }).click();
		await expect(ines.getByText('in review, step 1 of 2')).toBeVisible();
		await approve(rhosyn, way, 'Approve step 1');
		await approve(aino, way, 'Approve step 1');
		await expect(ines.getByText('in review, step 2 of 2')).toBeVisible();
	});

	const [oke, halla] = [await as(browser, 'oke'), await as(browser, 'halla', { hasTouch: true })];
	await test.step('Halla approves on her phone, Oke at his desk; Tomas is away, and finds it decided', async () => {
		await halla.setViewportSize({ width: 390, height: 844 });
		await go(halla, '/vft/today');
		await halla
			.getByRole('listitem')
			.filter({ hasText: 'Linkspan, the whole set' })
			.getByRole('link', { name: 'Look through and decide' })
			.click();
		await ready(halla);
		await halla.getByRole('button', { name: 'Approve step 2' }).click();
		await expect(halla.getByRole('button', { name: 'Approve step 2' })).toHaveCount(0);
		await approve(oke, way, 'Approve step 2');
		const tomas = await as(browser, 'tomas');
		await go(tomas, way);
		await expect(tomas.getByText(/Approved .* O Lindvar/i)).toBeVisible();
		await expect(tomas.getByRole('button', { name: /^Approve/ })).toHaveCount(0);
	});

	const passes: string[] = [];
	await test.step('Ines looks once more at what will happen, and issues it', async () => {
		await ines.getByRole('link', { name: 'Issue…' }).click();
		await ines.waitForURL(/\/issue$/);
		// Whom an earlier revision reached is said, or that it could not be read; never that nobody has it.
		const becomes = ines.getByRole('table', { name: 'What becomes of each document' });
		const sheet = becomes.getByRole('row', { name: /VFT-MW-LS-00-DR-0102/ });
		await ines.route(/\/holders\?/, (route) => route.abort());
		await ines.reload();
		await ready(ines);
		await expect(sheet).toContainText('who holds it could not be read');
		await ines.unroute(/\/holders\?/);
		await ines.reload();
		await ready(ines);
		await expect(sheet).toContainText('held by');
		for (const name of ['Maren Aldgate', 'Kaja Dorn'])
			await expect(
				ines.getByRole('table', { name: 'Who gets what' }).getByRole('row', { name: new RegExp(name) })
			).toContainText(`${FORTY} documents`);
		await ines.getByLabel(`Type ${number.padStart(4, '0')} to issue it`).fill(number);
		await ines.getByRole('button', { name: `Issue ${number.padStart(4, '0')}` }).click();
		await expect(ines.getByText('2 passes went out by mail')).toBeVisible();
		for (const link of await ines.getByRole('link', { name: /\/pass\// }).all())
			passes.push((await link.getAttribute('href'))!);
	});

	await test.step('two companies answer: one resubmit among thirty-nine accepted, and forty accepted', async () => {
		for (const [at, pass] of passes.entries()) {
			const client = await (await browser.newContext({ baseURL: base() })).newPage();
			await go(client, pass);
			if (at === 0) {
				await client
					.getByRole('radiogroup', { name: `Verdict on ${NUMBER}` })
					.getByRole('radio', { name: 'C' })
					.click();
				await client.getByLabel(`Remark on ${NUMBER}`).fill('The outlet lies too low.');
			}
			await client.getByRole('button', { name: /^Accept the other \d+$/ }).click();
			await client.getByRole('button', { name: `Sign and send ${FORTY} verdicts` }).click();
			await expect(client.getByText('All verdicts are signed and sent')).toBeVisible();
			await client.context().close();
		}
	});

	await test.step('one is made of the two, and Oke finds it on Today', async () => {
		await go(ines, way);
		await ines.getByRole('button', { name: `Make one of the verdicts on ${NUMBER}` }).click();
		await pick(dialog.getByLabel('Verdict'), /^C,/);
		await dialog.getByLabel('Reason').fill('The stricter of the two.');
		await dialog.getByRole('button', { name: 'Make it C' }).click();
		await expect(ines.getByRole('row', { name: new RegExp(NUMBER) })).toContainText(
			'The stricter of the two.'
		);
		await go(oke, '/vft/today');
		await expect(oke.getByText('The outlet lies too low.').first()).toBeVisible();
	});

	await test.step('what Oke hands in goes out anew, and the first release says so before anything else', async () => {
		const { id } = await documentId(oke, NUMBER);
		const { row } = await act(oke, 'documentView', { document: id });
		await act(oke, 'takeLock', { document: id, purpose: 'the outlet' });
		const upload = await sendBytes(oke, 'outlet.txt', 'The outlet lies higher.');
		await act(oke, 'handIn', { document: id, upload, note: 'Outlet raised', base: row.label });
		const next = await act(ines, 'buildRelease', {
			project: 'VFT',
			title: 'Drip pan again',
			purpose: 'comment',
			recipients: [{ recipient: outside('Maren Aldgate') }],
			route: [{ name: 'Lead', of: [{ kind: 'person', id: idOf('Halla Brandt') }], needs: 'all', days: 2 }],
			documents: [id]
		});
		await go(ines, `/vft/releases/${next.number}`);
		await accept(ines);
		await ines.getByRole('button', { name: 'Ask for approval' }).click();
		await expect(ines.getByText('in review')).toBeVisible();
		await approve(halla, `/vft/releases/${next.number}`, 'Approve');
		await act(ines, 'issueRelease', { release: next.id, number: next.number });
		const maren = await (await browser.newContext({ baseURL: base() })).newPage();
		await go(maren, passes[0]!);
		await expect(maren.getByRole('alert')).toContainText('1 document here is superseded.');
		await expect(maren.getByRole('alert')).toContainText(NUMBER);
		await go(ines, way);
		await expect(ines.getByRole('row', { name: new RegExp(NUMBER) })).toContainText('superseded by');
	});
});
