import { expect, test, type Page } from './world';
import { as, cuttable, documentId, go, pick, said } from './people';

/** What a live text says in somebody's browser, without the names at others' cursors. */
const textOf = (page: Page) =>
	page.locator('.ProseMirror').evaluate((editor) => {
		const copy = editor.cloneNode(true) as HTMLElement;
		copy.querySelectorAll('.caret, .ProseMirror-trailingBreak').forEach((one) => one.remove());
		return copy.innerText.replace(/[\u2060\u200b]/g, '');
	});

test('three people write in one text, one through a lost line; they suggest, remark, and hand in', async ({
	browser
}) => {
	const [oke, rhosyn, ines] = await Promise.all(['oke', 'rhosyn', 'ines'].map((who) => as(browser, who)));
	const line = await cuttable(rhosyn!);
	const found = await documentId(oke!, 'VFT-MW-LS-00-SP-0005');
	for (const page of [oke!, rhosyn!, ines!]) {
		await page.goto(`/vft/document/${found.id}`);
		await expect(page.locator('.ProseMirror')).toContainText('Bring the deck in on the barge');
	}
	await expect(oke!.getByText('2 others are here')).toBeVisible();
	const end = async (page: Page, paragraph: string, words: string) => {
		await page.locator('.ProseMirror :is(p, h1, h2)', { hasText: paragraph }).first().click();
		await page.keyboard.press('End');
		await page.keyboard.type(words);
	};
	await Promise.all([
		end(oke!, 'No work stands over water', ' The harbour master is told.'),
		end(ines!, 'Survey the bearing shelf', ' Document control keeps both.')
	]);
	await expect(rhosyn!.locator('.ProseMirror')).toContainText('The harbour master is told.');
	await line.cut();
	await expect(rhosyn!.getByText('The line is down')).toBeVisible();
	await end(rhosyn!, 'Fit the hinge pins', ' Two people read it.');
	await end(oke!, 'Fit the hinge pins', ' Feeler gauges are calibrated.');
	line.back();
	for (const page of [oke!, rhosyn!, ines!])
		for (const words of [
			'Two people read it.',
			'Feeler gauges are calibrated.',
			'Document control keeps both.'
		])
			await expect(page.locator('.ProseMirror')).toContainText(words);
	await expect.poll(async () => (await textOf(oke!)) === (await textOf(rhosyn!))).toBe(true);
	await expect.poll(async () => (await textOf(oke!)) === (await textOf(ines!))).toBe(true);
	await expect(rhosyn!.getByText('Everything is kept')).toBeVisible();

	// Rhosyn suggests; Oke takes it.
	await rhosyn!.getByRole('radio', { name: 'Suggest' }).click();
	await end(rhosyn!, 'Readings of both towers', ' (logged)');
	await oke!.getByRole('tab', { name: /^Suggestions/ }).click();
	const suggestion = oke!.getByRole('listitem').filter({ hasText: '(logged)' });
	await suggestion.getByRole('button', { name: 'Accept' }).click();
	await expect(rhosyn!.locator('.ProseMirror ins', { hasText: '(logged)' })).toHaveCount(0);
	await expect(rhosyn!.locator('.ProseMirror')).toContainText('(logged)');

	// Ines remarks on words; Oke sees it at once and settles it.
	await ines!.locator('.ProseMirror strong', { hasText: 'not' }).dblclick();
	await ines!.getByRole('button', { name: 'On the selected words' }).click();
	await ines!.getByLabel('Remark', { exact: true }).fill('Underline this for the barge crew.');
	await ines!.getByRole('button', { name: 'Remark', exact: true }).click();
	await expect(oke!.locator('.ProseMirror .remarked', { hasText: 'not' })).toBeVisible();
	await oke!.getByRole('tab', { name: /^Remarks/ }).click();
	const remark = oke!.getByRole('listitem').filter({ hasText: 'Underline this' });
	await remark.getByRole('button', { name: 'Settle…' }).click();
	await remark.getByLabel('How it was settled').fill('Underlined.');
	await remark.getByRole('button', { name: 'Settle', exact: true }).click();
	await expect(ines!.getByRole('listitem').filter({ hasText: 'Underline this' })).toHaveCount(0);

	// What all of them wrote becomes a version, with who wrote what.
	await oke!.getByRole('button', { name: 'Hand in', exact: true }).click();
	await oke!.getByLabel('What changed').fill('As agreed in the text');
	await oke!.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click();
	await said(oke!, /Handed in as P01\.3/);
	await oke!.getByRole('tab', { name: 'Who wrote what' }).click();
	await pick(oke!.getByRole('combobox', { name: 'from' }), 'P01.2');
	await expect(oke!.getByRole('listitem').filter({ hasText: /^Rhosyn Hale/ })).toContainText('+');
});

