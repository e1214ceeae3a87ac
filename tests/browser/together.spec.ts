import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from './world';
import { as, choose, cuttable, documentId, go, pick, ready, said } from './people';

/** Opens a document by its number. */
async function open(page: Page, number: string): Promise<string> {
	const { id } = await documentId(page, number);
	await go(page, `/vft/document/${id}`);
	return id;
}
const kept = (page: Page) => expect(page.getByText('Everything is kept')).toBeVisible();

interface Schedule {
	columns: { id: string; name: string }[];
	rows: { cells: Record<string, string | number> }[];
}
interface Drawing {
	changes: [number, Record<string, unknown>][];
	items: { kind: string; layer: string; text?: string; points: number[][] }[];
}
/** What the server holds of a live document, as somebody reads it. */
async function held<T>(page: Page, id: string, what: 'schedule' | 'drawing'): Promise<T> {
	return (await page.request.get(`/api/v1/documents/${id}/live/${what}`)).json() as Promise<T>;
}

test('three people fill in one schedule, one through a lost line; rules speak, remarks stand on cells, versions compare', async ({
	browser
}) => {
	const [oke, rhosyn, maj] = (await Promise.all(['oke', 'rhosyn', 'maj'].map((who) => as(browser, who)))) as [
		Page,
		Page,
		Page
	];
	const line = await cuttable(rhosyn);
	let id = '';
	for (const page of [oke, rhosyn, maj]) {
		id = await open(page, 'VFT-MW-LS-00-SH-0004');
		await expect(page.getByRole('gridcell', { name: 'P-01', exact: true })).toBeVisible();
	}
	/** Writes into the cell of a pile, by the place of its column. */
	const write = async (page: Page, pile: string, column: number, words: string) => {
		const row = page
			.getByRole('row')
			.filter({ has: page.getByRole('gridcell', { name: pile, exact: true }) });
		await row.locator(`[aria-colindex="${column}"]`).click();
		await page.keyboard.type(words);
		await page.keyboard.press('Enter');
	};
	await Promise.all([
		write(oke, 'P-02', 10, 'Checked by diver'),
		write(rhosyn, 'P-03', 10, 'Plumb'),
		write(maj, 'P-04', 6, '-20.85')
	]);
	await expect(oke.getByRole('gridcell', { name: 'Plumb' })).toBeVisible();
	await expect(rhosyn.getByRole('gridcell', { name: '−20.85' })).toBeVisible();
	// What is worked out follows.
	await expect(rhosyn.getByRole('gridcell', { name: '19.50' })).toBeVisible();

	await line.cut();
	await expect(rhosyn.getByText('The line is down')).toBeVisible();
	await write(rhosyn, 'P-05', 10, 'Without a line');
	await write(oke, 'P-05', 6, '-21.5');
	await maj.getByRole('button', { name: 'Add row' }).click();
	await maj.keyboard.type('P-29');
	await maj.keyboard.press('Enter');
	line.back();
	await expect(oke.getByRole('gridcell', { name: 'Without a line' })).toBeVisible();
	for (const page of [oke, rhosyn, maj]) {
		await kept(page);
		await expect(page.getByText('29 rows')).toBeVisible();
		const row = page
			.getByRole('row')
			.filter({ has: page.getByRole('gridcell', { name: 'P-05', exact: true }) });
		await expect(row).toContainText('−21.5');
		await expect(row).toContainText('Without a line');
	}

	// Whoever filters does so for themselves, and comes back to it.
	const filter = maj.getByRole('searchbox', { name: /^Only rows whose .* has$/ }).first();
	await maj.getByRole('button', { name: 'Filter' }).click();
	await filter.fill('P-05');
	await expect(maj.getByText('1 of 29 rows')).toBeVisible();
	await maj.reload();
	await expect(maj.getByText('1 of 29 rows')).toBeVisible();
	await expect(filter).toHaveValue('P-05');
	await filter.fill('');
	await expect(maj.getByText('29 rows', { exact: true })).toBeVisible();
	await expect(oke.getByText('29 rows', { exact: true })).toBeVisible();

	// A wrong click breaks a rule: it is kept, and said.
	await write(oke, 'P-06', 8, 'next week');
	await oke.keyboard.press('ArrowUp');
	await expect(oke.getByText('“next week” is no day; write it as 25 Nov 2026 or 2026-11-25.')).toBeVisible();
	await oke.keyboard.press('Control+z');
	await expect(oke.getByRole('gridcell', { name: 'next week' })).toHaveCount(0);
	await expect(oke.getByRole('gridcell', { name: 'Plumb' })).toBeVisible();

	// A remark stands on a cell and is seen there.
	await maj.getByRole('gridcell', { name: 'Plumb' }).click();
	await maj.getByRole('button', { name: 'On the chosen cell' }).click();
	await maj.getByLabel('Remark', { exact: true }).fill('Within which tolerance?');
	await maj.getByRole('button', { name: 'Remark', exact: true }).click();
	await expect(oke.getByRole('listitem').filter({ hasText: 'Within which tolerance?' })).toContainText(
		'P-03, Note: Plumb'
	);

	await oke.getByRole('button', { name: 'Hand in', exact: true }).click();
	await oke.getByLabel('What changed').fill('Notes of the diver');
	await oke.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click();
	await said(oke, /Handed in as P01\.3/);
	await oke.goto(`/vft/document/${id}/compare?from=P01.2&to=P01.3`);
	await expect(oke.getByText('Checked by diver')).toBeVisible();
	const { rows } = await held<Schedule>(oke, id, 'schedule');
	expect(rows).toHaveLength(29);
});

