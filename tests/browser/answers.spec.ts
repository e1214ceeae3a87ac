import { expect, test, type Browser, type Page } from './world';
import { act, as, base, documentId, go, ready, sendBytes } from './people';

const [SHEET, CALCULATION] = ['VFT-MW-LS-00-DR-0127', 'VFT-MW-LS-00-CA-0008'];

/** The address of a version's file, fetched as the person of the page. */
async function fileOf(page: Page, document: string, label: string): Promise<Buffer> {
	const answer = await page.request.get(`/api/v1/documents/${document}/versions/${label}/file?download`);
	expect(answer.ok()).toBe(true);
	return answer.body();
}

/** Issues documents to Maren; gives the number of the release and her pass. */
async function issue(browser: Browser, ines: Page, documents: string[]) {
	const { recipients, members } = await act(ines, 'people', { project: 'VFT' });
	const halla = await as(browser, 'halla');
	const approver = members.find((one) => one.name === 'Halla Brandt')!.id;
	const made = await act(ines, 'buildRelease', {
		project: 'VFT',
		title: 'Drip pan',
		purpose: 'comment',
		recipients: [{ recipient: recipients.find((one) => one.name === 'Maren Aldgate')!.id }],
		route: [{ name: 'Approval', of: [{ kind: 'person', id: approver }], needs: 'all', days: 3 }],
		documents
	});
	const { items } = await act(ines, 'releaseView', { project: 'VFT', number: made.number });
	const checks = items.flatMap((item) =>
		item.checks
			.filter((check) => check.result === 'look')
			.map((check) => ({ document: item.documentId, check: check.name }))
	);
	if (checks.length)
		await act(ines, 'acceptChecks', { release: made.id, checks, reason: 'The scene is set.' });
	await act(ines, 'askApproval', { release: made.id });
	const { digest } = await act(halla, 'releaseView', { project: 'VFT', number: made.number });
	await act(halla, 'approveRelease', { release: made.id, digest: digest! });
	await halla.context().close();
	const { passes } = await act(ines, 'issueRelease', { release: made.id, number: made.number });
	return { number: made.number, pass: passes[0]!.link };
}

/** Presses the sheet at a share of its width and height, after asking to place a remark, and says something there. */
async function place(page: Page, at: [number, number], words: string) {
	await page.getByRole('button', { name: 'Place a remark' }).click();
	const sheet = page.getByRole('button', { name: 'Choose the place of the remark' });
	const box = (await sheet.boundingBox())!;
	await sheet.click({ position: { x: box.width * at[0], y: box.height * at[1] } });
	await page.getByLabel('What is to be said at this place').fill(words);
	await page.getByRole('button', { name: 'Keep remark' }).click();
	await expect(page.getByRole('listitem').filter({ hasText: words })).toBeVisible();
}

/** Draws on the sheet from one share of its width and height to another. */
async function draw(page: Page, tool: string, from: [number, number], to: [number, number]) {
	await page.getByRole('radio', { name: tool, exact: true }).click();
	const box = (await page.locator('canvas').first().boundingBox())!;
	const at = ([x, y]: [number, number]) => [box.x + box.width * x, box.y + box.height * y] as const;
	await page.mouse.move(...at(from));
	await page.mouse.down();
	await page.mouse.move(...at(to), { steps: 4 });
	await page.mouse.up();
}
/** Everything that was drawn is kept. */
const drawnKept = (page: Page) => expect(page.getByText('Everything is kept')).toBeVisible();

