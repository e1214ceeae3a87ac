import { readFile } from 'node:fs/promises';
import { expect, test } from './world';
import { unzipSync } from 'fflate';
import { act, as, documentId, go, pick, ready, sendBytes, said } from './people';

test('folders stand in the list; many things are ticked as a range, downloaded, copied, moved, tagged and removed, and each is taken back', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { folder: linkspan } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	const { id: here } = await act(oke, 'makeFolder', { parent: linkspan, name: 'Temporary works' });
	const { id: props } = await act(oke, 'makeFolder', { parent: here, name: 'Props' });
	await act(oke, 'makeFolder', { parent: here, name: 'Sheets' });
	const add = async (folder: string, serial: number) =>
		act(oke, 'addDocument', {
			folder,
			upload: await sendBytes(oke, 'note.md', `# ${serial}`),
			number: `VFT-MW-LS-00-RP-0${serial}`,
			title: `Temporary ${serial}`
		});
	for (const serial of [801, 802, 803, 804]) await add(here, serial);
	await add(props, 805);
	await go(oke, `/vft/place/${here}`);
	const rows = oke.getByRole('grid', { name: 'Documents' }).getByRole('row');
	await expect(rows).toHaveCount(7);
	await expect(rows.nth(1)).toContainText('Props');
	await expect(rows.nth(1)).toContainText('1 document');
	const box = (name: string) => oke.getByRole('checkbox', { name });
	const menu = async (name: string) => {
		await oke.getByRole('button', { name: /ticked/ }).click();
		await oke.getByRole('menuitem', { name, exact: true }).click();
	};

	// A range with Shift, across folders and documents.
	await box('Tick folder Sheets').click();
	await box('Tick VFT-MW-LS-00-RP-0803').click({ modifiers: ['Shift'] });
	await expect(oke.getByRole('button', { name: '4 ticked' })).toBeVisible();
	await box('Tick folder Sheets').click();
	await box('Tick folder Props').click();
	await expect(oke.getByRole('button', { name: '4 ticked' })).toBeVisible();

	const coming = oke.waitForEvent('download');
	await menu('Download as zip');
	const names = Object.keys(unzipSync(await readFile(await (await coming).path())));
	expect(names.sort()).toEqual([
		'Props/VFT-MW-LS-00-RP-0805_P01.1.md',
		...[801, 802, 803].map((n) => `VFT-MW-LS-00-RP-0${n}_P01.1.md`)
	]);

	const dialog = oke.getByRole('dialog');
	await menu('Tag…');
	await dialog.getByLabel('Tags to give, with commas between').fill('falsework');
	await dialog.getByRole('button', { name: 'Tag 3 documents and 1 folder' }).click();
	await said(oke, '4 documents tagged.');
	await expect(rows.nth(3)).toContainText('falsework');
	await expect(oke.getByRole('button', { name: /ticked/ })).toBeHidden();

	await box('Tick folder Props').check();
	await box('Tick VFT-MW-LS-00-RP-0801').check();
	await menu('Move…');
	await pick(dialog.getByRole('combobox'), 'Marine works / Linkspan / Hydraulics');
	await dialog.getByRole('button', { name: 'Move 1 document and 1 folder' }).click();
	await expect(rows).toHaveCount(5);
	await oke.getByRole('button', { name: 'Take back' }).last().click();
	await expect(rows).toHaveCount(7);

	await box('Tick folder Props').check();
	await menu('Copy…');
	await pick(dialog.getByRole('combobox'), 'Marine works / Linkspan / Temporary works / Sheets');
	await dialog.getByRole('button', { name: 'Copy 1 folder' }).click();
	await said(oke, /^Copied as /);
	await oke.getByRole('link', { name: 'Sheets' }).first().click();
	await expect(rows.nth(1)).toContainText('Props');

	await go(oke, `/vft/place/${here}`);
	await box('Tick all').check();
	await menu('Remove…');
	await dialog.getByLabel('Reason').fill('struck');
	await dialog.getByRole('button', { name: 'Remove 4 documents and 2 folders' }).click();
	await expect(oke.getByText('No documents here yet.', { exact: false })).toBeVisible();
	await oke.getByRole('button', { name: 'Take back' }).last().click();
	await expect(rows).toHaveCount(7);

	// How one sorts is remembered.
	await oke.getByRole('button', { name: /^Title/ }).click();
	await oke.getByRole('button', { name: /^Title/ }).click();
	await oke.reload();
	await ready(oke);
	await expect(rows.nth(3)).toContainText('Temporary 804');

	// So is which columns one wants, for this person alone.
	const column = (name: string) => oke.getByRole('columnheader', { name, exact: true });
	await expect(column('Size')).toBeVisible();
	await oke.getByRole('button', { name: 'Columns' }).click();
	for (const name of ['Size', 'Shared with']) await oke.getByRole('menuitemcheckbox', { name }).click();
	await oke.keyboard.press('Escape');
	await expect(column('Size')).toBeHidden();
	await oke.reload();
	await ready(oke);
	await expect(column('Kind')).toBeVisible();
	await expect(column('Size')).toBeHidden();
	await expect(column('Shared with')).toBeHidden();
	await oke.getByRole('button', { name: 'Columns' }).click();
	for (const name of ['Size', 'Shared with']) await oke.getByRole('menuitemcheckbox', { name }).click();
	await oke.keyboard.press('Escape');
	await expect(column('Size')).toBeVisible();

	// The folder itself is moved, and taken back.
	await go(oke, `/vft/place/${props}`);
	await oke.getByRole('button', { name: /^Folder/ }).click();
	await oke.getByRole('menuitem', { name: 'Move…', exact: true }).click();
	await pick(dialog.getByRole('combobox'), 'Marine works / Quay wall');
	await dialog.getByRole('button', { name: 'Move', exact: true }).click();
	const way = oke.getByRole('heading', { level: 1 });
	await expect(way).toContainText('Quay wall');
	await oke.getByRole('button', { name: 'Take back' }).last().click();
	await expect(way).toContainText('Temporary works');
});