test('what was filled in through a lost line while somebody took the schedule in hand is kept in the browser', async ({
	browser
}) => {
	const [oke, rhosyn] = (await Promise.all(['oke', 'rhosyn'].map((who) => as(browser, who)))) as [Page, Page];
	const line = await cuttable(rhosyn);
	const id = await open(rhosyn, 'VFT-MW-LS-00-SH-0004');
	await kept(rhosyn);
	await line.cut();
	await expect(rhosyn.getByText('The line is down')).toBeVisible();
	await rhosyn.getByRole('gridcell', { name: 'P-07', exact: true }).click();
	await rhosyn.keyboard.type('P-77');
	await rhosyn.keyboard.press('Enter');
	await expect(rhosyn.getByText(/changes? of yours wait here/)).toBeVisible();
	await open(oke, 'VFT-MW-LS-00-SH-0004');
	await oke.getByRole('button', { name: 'Lock', exact: true }).click();
	await oke.getByRole('dialog').getByRole('button', { name: 'Lock' }).click();
	await expect(oke.getByRole('dialog')).toBeHidden();
	await expect(oke.getByRole('button', { name: 'Lock', exact: true })).toBeHidden();
	line.back();
	await expect(rhosyn.getByText(/did not take a change/)).toBeVisible();
	await rhosyn.getByRole('button', { name: 'Open what the others have' }).click();
	const strip = rhosyn.getByRole('alert').filter({ hasText: 'What you did was not taken' });
	await expect(strip).toBeVisible();
	await expect(rhosyn.getByRole('gridcell', { name: 'P-07', exact: true })).toBeVisible();
	// It is still there when the page is opened again.
	await rhosyn.reload();
	const saved = rhosyn.waitForEvent('download');
	await strip.getByRole('button', { name: 'Keep a copy as a file' }).click();
	expect(await readFile(await (await saved).path(), 'utf8')).toContain('P-77');
	const { rows } = await held<Schedule>(oke, id, 'schedule');
	expect(JSON.stringify(rows)).not.toContain('P-77');
	await choose(oke, 'Give back unchanged');
	await expect(oke.getByRole('button', { name: 'Lock', exact: true })).toBeVisible();
});

/** Draws a line by exact coordinates. */
const draw = async (page: Page, layer: string, points: [number, number][]) => {
	await page.getByRole('radio', { name: 'Line', exact: true }).click();
	await pick(page.getByLabel('On layer'), layer);
	for (const [x, y] of points) {
		await page.getByLabel('X', { exact: true }).fill(String(x));
		await page.getByLabel('Y', { exact: true }).fill(String(y));
		await page.getByRole('button', { name: 'Set point' }).click();
	}
};

