import { expect, test, type Page } from '@playwright/test';
import { as, cuttable, documentId } from './people';

/** Opens a document by its number. */
async function open(page: Page, number: string): Promise<string> {
	const { id } = await documentId(page, number);
	await page.goto(`/vft/document/${id}`);
	return id;
}
const kept = (page: Page) => expect(page.getByText('Everything is kept')).toBeVisible({ timeout: 20_000 });

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
	await expect(oke.getByRole('gridcell', { name: 'Without a line' })).toBeVisible({ timeout: 30_000 });
	for (const page of [oke, rhosyn, maj]) {
		await kept(page);
		await expect(page.getByText('29 rows')).toBeVisible();
		const row = page
			.getByRole('row')
			.filter({ has: page.getByRole('gridcell', { name: 'P-05', exact: true }) });
		await expect(row).toContainText('−21.5');
		await expect(row).toContainText('Without a line');
	}

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
	await expect(oke.getByText(/Handed in as P01\.3/)).toBeVisible();
	await oke.goto(`/vft/document/${id}/compare?from=P01.2&to=P01.3`);
	await expect(oke.getByText('Checked by diver')).toBeVisible();
	const { rows } = await held<Schedule>(oke, id, 'schedule');
	expect(rows).toHaveLength(29);
	for (const page of [oke, rhosyn, maj]) await page.context().close();
});

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
	/** Draws a line by exact coordinates. */
	const draw = async (page: Page, layer: string, points: [number, number][]) => {
		await page.getByRole('radio', { name: 'Line', exact: true }).click();
		await page.getByLabel('On layer').selectOption(layer);
		for (const [x, y] of points) {
			await page.getByLabel('X', { exact: true }).fill(String(x));
			await page.getByLabel('Y', { exact: true }).fill(String(y));
			await page.getByRole('button', { name: 'Set point' }).click();
		}
	};
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
		await expect(page.getByText('3 changes', { exact: true })).toBeVisible({ timeout: 30_000 });
	await kept(rhosyn);

	// Another department's layer is not offered; its lead hands it over, and it is.
	await expect(oke.getByLabel('On layer').locator('option', { hasText: 'SERVICE' })).toHaveCount(0);
	await ines.getByRole('tab', { name: /^Layers/ }).click();
	await ines.getByLabel('Whose SERVICE is').selectOption('MW');
	await expect(ines.getByText('SERVICE is for Marine works now.')).toBeVisible();
	await expect(oke.getByLabel('On layer').locator('option', { hasText: 'SERVICE' })).toHaveCount(1);

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
	await expect(oke.getByText(/Handed in as P02\.2/)).toBeVisible();
	const file = await (await oke.request.get(`/api/v1/documents/${id}/versions/P02.2/file`)).text();
	expect(file).toContain('P02.2');
	// The comparison finds what was drawn, and nothing else.
	await oke.goto(`/vft/document/${id}/compare?from=P02.1&to=P02.2`);
	await expect(oke.getByRole('tab', { name: 'Items 4' })).toBeVisible({ timeout: 30_000 });
	for (const page of [oke, rhosyn, ines]) await page.context().close();
});

test('a remark that was given to somebody is a task on their Today until it is settled', async ({
	browser
}) => {
	const rhosyn = await as(browser, 'rhosyn');
	await rhosyn.getByRole('link', { name: 'Today' }).click();
	const task = rhosyn.getByRole('listitem').filter({ hasText: 'Pit wall now clashes with the cable duct' });
	await expect(task).toContainText('late');
	await task.getByRole('link').click();
	const remark = rhosyn.getByRole('listitem').filter({ hasText: 'Pit wall now clashes' });
	await remark.getByRole('button', { name: 'Settle…' }).click();
	await remark.getByLabel('How it was settled').fill('Duct dropped by 200.');
	await remark.getByRole('button', { name: 'Settle', exact: true }).click();
	await rhosyn.getByRole('link', { name: 'Today' }).click();
	await expect(rhosyn.getByRole('heading', { name: 'Today' })).toBeVisible();
	await expect(task).toHaveCount(0);
	await rhosyn.context().close();
});