test('three people mark up one sheet, one of them through a lost line; each takes back only their own', async ({
	browser
}) => {
	const [oke, rhosyn, ines] = await Promise.all(['oke', 'rhosyn', 'ines'].map((who) => as(browser, who)));
	const line = await cuttable(ines!);
	const found = await documentId(oke!, 'VFT-MW-LS-00-DR-0102');
	for (const page of [oke!, rhosyn!, ines!]) {
		await go(page, `/vft/document/${found.id}`);
		await page.getByRole('button', { name: 'Mark up' }).click();
		await expect(page.getByRole('radio', { name: 'Cloud' })).toBeVisible();
	}
	const draw = async (page: Page, tool: string, from: [number, number], to: [number, number]) => {
		await page.getByRole('radio', { name: tool, exact: true }).click();
		await page.mouse.move(...from);
		await page.mouse.down();
		await page.mouse.move(...to, { steps: 5 });
		await page.mouse.up();
	};
	const marks = (page: Page, kind: string) => page.locator(`[data-kind="${kind}"]`);
	await draw(oke!, 'Cloud', [420, 300], [560, 400]);
	await expect(marks(rhosyn!, 'cloud')).toHaveCount(1);
	await draw(rhosyn!, 'Arrow', [700, 500], [600, 420]);
	await expect(marks(oke!, 'arrow')).toHaveCount(1);
	await rhosyn!.getByRole('radio', { name: 'Callout' }).click();
	await rhosyn!.getByLabel('The words').fill('Check camber');
	await draw(rhosyn!, 'Callout', [450, 500], [520, 560]);
	await expect(oke!.getByRole('group', { name: 'Marks on the sheet: 3' })).toContainText('Check camber');
	await oke!.getByRole('button', { name: 'Undo' }).click();
	await expect(marks(rhosyn!, 'cloud')).toHaveCount(0);
	await expect(marks(rhosyn!, 'arrow')).toHaveCount(1);
	await oke!.getByRole('button', { name: 'Redo' }).click();
	await expect(marks(rhosyn!, 'cloud')).toHaveCount(1);

	// The line of one is cut; all go on, and what each of them did comes together when it is back.
	await line.cut();
	await draw(ines!, 'Rectangle', [450, 600], [560, 650]);
	await draw(ines!, 'Ellipse', [620, 560], [700, 640]);
	await expect(marks(ines!, 'rectangle')).toHaveCount(1);
	await draw(oke!, 'Line', [420, 250], [520, 250]);
	await rhosyn!.getByRole('radio', { name: 'Select' }).click();
	await marks(rhosyn!, 'arrow').locator('path').first().click({ force: true });
	await rhosyn!.getByRole('button', { name: 'Delete' }).click();
	await expect(marks(oke!, 'arrow')).toHaveCount(0);
	await expect(marks(oke!, 'rectangle')).toHaveCount(0);
	await expect(marks(ines!, 'line')).toHaveCount(0);
	line.back();
	const everything = { cloud: 1, arrow: 0, callout: 1, line: 1, rectangle: 1, ellipse: 1 };
	const paths = (page: Page) =>
		page.locator('[data-kind] path').evaluateAll((all) => all.map((one) => one.getAttribute('d')).sort());
	for (const page of [oke!, rhosyn!, ines!])
		for (const [kind, count] of Object.entries(everything))
			await expect(marks(page, kind), kind).toHaveCount(count);
	expect(await paths(rhosyn!)).toEqual(await paths(oke!));
	expect(await paths(ines!)).toEqual(await paths(oke!));
	// Taking back reaches what one did oneself while the line was cut, and nobody else's.
	await ines!.getByRole('button', { name: 'Undo' }).click();
	await expect(marks(oke!, 'ellipse')).toHaveCount(0);
	await expect(marks(oke!, 'line')).toHaveCount(1);
	// What was drawn is still there for whoever comes later.
	await oke!.reload();
	await expect(marks(oke!, 'callout')).toHaveCount(1);
	await expect(marks(oke!, 'rectangle')).toHaveCount(1);
});