test('three people draw in one DXF, each department on its layers, one through a lost line', async ({
	browser
}) => {
	const [oke, rhosyn, ines] = (await Promise.all(
		['oke', 'rhosyn', 'ines'].map((who) => as(browser, who))
	)) as [Page, Page, Page];
	const line = await cuttable(rhosyn);
	let id = '';
	for (const page of [oke, rhosyn, ines]) {
		id = await open(page, 'VFT-MW-LS-00-DR-0701');
		await expect(page.getByRole('radio', { name: 'Polyline' })).toBeVisible();
		await expect(page.getByText('Click something in the drawing')).toBeVisible();
	}
	const items = async (page: Page) => (await held<Drawing>(page, id, 'drawing')).items;
	await draw(oke, 'OUTLINE', [
		[1000, 1000],
		[5000, 1000]
	]);
	await expect(ines.getByText('1 change', { exact: true })).toBeVisible();
	await line.cut();
	await expect(rhosyn.getByText('The line is down')).toBeVisible();
	await draw(rhosyn, 'OUTLINE', [
		[1000, 2000],
		[5000, 2000]
	]);
	await draw(ines, 'GRID', [
		[0, 3000],
		[8000, 3000]
	]);
	line.back();
	for (const page of [oke, rhosyn, ines])
		await expect(page.getByText('3 changes', { exact: true })).toBeVisible();
	await kept(rhosyn);

	// Another department's layer is not offered; its lead hands it over, and it is.
	const offered = async (layer: string) => {
		await oke.getByLabel('On layer').click();
		await expect(oke.getByRole('option').first()).toBeVisible();
		const found = await oke.getByRole('option', { name: layer, exact: true }).count();
		await oke.keyboard.press('Escape');
		return found;
	};
	expect(await offered('SERVICE')).toBe(0);
	await ines.getByRole('tab', { name: /^Layers/ }).click();
	await pick(ines.getByLabel('Whose SERVICE is'), 'MW');
	await said(ines, 'SERVICE is for Marine works now.');
	await expect.poll(() => offered('SERVICE')).toBe(1);

	// One's own last step is taken back, not the others'.
	await oke.getByRole('button', { name: 'Undo' }).click();
	await expect(ines.getByText('2 changes', { exact: true })).toBeVisible();
	expect((await items(oke)).map((i) => i.layer).sort()).toEqual(['GRID', 'OUTLINE']);
	await oke.getByRole('button', { name: 'Redo' }).click();

	// A click chooses what lies there; the title block's attributes are changed beside.
	const sheet = (await oke.locator('canvas').boundingBox())!;
	await oke.getByRole('radio', { name: 'Choose' }).click();
	await oke.mouse.click(sheet.x + sheet.width * 0.735, sheet.y + sheet.height * 0.94);
	await oke.getByLabel('REVISION', { exact: true }).fill('P02.2');
	await oke.getByLabel('REVISION', { exact: true }).press('Tab');
	await expect(ines.getByText('4 changes', { exact: true })).toBeVisible();

	await oke.getByRole('button', { name: 'Hand in', exact: true }).click();
	await oke.getByLabel('What changed').fill('Lines for the pipe bridge');
	await oke.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click();
	await said(oke, /Handed in as P02\.2/);
	const file = await (await oke.request.get(`/api/v1/documents/${id}/versions/P02.2/file`)).text();
	expect(file).toContain('P02.2');
	// The comparison finds what was drawn, and nothing else.
	await oke.goto(`/vft/document/${id}/compare?from=P02.1&to=P02.2`);
	await expect(oke.getByRole('tab', { name: 'Items 4' })).toBeVisible();
});

