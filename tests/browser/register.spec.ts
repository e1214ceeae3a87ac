import { readFile } from 'node:fs/promises';
import { expect, test } from './world';
import { act, as, go, pick, ready, said } from './people';

test('a controller narrows the register, moves planned days, and a lead says when something comes', async ({
	browser
}) => {
	const [ines, oke] = [await as(browser, 'ines'), await as(browser, 'oke')];
	for (const page of [ines, oke]) await go(page, '/vft/register');
	const table = ines.getByRole('table', { name: 'Deliverables' });
	// Two departments at once, then one of them let go of.
	const department = ines.getByRole('combobox', { name: 'Department', exact: true });
	await department.click();
	for (const name of ['Marine works', 'Architecture'])
		await ines.getByRole('option', { name, exact: true }).click();
	await expect(ines).toHaveURL(/department=MW&department=AR/);
	await expect(department).toContainText('Marine works and 1 more');
	await expect(table.getByText('VFT-AR-TB-00-DR-0101')).toBeVisible();
	await expect(table.getByText(/^VFT-BS-/)).toHaveCount(0);
	await ines.getByRole('option', { name: 'Architecture', exact: true }).click();
	await ines.keyboard.press('Escape');
	await expect(department).toContainText('Marine works');
	await expect(table.getByText('VFT-AR-TB-00-DR-0101')).toHaveCount(0);
	await pick(ines.getByLabel('Stage', { exact: true }), 'For construction');
	await expect(ines).toHaveURL(/department=MW.*stage=construction|stage=construction.*department=MW/);
	// A figure narrows to what it counts, and lets go of it again.
	const none = ines.getByRole('button', { name: /^No document yet/ });
	const count = Number(/\d+/.exec(await none.innerText())![0]);
	await none.click();
	await expect(table.getByText('no document yet')).toHaveCount(count);
	await none.click();
	await expect(none).toHaveAttribute('aria-pressed', 'false');

	// Two lines are moved by a week; the other sees it without a reload.
	const number = 'VFT-MW-QW-00-DR-0301';
	await ines.getByLabel('Narrow by words').fill('VFT-MW-QW-00-DR-030');
	await expect(table.getByRole('checkbox', { name: `Tick ${number}` })).toBeVisible();
	await oke.getByLabel('Narrow by words').fill(number);
	await oke.getByRole('button', { name: number }).click();
	const theirs = oke.getByRole('dialog');
	const planned = theirs.getByRole('row').filter({ hasText: 'For construction' }).getByRole('cell').first();
	const before = await planned.innerText();
	await table.getByRole('checkbox', { name: `Tick ${number}` }).check();
	await table.getByRole('checkbox', { name: 'Tick VFT-MW-QW-00-DR-0302' }).check();
	await ines.getByRole('button', { name: /^2 deliverables/ }).click();
	await ines.getByRole('menuitem', { name: 'Move planned days…' }).click();
	await ines.getByLabel('Why').fill('The divers come a week later.');
	await ines.getByRole('button', { name: 'Move planned days' }).click();
	await said(ines, 'The planned days of 2 deliverables moved.');
	await expect(planned).not.toHaveText(before);
	await expect(theirs.getByText('moved planned days: The divers come a week later.')).toBeVisible();

	// The lead says when it comes; the rule's own day stays beside it, and both see it.
	const line = ines.getByRole('button', { name: number });
	const place = (await line.boundingBox())!.y;
	const row = theirs.getByRole('row').filter({ hasText: 'For construction' });
	await row.getByRole('button', { name: 'Say when it is expected…' }).click();
	await theirs.getByRole('textbox', { name: 'Day' }).fill('3 May 2032');
	await theirs.getByLabel('Why').fill('The pile survey is done first.');
	await theirs.getByRole('button', { name: 'Set forecast' }).click();
	await expect(row).toContainText('Oke Lindvar: The pile survey is done first. By the rule');
	// What another does moves nothing under somebody who is about to press it.
	await expect(ines.getByRole('button', { name: /^Late or slipping [1-9]/ })).toBeVisible();
	expect((await line.boundingBox())!.y).toBe(place);
	await line.click();
	await expect(ines.getByRole('dialog')).toContainText('The pile survey is done first.');
	await ines.keyboard.press('Escape');

	// A planned mark is dragged: where it is let go is asked about, and nothing moved before the reason was given.
	await ines.getByLabel('Narrow by words').fill(number);
	await expect(table.getByRole('row')).toHaveCount(2);
	const mark = table.locator('[data-planned="construction"]');
	const box = (await mark.boundingBox())!;
	await ines.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
	await ines.mouse.down();
	await ines.mouse.move(box.x + 30, box.y + 6, { steps: 4 });
	await ines.mouse.up();
	await expect(ines.getByRole('radio', { name: 'to a day' })).toBeChecked();
	await expect(ines.getByRole('textbox', { name: 'Planned day' })).not.toHaveValue('');
	await ines.getByRole('button', { name: 'Cancel' }).click();

	// What was narrowed to is kept for all, and found by the other.
	await ines.getByRole('button', { name: 'Choices' }).click();
	await ines.getByRole('menuitem', { name: 'Keep this choice…' }).click();
	await ines.getByLabel('Name').fill('Quay wall, for construction');
	await ines.getByLabel('For everybody in the project').check();
	await ines.getByRole('button', { name: 'Keep choice' }).click();
	await expect(ines.getByRole('dialog')).toHaveCount(0);
	await oke.keyboard.press('Escape');
	await oke.getByRole('button', { name: 'Show all' }).click();
	await oke.getByRole('button', { name: 'Choices' }).click();
	await oke.getByRole('menuitem', { name: /^Quay wall, for construction/ }).click();
	await expect(oke).toHaveURL(/stage=construction/);
	await expect(oke.getByLabel('Narrow by words')).toHaveValue(number);

	// What the list shows goes into a release in one go, as far as it has documents.
	await ines.getByLabel('Narrow by words').fill('VFT-MW-LS-00-DR-012');
	const first = table.getByRole('checkbox', { name: 'Tick VFT-MW-LS-00-DR-0127' });
	await expect(first).toBeVisible();
	await first.check();
	await ines.getByRole('button', { name: /^1 deliverable/ }).click();
	await ines.getByRole('menuitem', { name: /^Tick all \d+ of the list/ }).click();
	await ines.getByRole('button', { name: /^\d+ deliverables/ }).click();
	await ines.getByRole('menuitem', { name: /^Put in release/ }).click();
	const dialog = ines.getByRole('dialog');
	await dialog.getByLabel('Title').fill('Linkspan details');
	await pick(dialog.getByRole('combobox', { name: 'Purpose', exact: true }), 'For information');
	await expect(dialog.getByText('Goes to, as the distribution list says')).toBeVisible();
	await dialog.getByRole('button', { name: 'Build release' }).click();
	await ines.waitForURL(/\/releases\/\d+/);
	await ready(ines);
	await expect(ines.getByRole('row', { name: /VFT-MW-LS-00-DR-0127/ }).first()).toBeVisible();
	await expect(ines.getByRole('row', { name: /VFT-MW-LS-00-DR-0128/ }).first()).toBeVisible();
});