test('many are shared in one go, and the rest is locked when some are in somebody’s hand', async ({
	browser
}) => {
	const [oke, rhosyn] = [await as(browser, 'oke'), await as(browser, 'rhosyn')];
	const { folder } = await documentId(oke, 'VFT-MW-QW-00-DR-0201');
	const { id: held } = await documentId(oke, 'VFT-MW-QW-00-DR-0201');
	await go(oke, `/vft/place/${folder}`);
	const tick = async (...serials: string[]) => {
		for (const serial of serials)
			await oke.getByRole('checkbox', { name: `Tick VFT-MW-QW-00-DR-${serial}` }).check();
	};
	const menu = async (name: string) => {
		await oke.getByRole('button', { name: /ticked/ }).click();
		await oke.getByRole('menuitem', { name, exact: true }).click();
	};
	const dialog = oke.getByRole('dialog');
	await tick('0201', '0202', '0203');
	await menu('Share…');
	await dialog.getByLabel('Whom to let in').fill('Wren Ostrow, View');
	await dialog.getByRole('button', { name: 'Let in and tell them' }).click();
	await said(oke, /^1 line done at 3 places/);

	await act(rhosyn, 'takeLock', { document: held, purpose: 'soundings' });
	await tick('0201', '0202', '0203');
	await menu('Lock…');
	await dialog.getByRole('button', { name: 'Lock', exact: true }).click();
	await expect(dialog.getByRole('alert')).toContainText('Nothing was locked');
	await dialog.getByRole('button', { name: /^Lock the other \d/ }).click();
	await said(oke, /locked; left with whoever has them/);
});