test('of what was drawn through a lost line on a layer that went to others, the rest is put in', async ({
	browser
}) => {
	const [ines, rhosyn] = (await Promise.all(['ines', 'rhosyn'].map((who) => as(browser, who)))) as [
		Page,
		Page
	];
	const line = await cuttable(rhosyn);
	let id = '';
	for (const page of [ines, rhosyn]) {
		id = await open(page, 'VFT-MW-LS-00-DR-0701');
		await expect(page.getByText('Click something in the drawing')).toBeVisible();
	}
	await kept(rhosyn);
	const before = (await held<Drawing>(ines, id, 'drawing')).items.map((i) => i.layer);
	await line.cut();
	await expect(rhosyn.getByText('The line is down')).toBeVisible();
	await draw(rhosyn, 'OUTLINE', [
		[1000, 4000],
		[5000, 4000]
	]);
	await draw(rhosyn, 'GRID', [
		[1000, 5000],
		[5000, 5000]
	]);
	await ines.getByRole('tab', { name: /^Layers/ }).click();
	await pick(ines.getByLabel('Whose OUTLINE is'), 'PL');
	await said(ines, /^OUTLINE is for/);
	line.back();
	await expect(rhosyn.getByText(/did not take a change: The layer OUTLINE/)).toBeVisible();
	await rhosyn.getByRole('button', { name: 'Open what the others have' }).click();
	await ready(rhosyn);

	// Nothing is lost: it is offered as a file, and what may still be drawn goes in.
	const strip = rhosyn.getByRole('alert').filter({ hasText: 'What you did was not taken' });
	await expect(strip).toBeVisible();
	const saved = rhosyn.waitForEvent('download');
	await strip.getByRole('button', { name: 'Keep a copy as a file' }).click();
	const copies = JSON.parse(await readFile(await (await saved).path(), 'utf8')) as { items: object }[];
	expect(JSON.stringify(copies[0]!.items)).toContain('4000');
	await strip.getByRole('button', { name: 'Put in what you may change' }).click();
	await said(rhosyn, /1 change put in\. What lies on OUTLINE stays out/);
	await kept(rhosyn);
	const after = (await held<Drawing>(ines, id, 'drawing')).items.map((i) => i.layer);
	expect(after.sort()).toEqual([...before, 'GRID'].sort());
	await strip.getByRole('button', { name: 'Discard…' }).click();
	await rhosyn.getByRole('dialog').getByRole('button', { name: 'Discard' }).click();
	await expect(strip).toHaveCount(0);
});

test('a remark that was given to somebody is a task on their Today until it is settled', async ({
	browser
}) => {
	const rhosyn = await as(browser, 'rhosyn');
	await go(rhosyn, '/vft/shelves');
	await rhosyn.getByRole('link', { name: 'Today' }).click();
	const task = rhosyn.getByRole('listitem').filter({ hasText: 'Pit wall now clashes with the cable duct' });
	await expect(task).toContainText('late');
	await task.getByRole('link', { name: 'Go to the place' }).click();
	const remark = rhosyn.getByRole('listitem').filter({ hasText: 'Pit wall now clashes' });
	await remark.getByRole('button', { name: 'Settle…' }).click();
	await remark.getByLabel('How it was settled').fill('Duct dropped by 200.');
	await remark.getByRole('button', { name: 'Settle', exact: true }).click();
	await rhosyn.getByRole('link', { name: 'Today' }).click();
	await expect(rhosyn.getByRole('heading', { name: 'Today' })).toBeVisible();
	await expect(task).toHaveCount(0);
});