test('a list is taken in after a trial; an export that comes back changes nothing', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/register');
	const more = async (entry: string) => {
		await ines.getByRole('button', { name: 'More', exact: true }).click();
		await ines.getByRole('menuitem', { name: entry }).click();
	};
	await more('Import a list…');
	const cells = [
		['Blatt', 'Drawing title', 'Discipline', 'For comment'],
		['VFT-MW-QW-00-DR-0391', 'Ladder recess', 'Marine works', '5 Mar 2031'],
		['VFT-MW-QW-00-DR-0392', 'Ladder recess, berth 2', 'Painters', '5 Mar 2031'],
		['VFT-MW-QW-00-DR-0301', 'Quay wall section, chainage 0 to 40', 'MW', '']
	];
	await ines.getByLabel('Or paste cells from a sheet').fill(cells.map((row) => row.join('\t')).join('\n'));
	await ines.getByRole('button', { name: 'Read the cells' }).click();
	// One head is not known: it is matched by hand.
	await expect(ines.getByText('Say which column holds the number.')).toBeVisible();
	await pick(ines.getByLabel('What Blatt holds'), 'Number');
	const fates = ines.getByRole('table', { name: 'What becomes of each line' });
	await expect(fates.getByRole('row').filter({ hasText: 'refused' })).toContainText(
		'No department is called “Painters”.'
	);
	await expect(fates.getByRole('row').filter({ hasText: 'new' })).toContainText('VFT-MW-QW-00-DR-0391');
	const takeIn = ines.getByRole('button', { name: /^Take in \d lines?$/ });
	await expect(takeIn).toBeDisabled();
	await ines.getByLabel(/^Leave out the 1 line/).check();
	await takeIn.click();
	await said(ines, /^1 new deliverable, [01] changed/);
	await ines.getByLabel('Narrow by words').fill('Ladder recess');
	await expect(ines.getByRole('button', { name: 'VFT-MW-QW-00-DR-0391' })).toBeVisible();
	await ines.getByLabel('Narrow by words').fill('');

	for (const [entry, file] of [
		['CSV', 'register.csv'],
		['XLSX with the curves', 'register.xlsx']
	] as const) {
		await ines.getByRole('button', { name: 'Export' }).first().click();
		const coming = ines.waitForEvent('download');
		await ines.getByRole('menuitem', { name: entry }).click();
		const bytes = await readFile((await (await coming).path())!);
		await more('Import a list…');
		await ines.locator('input[type=file]').setInputFiles({
			name: file,
			mimeType: 'application/octet-stream',
			buffer: bytes
		});
		await expect(ines.getByText(/^0 new · 0 changed/)).toContainText('0 refused');
		await expect(ines.getByRole('button', { name: 'Nothing to take in' })).toBeDisabled();
		await ines.keyboard.press('Escape');
		await expect(ines.getByRole('dialog')).toHaveCount(0);
	}
});