test('a client answers on the sheet: what changed since they had it, remarks at their places, a file with marks; at the desk and on a phone', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	const [sheet, calculation] = [await documentId(ines, SHEET), await documentId(ines, CALCULATION)];
	const first = await issue(browser, ines, [sheet.id, calculation.id]);
	const oke = await as(browser, 'oke');
	const { row } = await act(oke, 'documentView', { document: sheet.id });
	const drawing = (await fileOf(oke, sheet.id, row.label)).toString('latin1');
	const changed = drawing.replace(/(\r?\n *0\r?\nENDSEC\r?\n *0\r?\nEOF)/, (end) =>
		end.replace(
			/^(\r?\n)/,
			['', '0', 'CIRCLE', '8', '0', '10', '100', '20', '100', '40', '20'].join(
				drawing.includes('\r\n') ? '\r\n' : '\n'
			) + '$1'
		)
	);
	expect(changed).not.toBe(drawing);
	await act(oke, 'takeLock', { document: sheet.id, purpose: 'a drain' });
	const upload = await sendBytes(oke, 'pan.dxf', Buffer.from(changed, 'latin1'));
	await act(oke, 'handIn', { document: sheet.id, upload, note: 'A drain more', base: row.label });
	const second = await issue(browser, ines, [sheet.id, calculation.id]);

	const desk = await browser.newContext({ baseURL: base() });
	const maren = await desk.newPage();
	await test.step('by her old link she is told where the new one is, before anything else', async () => {
		await go(maren, first.pass);
		await expect(maren.getByRole('alert').first()).toContainText(
			`sent to you with release ${String(second.number).padStart(4, '0')}`
		);
	});

	await test.step('what changed is there for the sheet that did, and not for what stayed', async () => {
		await go(maren, second.pass);
		const compare = maren.getByRole('link', { name: /^Compare with/ });
		await expect(compare).toHaveCount(1);
		await expect(
			maren.getByRole('row', { name: new RegExp(SHEET) }).getByRole('link', { name: /^Compare with/ })
		).toBeVisible();
		await compare.click();
		await ready(maren);
		await expect(maren.getByText(`of release ${String(first.number).padStart(4, '0')}, to`)).toBeVisible();
		await expect(maren.getByRole('status').filter({ hasText: /\d+ changes?/ })).toBeVisible();
		await maren.getByRole('button', { name: 'Next change' }).click();
		await expect(maren.getByText(/^1 of \d+ changes?$/)).toBeVisible();
		await maren.getByRole('link', { name: /^Release \d+/ }).click();
	});

	await test.step('two remarks are placed, one is taken back, and a file with marks goes along', async () => {
		await maren
			.getByRole('radiogroup', { name: `Verdict on ${CALCULATION}` })
			.getByRole('radio', { name: 'A' })
			.click();
		const line = maren.getByRole('row', { name: new RegExp(SHEET) });
		await line.getByRole('link', { name: 'View and remark' }).click();
		await ready(maren);
		await place(maren, [0.4, 0.4], 'Where does this drain to?');
		await place(maren, [0.6, 0.5], 'Wrong sheet.');
		await maren.getByRole('button', { name: 'Take remark 2 back' }).click();
		await expect(maren.getByText('Wrong sheet.')).toHaveCount(0);
		await maren.getByRole('radio', { name: 'C', exact: true }).click();
		await expect(maren.getByText('revise and resubmit')).toBeVisible();
		await maren
			.getByLabel('Send a marked-up file')
			.setInputFiles({ name: 'pan marked.txt', mimeType: 'text/plain', buffer: Buffer.from('red ink') });
		await expect(maren.getByRole('listitem').filter({ hasText: 'pan marked.txt' })).toContainText('1 kB');
		await expect(maren.getByRole('button', { name: /^Remark 1 by/ })).toBeVisible();
		await maren.getByRole('link', { name: 'Sign on the list' }).click();
		await ready(maren);
		// What was chosen on the list before, and on the sheet, is still chosen.
		await expect(
			maren.getByRole('radiogroup', { name: `Verdict on ${CALCULATION}` }).getByRole('radio', { name: 'A' })
		).toBeChecked();
		await expect(line).toContainText('1 remark on the sheet, 1 marked-up file');
	});

	await test.step('she draws a cloud and words, takes one back and finds the rest again, also once her line was down', async () => {
		const line = maren.getByRole('row', { name: new RegExp(SHEET) });
		await line.getByRole('link', { name: 'View and remark' }).click();
		await ready(maren);
		await maren.getByRole('button', { name: 'Draw on the sheet' }).click();
		await expect(maren.getByRole('radio', { name: 'Cloud' })).toBeChecked();
		// What needs a scale or a stamp of the project is not hers.
		await expect(maren.getByRole('radio', { name: 'Dimension' })).toHaveCount(0);
		await draw(maren, 'Cloud', [0.3, 0.3], [0.45, 0.4]);
		await draw(maren, 'Arrow', [0.6, 0.6], [0.7, 0.7]);
		await expect(maren.getByText('2 marks', { exact: true })).toBeVisible();
		await drawnKept(maren);
		await maren.getByRole('button', { name: 'Undo' }).click();
		await expect(maren.getByText('1 mark', { exact: true })).toBeVisible();
		await drawnKept(maren);
		await desk.setOffline(true);
		await maren.getByRole('radio', { name: 'Callout' }).click();
		await maren.getByLabel('The words').fill('A drain here, too');
		await draw(maren, 'Callout', [0.5, 0.5], [0.6, 0.4]);
		await expect(maren.getByText('The line is down')).toBeVisible();
		await desk.setOffline(false);
		await drawnKept(maren);
		await maren.reload();
		await ready(maren);
		await expect(maren.getByText('2 marks', { exact: true })).toBeVisible();
		await expect(maren.getByText('A drain here, too')).toBeVisible();
		await maren.getByRole('link', { name: 'Sign on the list' }).click();
		await ready(maren);
		await expect(line).toContainText('1 remark on the sheet, 2 marks drawn on it, 1 marked-up file');
		// Nobody else sees them before she signs.
		await go(ines, `/vft/releases/${second.number}/view/${sheet.id}`);
		await expect(ines.getByText('Drawn with the verdicts')).toHaveCount(0);
	});

	await test.step('she asks for a colleague; Ines finds it on Today and lets him in, by a link of his own', async () => {
		await maren.getByRole('button', { name: 'Ask for a colleague…' }).click();
		await maren.getByLabel('Name', { exact: true }).fill('Ivo Brandal');
		await maren.getByLabel('Mail address').fill('ivo@harbourtrust.example');
		await maren.getByRole('button', { name: 'Ask for them' }).click();
		await expect(maren.getByText('asked for, waits for an answer')).toBeVisible();
		await go(ines, '/vft/today');
		const asked = ines.getByRole('listitem').filter({ hasText: '1 colleague asked for by who got it' });
		await asked.getByRole('link', { name: 'Let in or refuse' }).click();
		await ready(ines);
		await ines.getByRole('button', { name: 'Let Ivo Brandal in' }).click();
		await expect(ines.getByText('with Ivo Brandal, ivo@harbourtrust.example')).toBeVisible();
		const { passes } = await act(ines, 'passes', { project: 'VFT' });
		const own = passes.find((one) => one.holder === 'Ivo Brandal')!;
		const { link } = await act(ines, 'passAddress', { project: 'VFT', pass: own.id });
		const ivo = await (await browser.newContext({ baseURL: base() })).newPage();
		await go(ivo, link);
		await expect(ivo.getByText('you are Ivo Brandal')).toBeVisible();
		await expect(ivo.getByRole('row', { name: new RegExp(SHEET) })).toContainText(
			'1 remark on the sheet, 2 marks drawn on it, 1 marked-up file'
		);
		await expect(ivo.getByLabel('Your name, as signature')).toHaveValue('Ivo Brandal');
		// What he chooses she sees at once, and the words that she has begun stay as they are.
		const verdict = (page: Page, code: string) =>
			page.getByRole('radiogroup', { name: `Verdict on ${CALCULATION}` }).getByRole('radio', { name: code });
		const words = maren.getByLabel(`Remark on ${CALCULATION}`);
		await words.pressSequentially('Checked by');
		await verdict(ivo, 'B').click();
		await expect(verdict(maren, 'B')).toBeChecked();
		await verdict(ivo, 'A').click();
		await expect(verdict(maren, 'A')).toBeChecked();
		await expect(words).toHaveValue('Checked by');
		await words.fill('');
		await ivo.context().close();
		await desk.close();
	});

	await test.step('on the way she places and draws one more on her phone, and signs there', async () => {
		const context = await browser.newContext({
			baseURL: base(),
			viewport: { width: 390, height: 844 },
			hasTouch: true,
			isMobile: true
		});
		const phone = await context.newPage();
		await go(phone, second.pass);
		await phone
			.getByRole('row', { name: new RegExp(SHEET) })
			.getByRole('link', { name: 'View and remark' })
			.click();
		await ready(phone);
		await expect(phone.getByText('Where does this drain to?')).toBeVisible();
		await place(phone, [0.5, 0.5], 'And this?');
		await phone.getByRole('button', { name: 'Draw on the sheet' }).click();
		await draw(phone, 'Freehand', [0.3, 0.6], [0.6, 0.7]);
		await drawnKept(phone);
		expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
		await phone.getByRole('button', { name: 'Done drawing' }).click();
		await expect(phone.getByText('3 marks', { exact: true })).toBeVisible();
		expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
		await phone.getByRole('link', { name: 'Sign on the list' }).click();
		await ready(phone);
		await phone.getByRole('button', { name: 'Sign and send 2 verdicts' }).click();
		await expect(phone.getByText('All verdicts are signed and sent')).toBeVisible();
		await phone
			.getByRole('row', { name: new RegExp(SHEET) })
			.getByRole('link', { name: 'View' })
			.click();
		await ready(phone);
		await expect(phone.getByText('And this?')).toBeVisible();
		await expect(phone.getByRole('button', { name: 'Place a remark' })).toHaveCount(0);
		await expect(phone.getByText('3 marks', { exact: true })).toBeVisible();
		await expect(phone.getByRole('button', { name: 'Draw on the sheet' })).toHaveCount(0);
		await context.close();
	});

	await test.step('Ines finds what was drawn at the verdict, and takes a copy with it', async () => {
		await go(ines, `/vft/releases/${second.number}`);
		await ines.getByRole('link', { name: `drawn on ${SHEET}` }).click();
		await ready(ines);
		const marks = ines.getByRole('region', { name: 'Drawn with the verdicts' });
		await expect(marks).toContainText('“A drain here, too”; 2 marks without words');
		await expect(ines.locator('[data-kind]')).not.toHaveCount(0);
		const [copy] = await Promise.all([
			ines.waitForEvent('download'),
			marks.getByRole('button', { name: 'Copy with their marks, PDF' }).click()
		]);
		expect(copy.suggestedFilename()).toContain('with their marks.pdf');
		await marks.getByRole('checkbox', { name: /^Maren Aldgate, Vennholm Harbour Trust: 3 marks/ }).uncheck();
		await expect(ines.locator('[data-kind]')).toHaveCount(0);
	});

	await test.step('Oke finds them on his sheet, and the file beside the line', async () => {
		await go(oke, `/vft/document/${sheet.id}`);
		for (const words of ['Where does this drain to?', 'And this?'])
			await expect(oke.getByText(words).first()).toBeVisible();
		await expect(oke.getByRole('button', { name: /^Remark \d+ by Maren Aldgate/ })).toHaveCount(2);
		await expect(oke.getByText(/Marked up by Maren Aldgate, Vennholm Harbour Trust/).first()).toBeVisible();
		// What she drew is there to work on with, on a layer of those outside.
		await expect(oke.getByText('A drain here, too')).toBeVisible();
		await oke.getByRole('button', { name: 'Mark up' }).click();
		await expect(oke.getByRole('checkbox', { name: 'outside' })).toBeChecked();
	});
});