test('three people work in a text, a schedule, a sheet and a drawing at once; one loses the line in the middle', async ({
	browser
}) => {
	test.slow();
	/** Somebody with all four open, each in a page of its own. */
	const sit = async (who: string) => {
		const first = await as(browser, who);
		const pages = [first];
		while (pages.length < 4) pages.push(await first.context().newPage());
		const [text, schedule, sheet, drawing] = pages as [Page, Page, Page, Page];
		return { text, schedule, sheet, drawing, pages };
	};
	const [oke, rhosyn, ines] = await Promise.all(['oke', 'rhosyn', 'ines'].map(sit));
	const all = [oke!, rhosyn!, ines!];
	const lines = await Promise.all(rhosyn!.pages.map(cuttable));
	for (const one of all) {
		await open(one.text, 'VFT-MW-LS-00-SP-0005');
		await open(one.schedule, 'VFT-MW-LS-00-SH-0004');
		await open(one.sheet, 'VFT-MW-LS-00-DR-0102');
		await open(one.drawing, 'VFT-MW-LS-00-DR-0701');
		await expect(one.text.locator('.ProseMirror')).toContainText('Bring the deck in on the barge');
		await expect(one.schedule.getByRole('gridcell', { name: 'P-20', exact: true })).toBeVisible();
		await ready(one.sheet);
		await one.sheet.getByRole('button', { name: 'Mark up' }).click();
		await expect(one.drawing.getByText('Click something in the drawing')).toBeVisible();
		for (const page of one.pages) await kept(page);
	}
	/** What one of them does in each of the four; `n` tells them apart. */
	const work = async (one: (typeof all)[number], who: string, n: number) => {
		await one.text.locator('.ProseMirror p', { hasText: 'Bring the deck in on the barge' }).first().click();
		await one.text.keyboard.press('End');
		await one.text.keyboard.type(` Seen by ${who}.`);
		await one.schedule
			.getByRole('row')
			.filter({ has: one.schedule.getByRole('gridcell', { name: `P-${20 + n}`, exact: true }) })
			.locator('[aria-colindex="10"]')
			.click();
		await one.schedule.keyboard.type(`Seen by ${who}`);
		await one.schedule.keyboard.press('Enter');
		await one.sheet.getByRole('radio', { name: 'Ellipse' }).click();
		await one.sheet.mouse.move(400 + n * 70, 620);
		await one.sheet.mouse.down();
		await one.sheet.mouse.move(450 + n * 70, 660, { steps: 4 });
		await one.sheet.mouse.up();
		await draw(one.drawing, 'GRID', [
			[7000 + n, 100],
			[7000 + n, 900]
		]);
	};
	await work(ines!, 'Ines', 0);
	await Promise.all(lines.map((line) => line.cut()));
	for (const page of rhosyn!.pages) await expect(page.getByText('The line is down')).toBeVisible();
	await work(rhosyn!, 'Rhosyn', 1);
	await work(oke!, 'Oke', 2);
	lines.forEach((line) => line.back());

	const shows = async (one: (typeof all)[number]) => ({
		text: (await one.text.locator('.ProseMirror').innerText()).match(/Seen by \w+\./g)?.sort(),
		// Without the names of those whose cursors stand in a cell.
		schedule: (await one.schedule.getByRole('gridcell', { name: /^Seen by/ }).allInnerTexts())
			.map((cell) => cell.split('\n')[0])
			.sort(),
		marks: await one.sheet
			.locator('[data-kind] path')
			.evaluateAll((paths) => paths.map((path) => path.getAttribute('d')).sort()),
		changes: await one.drawing.getByText(/^\d+ changes?$/).innerText()
	});
	for (const one of all) {
		for (const who of ['Ines', 'Rhosyn', 'Oke']) {
			await expect(one.text.locator('.ProseMirror')).toContainText(`Seen by ${who}.`);
			await expect(one.schedule.getByRole('gridcell', { name: `Seen by ${who}` })).toBeVisible();
		}
		await expect.poll(async () => (await shows(one)).marks.length).toBeGreaterThanOrEqual(3);
		for (const page of one.pages) await kept(page);
	}
	await expect.poll(async () => shows(rhosyn!)).toEqual(await shows(oke!));
	await expect.poll(async () => shows(ines!)).toEqual(await shows(oke!));
	expect((await shows(oke!)).text).toEqual(['Seen by Ines.', 'Seen by Oke.', 'Seen by Rhosyn.']);
	const { id } = await documentId(oke!.drawing, 'VFT-MW-LS-00-DR-0701');
	const { items } = await held<Drawing>(oke!.drawing, id, 'drawing');
	const own = items.flatMap((item) => (item.points[0]![0]! >= 7000 && item.layer === 'GRID' ? [item] : []));
	expect(own.map((item) => item.points[0]![0]).sort()).toEqual([7000, 7001, 7002]);
});