test('what is missing is planned, a deliverable is added and taken out, and on a phone nothing goes sideways', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/register');
	await ines.getByRole('button', { name: 'Add deliverables' }).click();
	await pick(ines.getByRole('dialog').getByLabel('Department'), 'Building services');
	const number = ines.getByRole('dialog').getByLabel('Number');
	await expect(number).toHaveValue('VFT-BS-');
	await number.fill('VFT-BS-SU-00-DR-0388');
	await ines.getByRole('dialog').getByLabel('Title').fill('Cable trench covers');
	await ines.getByRole('textbox', { name: 'For comment' }).fill('7 Apr 2031');
	await ines.getByRole('button', { name: 'Add deliverable', exact: true }).click();
	await expect(ines.getByRole('dialog')).toHaveCount(0);
	await ines.getByLabel('Narrow by words').fill('Cable trench covers');
	const row = ines.getByRole('row').filter({ hasText: 'VFT-BS-SU-00-DR-0388' });
	await expect(row).toContainText('no document yet');
	await row.getByRole('checkbox').check();
	await ines
		.getByRole('button', { name: /^1 deliverable/ })
		.first()
		.click();
	await ines.getByRole('menuitem', { name: 'Take out of the register…' }).click();
	await ines.getByLabel('Reason').fill('is part of another sheet');
	await ines.getByRole('button', { name: 'Take out of the register' }).click();
	await expect(row).toHaveCount(0);
	await ines.getByRole('button', { name: 'Take back' }).click();
	await expect(row).toHaveCount(1);

	// Which numbers are missing follows what the list is narrowed to; one of them is planned where it is read.
	await ines.getByLabel('Narrow by words').fill('VFT-BS-SU-00-DR-020');
	const missing = ines.getByRole('button', { name: /^Numbers missing/ });
	await expect(missing).toHaveText('Numbers missing 1');
	await missing.click();
	const before = ines.getByRole('row').filter({ hasText: 'VFT-BS-SU-00-DR-0207' });
	await expect(before).toContainText('Missing after it: 0208');
	await before.getByRole('button', { name: 'Add VFT-BS-SU-00-DR-0208' }).click();
	await expect(ines.getByLabel('Number', { exact: true })).toHaveValue('VFT-BS-SU-00-DR-0208');
	await ines.getByLabel('Title', { exact: true }).fill('Substation cable basement sections');
	await ines.getByRole('button', { name: 'Add deliverable', exact: true }).click();
	await expect(ines.getByRole('dialog')).toHaveCount(0);
	await expect(missing).toHaveText('Numbers missing 0');
	await missing.click();
	await expect(ines.getByRole('row').filter({ hasText: 'VFT-BS-SU-00-DR-0208' })).toContainText('BS');

	await ines.getByRole('button', { name: 'More', exact: true }).click();
	await ines.getByRole('menuitem', { name: /^What is missing…/ }).click();
	const unplanned = ines.getByRole('table', { name: 'Documents that nobody planned' });
	const first = unplanned.getByRole('checkbox').nth(1);
	const name = (await first.getAttribute('aria-label'))!.replace('Tick ', '');
	await first.check();
	await ines.getByRole('dialog').getByLabel('For approval').check();
	await ines.getByRole('button', { name: 'Put 1 document in the register' }).click();
	await said(ines, '1 document put in the register.');
	const { rows } = await act(ines, 'register', { project: 'VFT', words: name });
	expect(rows[0]!.stages).toMatchObject([{ stage: 'approval', planned: null }]);

	await ines.setViewportSize({ width: 390, height: 844 });
	await go(ines, '/vft/register');
	const wide = await ines.evaluate(() => document.documentElement.scrollWidth);
	expect(wide).toBeLessThanOrEqual(390);
	await expect(ines.getByText(/^For comment \d/).first()).toBeVisible();
});