test('marks leave a PDF as standard annotations and as XFDF, and come back from both', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { id } = await documentId(oke, 'VFT-MW-LS-00-DR-0110');
	await go(oke, `/vft/document/${id}`);
	await oke.getByRole('button', { name: 'Mark up' }).click();
	await expect(oke.getByRole('group', { name: 'Marks on the sheet: 0' })).toBeVisible();
	const draw = async (tool: string, from: [number, number], to: [number, number]) => {
		await oke.getByRole('radio', { name: tool, exact: true }).click();
		await oke.mouse.move(...from);
		await oke.mouse.down();
		await oke.mouse.move(...to, { steps: 5 });
		await oke.mouse.up();
	};
	await draw('Cloud', [420, 300], [560, 400]);
	await expect(oke.getByRole('group', { name: 'Marks on the sheet: 1' })).toBeVisible();
	await draw('Arrow', [700, 500], [600, 420]);
	await oke.getByRole('radio', { name: 'Callout' }).click();
	await oke.getByLabel('The words').fill('Check camber');
	await draw('Callout', [450, 500], [520, 560]);
	const onSheet = (kind: string) => oke.locator(`[data-kind="${kind}"]`);
	await expect(onSheet('callout')).toHaveCount(1);
	const take = async (button: string) => {
		const [download] = await Promise.all([
			oke.waitForEvent('download'),
			oke.getByRole('button', { name: button }).click()
		]);
		return (await download.path())!;
	};
	const xfdf = await take('Marks as XFDF');
	const pdf = await take('PDF with annotations');
	const bring = async (file: string) => oke.getByLabel('Bring marks in…').setInputFiles(file);
	await bring(xfdf);
	await expect(oke.getByText('3 marks of')).toBeVisible();
	for (const kind of ['cloud', 'arrow', 'callout']) await expect(onSheet(kind)).toHaveCount(2);
	// Brought in is one step, and taken back as one.
	await oke.getByRole('button', { name: 'Undo' }).click();
	for (const kind of ['cloud', 'arrow', 'callout']) await expect(onSheet(kind)).toHaveCount(1);
	await bring(pdf);
	for (const kind of ['cloud', 'arrow', 'callout']) await expect(onSheet(kind)).toHaveCount(2);
	await expect(oke.getByText('Check camber')).toHaveCount(2);
	await oke.getByLabel('Bring marks in…').setInputFiles({
		name: 'marks.xfdf',
		mimeType: 'application/xml',
		buffer: Buffer.from('<xfdf><annots><line')
	});
	await expect(oke.getByText('This file is damaged, or holds no marks in XFDF.')).toBeVisible();
});

test('one of the usual words of a column is taken with the mouse, with keys, or written over', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { id } = await documentId(oke, 'VFT-MW-LS-00-SH-0004');
	await go(oke, `/vft/document/${id}`);
	const schedule = await oke.request.get(`/api/v1/documents/${id}/live/schedule`);
	const { columns } = (await schedule.json()) as { columns: { kind: string }[] };
	const state = columns.findIndex((column) => column.kind === 'choice');
	const cell = (row: number) => oke.getByRole('row').nth(row).getByRole('gridcell').nth(state);
	const list = oke.getByRole('listbox');

	await cell(1).dblclick();
	await list.getByRole('option', { name: 'set aside' }).click();
	await oke.keyboard.press('Enter');
	await expect(cell(1)).toHaveText('set aside');
	await expect(list).toBeHidden();

	await cell(2).dblclick();
	await oke.keyboard.press('ArrowUp');
	await oke.keyboard.press('Enter');
	await expect(cell(2)).toHaveText('driven');

	// What is no usual word is kept and said to be none; leaving the cell is enough.
	await cell(3).dblclick();
	await oke.keyboard.press('Control+a');
	await oke.keyboard.type('half driven');
	await cell(5).click();
	await expect(cell(3)).toHaveText('half driven');
	await cell(4).dblclick();
	await oke.keyboard.press('Control+a');
	await oke.keyboard.type('to');
	await oke.keyboard.press('Escape');
	await expect(cell(4)).toHaveText('tested');
});