test('on a phone, words are found and folders in folders are reached', async ({ browser }) => {
	const oke = await as(browser, 'oke', { viewport: { width: 390, height: 844 } });
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	await go(oke, '/vft/shelves');
	await oke.getByRole('link', { name: 'Find', exact: true }).click();
	await oke.getByLabel('Number, title or words inside', { exact: true }).fill('hinge pin');
	await oke.keyboard.press('Enter');
	await expect(oke.getByRole('link', { name: /Hinge pin/ }).first()).toBeVisible();
	await go(oke, `/vft/place/${folder}`);
	await oke.getByRole('link', { name: 'Hydraulics' }).click();
	await expect(oke.getByRole('heading', { level: 1 })).toContainText('Hydraulics');
	expect(await oke.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('on a phone every page is as wide as the phone, and its buttons are on it', async ({ browser }) => {
	const ines = await as(browser, 'ines', { viewport: { width: 390, height: 844 } });
	const { id: text } = await documentId(ines, 'VFT-MW-LS-00-SP-0005');
	const { id: drawing, folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0110');
	const within = async (name: string | RegExp) => {
		const box = (await ines.getByRole('button', { name }).first().boundingBox())!;
		expect(box.x, String(name)).toBeGreaterThanOrEqual(0);
		expect(box.x + box.width, String(name)).toBeLessThanOrEqual(390);
	};
	const pages: [string, (string | RegExp)[]][] = [
		['today', []],
		['new', ['Mark all as seen']],
		['at-hand', []],
		['register', []],
		['shared', []],
		['passes', ['Address', 'Change', 'Withdraw']],
		['hatches', ['Close']],
		['arrivals', ['Sort in…', 'Refuse…']],
		['releases', ['New release']],
		['releases/33', ['Withdraw pass']],
		['releases/34', ['Change…']],
		['releases/holders', [/Never confirmed/]],
		['settings/releases', ['Add a route']],
		['people', ['Name a stand-in…']],
		[`document/${text}`, ['Undo', 'Picture', 'Page break']],
		[`document/${text}/remarks`, []],
		[`document/${drawing}`, ['Lock', 'Actions']],
		[`place/${folder}`, ['Add documents']],
		['remarks', []],
		['sharing', []],
		['in-hand', []],
		['issued', []],
		['releases', []],
		['register', []]
	];
	for (const [path, buttons] of pages) {
		await go(ines, `/vft/${path}`);
		for (const name of buttons) {
			await expect(ines.getByRole('button', { name }).first()).toBeVisible();
			await within(name);
		}
		expect(await ines.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
		// What scrolls in itself must not go sideways either; sheets, texts and schedules are moved as one likes.
		if (!path.startsWith('document/'))
			expect(
				await ines.evaluate(() =>
					[...document.querySelectorAll('main *')]
						.filter((one) => /auto|scroll/.test(getComputedStyle(one).overflowX))
						.filter((one) => one.scrollWidth > one.clientWidth + 1)
						.map((one) => one.className)
				),
				path
			).toEqual([]);
	}
});

test('tick all takes in the documents that are still to come', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	const { folder: parent } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
	const { id: folder } = await act(ines, 'makeFolder', { parent, name: 'Everything twice' });
	const { rows } = await act(ines, 'register', { project: 'VFT', limit: 200 });
	const documents = rows.flatMap((row) => row.document?.id ?? []).slice(0, 110);
	for (let n = 0; n < 2; n++) await act(ines, 'copyDocuments', { project: 'VFT', documents, to: folder });

	// On a slow line what comes after the first rows takes its time.
	await ines.route(/\/documents\?after=/, async (route) => {
		await new Promise((late) => setTimeout(late, 2_000));
		await route.continue();
	});
	await go(ines, `/vft/place/${folder}`);
	const all = ines.getByRole('checkbox', { name: 'Tick all' });
	// Notices of what was just copied still come, each of a row that is not ticked yet.
	await all.click();
	await expect(ines.getByRole('button', { name: '220 ticked' })).toBeVisible();
	await expect(all).toBeChecked();

	await all.click();
	await expect(ines.getByRole('button', { name: /ticked$/ })).toHaveCount(0);
});
