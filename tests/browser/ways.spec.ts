import { expect, test } from './world';
import { act, as, choose, documentId, go, pick, said } from './people';

test('what waits stands under Today with what can be done; the ways in say how much', async ({ browser }) => {
	const [oke, rhosyn] = [await as(browser, 'oke'), await as(browser, 'rhosyn')];
	const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0302');
	const band = oke.getByRole('navigation', { name: 'Project' });
	await go(oke, '/vft/shelves');
	await band.getByRole('link', { name: /^Today/ }).click();
	const within = oke.getByRole('navigation', { name: 'Within Today' });
	const told = async () =>
		Number(/\d+/.exec(await within.getByRole('link', { name: /^For you/ }).innerText())?.[0] ?? 0);
	await expect(oke.getByRole('heading', { name: /^In your hand/ })).toBeVisible();
	const before = await told();
	const { me } = await act(oke, 'projectFrame', { project: 'VFT' });
	await act(oke, 'takeLock', { document: id, purpose: 'levels' });
	// Somebody gives them a remark to settle: it stands there without a reload.
	await act(rhosyn, 'addRemark', {
		document: id,
		anchor: { on: 'whole' },
		text: 'Whose level is this?',
		assign: { kind: 'person', id: me.id }
	});
	const remark = oke.getByRole('listitem').filter({ hasText: 'Whose level is this?' });
	await expect(remark).toBeVisible();
	await expect.poll(told).toBe(before + 2);
	const held = oke.getByRole('listitem').filter({ hasText: 'levels' });
	await held.getByRole('button', { name: 'Give back unchanged' }).click();
	await expect(held).toHaveCount(0);
	await remark.getByRole('link', { name: 'Go to the place' }).click();
	await expect(oke.getByRole('tab', { name: /^Remarks/, selected: true })).toBeVisible();
	await expect(oke.getByText('Whose level is this?')).toBeVisible();
});

test('a bookmark is made with a key, and says what became of what it led to', async ({ browser }) => {
	const [rhosyn, oke] = [await as(browser, 'rhosyn'), await as(browser, 'oke')];
	const { id, folder } = await documentId(rhosyn, 'VFT-MW-QW-00-DR-0304');
	await go(rhosyn, `/vft/document/${id}`);
	await rhosyn.keyboard.press('b');
	await said(rhosyn, 'is at hand, under Today.');
	await go(rhosyn, `/vft/place/${folder}`);
	await rhosyn.getByRole('button', { name: /^Folder/ }).click();
	await rhosyn.getByRole('menuitem', { name: 'Keep at hand' }).click();
	await said(rhosyn, /^Quay wall is at hand/);
	await go(rhosyn, '/vft/at-hand');
	const list = rhosyn.getByRole('table', { name: 'At hand' });
	await expect(list.getByRole('link', { name: 'Quay wall' })).toBeVisible();
	const row = list.getByRole('row').filter({ hasText: 'VFT-MW-QW-00-DR-0304' });
	await act(oke, 'removePlace', { place: id, reason: 'drawn anew' });
	await expect(row).toContainText('removed on');
	await act(oke, 'restorePlace', { place: id });
	await expect(row).not.toContainText('removed on');
	await row.getByRole('button', { name: 'Keep no longer' }).click();
	await expect(row).toHaveCount(0);
});

test('what stands beside a document keeps its place from one to the next, and restores from there', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0120');
	await go(oke, `/vft/place/${folder}`);
	await oke.getByLabel('Filter this list').fill('deck panel');
	await oke.locator('[data-document]').first().dblclick();
	await expect(oke.getByText(/^1 of \d$/)).toBeVisible();
	await oke.getByRole('tab', { name: /^Versions/ }).click();
	const versions = oke.getByRole('list', { name: 'Versions' });
	await expect(versions.getByRole('listitem').first()).toBeVisible();
	await oke.keyboard.press('n');
	await expect(oke.getByText(/^2 of \d$/)).toBeVisible();
	await expect(oke.getByRole('tab', { name: /^Versions/, selected: true })).toBeVisible();
	const many = await versions.getByRole('listitem').count();
	await versions.getByRole('button', { name: 'What to do with P01.1' }).click();
	await oke.getByRole('menuitem', { name: 'Restore as a new version' }).click();
	await said(oke, /^P01\.1 is restored as/);
	await expect(versions.getByRole('listitem')).toHaveCount(many + 1);
	for (const name of ['Access', 'Trail', 'Details']) {
		await oke.getByRole('tab', { name }).click();
		await expect(oke.getByRole('tabpanel', { name })).not.toBeEmpty();
	}
	await choose(oke, 'Remarks as a table');
	await expect(oke).toHaveURL(/\/remarks$/);
});

test('on a phone the ways in stand along the bottom', async ({ browser }) => {
	const sefa = await as(browser, 'sefa', { viewport: { width: 390, height: 844 }, hasTouch: true });
	const bar = sefa.getByRole('navigation', { name: 'Project' });
	await go(sefa, '/vft/shelves');
	// Letters are fetched where a page shows some: on a slow line, all of them are most of what one waits for.
	const letters = await sefa.evaluate(async () => {
		await document.fonts.ready;
		const fetched = performance.getEntriesByType('resource').filter((one) => one.name.endsWith('.woff2'));
		return [fetched.length, [...document.fonts].filter((font) => font.status === 'loaded').length];
	});
	expect(letters[0]).toBe(letters[1]);
	expect(letters[0]).toBeGreaterThan(0);
	for (const [name, path] of [
		['Photograph', 'photograph'],
		['Find', 'find'],
		['Today', 'today'],
		['Shelves', 'shelves']
	] as const) {
		await bar.getByRole('link', { name: new RegExp(`^${name}`) }).tap();
		await expect(sefa).toHaveURL(new RegExp(`/vft/${path}$`));
		await expect(bar.getByRole('link', { name: new RegExp(`^${name}`) })).toHaveAttribute(
			'aria-current',
			'page'
		);
	}
	await bar.getByRole('button', { name: 'More' }).tap();
	await sefa.getByRole('menuitem', { name: 'Register' }).tap();
	await expect(sefa.getByRole('heading', { name: 'Register', level: 1 })).toBeVisible();

	// What is said by the way stands above them, and covers none.
	const found = await sefa.request.get('/api/v1/projects/VFT/find?q=VFT-SI');
	const { rows } = (await found.json()) as { rows: { id: string }[] };
	await act(sefa, 'removePlace', { place: rows[0]!.id, reason: 'struck' });
	await go(sefa, '/vft/removed');
	const stands = sefa.evaluate(
		() =>
			new Promise<number>((done) =>
				new MutationObserver((_, observer) => {
					const list = document.querySelector('[data-sonner-toaster]');
					if (!list) return;
					observer.disconnect();
					done(parseFloat(getComputedStyle(list).bottom));
				}).observe(document, { childList: true, subtree: true })
			)
	);
	await sefa.getByRole('button', { name: 'Restore' }).first().tap();
	expect(await stands).toBeGreaterThan((await bar.boundingBox())!.height);
});

test('how documents are numbered is tried against the numbers of today before it is changed', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/settings');
	await expect(ines.getByText(/^All \d+ numbers of today fit\.$/)).toBeVisible();
	await ines.getByLabel('Digits of the serial').fill('9');
	await expect(ines.getByText('A serial has 1 to 8 digits.')).toBeVisible();
	await expect(ines.getByRole('button', { name: 'Change the numbering' })).toBeDisabled();
	await ines.getByLabel('Digits of the serial').fill('5');
	await expect(ines.getByText(/^\d+ of \d+ numbers of today do not fit,/)).toBeVisible();
	await ines.getByRole('button', { name: 'Change the numbering' }).click();
	await expect(ines.getByText(/documents keep numbers that do not fit it\.$/)).toBeVisible();
	await go(ines, '/vft/activity');
	await expect(
		ines.getByText(/changed how documents are numbered, from \S+-0001 to \S+-00001/)
	).toBeVisible();
	// And back.
	await go(ines, '/vft/settings');
	await ines.getByLabel('Digits of the serial').fill('4');
	await ines.getByRole('button', { name: 'Change the numbering' }).click();
	await said(ines, 'The numbering is changed.');
});

test('settings say what comes of them before they are changed, and a place is drawn and tried on sheets', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/settings');
	const parts = ines.getByRole('navigation', { name: 'Settings' });
	await parts.getByRole('link', { name: 'Access' }).click();
	const change = ines.getByRole('button', { name: 'Change who is outside' });
	await expect(change).toBeDisabled();
	await pick(ines.getByLabel('People outside may go up to'), /^View/);
	await expect(ines.getByText(/outside goe?s? down to View at once\./)).toBeVisible();
	await pick(ines.getByLabel('People outside may go up to'), /^Download/);
	await expect(ines.getByText(/outside goe?s? down to/)).toBeHidden();
	await expect(change).toBeDisabled();

	await parts.getByRole('link', { name: 'Title block' }).click();
	const sheet = ines.getByRole('img', { name: /^First page of/ });
	await expect(sheet).toBeVisible();
	const fitting = ines.getByRole('status').filter({ hasText: 'say there' });
	await expect(fitting).toContainText(/11 of 11\s+sheets\s+say there/);
	// Drawn in the upper left, where no title block stands, and back again with the keyboard.
	await sheet.scrollIntoViewIfNeeded();
	const { x, y, width, height } = (await sheet.boundingBox())!;
	await ines.mouse.move(x + width * 0.02, y + height * 0.02);
	await ines.mouse.down();
	await ines.mouse.move(x + width * 0.2, y + height * 0.2, { steps: 4 });
	await ines.mouse.up();
	await expect(ines.getByLabel('right')).toHaveValue('20');
	await expect(fitting).toContainText(/0 of 11\s+sheets\s+say there/);
	for (const [side, share] of [
		['right', '100'],
		['bottom', '100']
	] as const)
		await ines.getByLabel(side).fill(share);
	await expect(fitting).toContainText(/11 of 11\s+sheets\s+say there/);
	await ines.getByRole('button', { name: 'Change the place' }).click();
	await said(ines, /^Changed\./);

	await parts.getByRole('link', { name: 'Mails and reminders' }).click();
	await ines.getByLabel('After it was due').fill('2, x');
	await expect(ines.getByText('“x” is not a number of working days')).toBeVisible();
	await ines.getByLabel('After it was due').fill('2');
	await expect(ines.getByText(/told that it is overdue on \d+ \w+\. An answer ends it/)).toBeVisible();
	await ines.getByRole('button', { name: 'Change the reminders' }).click();
	await said(ines, /^Changed\./);
	await go(ines, '/vft/activity');
	await expect(ines.getByText(/changed when recipients are reminded/)).toBeVisible();
	await expect(ines.getByText(/changed the place of the title block/)).toBeVisible();
});

test('what somebody new does not know is found, and said with pictures', async ({ browser }) => {
	const lumi = await as(browser, 'lumi');
	await go(lumi, '/vft/shelves');
	await lumi.keyboard.press('?');
	await lumi.getByRole('dialog').getByRole('link', { name: 'How Cupboard works' }).click();
	await expect(lumi.getByRole('heading', { name: 'The first day' })).toBeVisible();
	const subjects = lumi.getByRole('navigation', { name: 'How Cupboard works' });
	await subjects.getByRole('link', { name: 'Passes and hatches' }).click();
	const picture = lumi.getByRole('img', { name: /^Passes and hatches/ });
	await picture.scrollIntoViewIfNeeded();
	await expect
		.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth))
		.toBeGreaterThan(400);
	await go(lumi, '/vft/find?q=hatch');
	await lumi.getByRole('link', { name: 'Passes and hatches' }).click();
	await expect(lumi.getByRole('heading', { name: 'Passes and hatches' })).toBeVisible();
	// An address that leads nowhere keeps the band and the way back.
	await lumi.goto('/vft/help/nothing');
	await expect(lumi.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
	await lumi
		.getByRole('navigation', { name: 'Project' })
		.getByRole('link', { name: /^Today/ })
		.click();
	await expect(lumi).toHaveURL(/\/today$/);
});

test('a project is made from nothing: the empty cupboard says what comes first', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/projects');
	await ines.getByLabel('Code, as numbers begin with it').fill('SLP');
	await ines.getByLabel('Name', { exact: true }).fill('Slipway repair');
	await ines.getByLabel('Client').fill('Vennholm Harbour Trust');
	const zone = ines.getByRole('combobox', { name: 'Time zone, by a town in it' });
	await zone.fill('');
	await zone.pressSequentially('oslo');
	await ines.getByRole('option', { name: /^Oslo/ }).click();
	await ines.getByRole('button', { name: 'Make the project' }).click();
	await expect(ines.getByRole('heading', { name: 'The cupboard is empty' })).toBeVisible();
	await expect(ines.getByText(/Numbers look like SLP-/)).toBeVisible();
	await ines.getByRole('link', { name: 'Make departments' }).click();
	const making = ines.locator('form').filter({ hasText: 'Make department' });
	await making.getByLabel('Code').fill('MW');
	await making.getByLabel('Name').fill('Marine works');
	await making.getByRole('button', { name: 'Make department' }).click();
	await ines.getByRole('navigation', { name: 'Project' }).getByRole('link', { name: 'Shelves' }).click();
	await expect(ines.getByText('1 department, each with a code for its numbers.')).toBeVisible();
	await ines.getByRole('button', { name: 'New shelf' }).last().click();
	const dialog = ines.getByRole('dialog');
	await dialog.getByLabel('Name', { exact: true }).fill('Marine works');
	await dialog.getByRole('button', { name: /Make/ }).click();
	await expect(ines.getByRole('region', { name: 'Marine works' })).toBeVisible();
	await expect(ines.getByText('The cupboard is empty')).toBeHidden();
});

test('what lies on a desk is its person’s alone, goes to a shelf when it is ready, and can be taken back', async ({
	browser
}) => {
	const [rhosyn, ines] = [await as(browser, 'rhosyn'), await as(browser, 'ines')];
	const { folder } = await documentId(rhosyn, 'VFT-MW-LS-00-DR-0101');
	const number = 'VFT-MW-LS-00-RP-0888';
	const hers = rhosyn.locator('[data-document]').filter({ hasText: number });
	const theirs = ines.locator('[data-document]').filter({ hasText: number });
	await Promise.all([rhosyn, ines].map((page) => go(page, '/vft/shelves')));

	await rhosyn
		.getByRole('navigation', { name: 'Project' })
		.getByRole('link', { name: /^Today/ })
		.click();
	await rhosyn.getByRole('navigation', { name: 'Within Today' }).getByRole('link', { name: 'Desk' }).click();
	await rhosyn.getByRole('button', { name: 'Make my desk' }).click();
	await expect(rhosyn.getByRole('heading', { name: 'Desk of Rhosyn Hale' })).toBeVisible();
	await rhosyn.getByRole('button', { name: 'Add documents' }).click();
	await rhosyn.getByLabel('Choose files').setInputFiles({
		name: `${number} buffer springs.md`,
		mimeType: 'text/plain',
		buffer: Buffer.from('# Buffer springs\n\nTwo of the four are spongewood.')
	});
	const dialog = rhosyn.getByRole('dialog');
	await dialog.getByRole('button', { name: /^Add/ }).click();
	await expect(hers).toBeVisible();
	const id = (await hers.getAttribute('data-document'))!;
	await expect(hers.getByText('only you')).toBeVisible();
	await rhosyn.getByRole('link', { name: 'Access' }).first().click();
	await expect(rhosyn.getByText('This stands on a desk', { exact: false })).toBeVisible();
	await expect(rhosyn.getByRole('navigation', { name: 'Within Today' })).toBeVisible();
	await rhosyn.goBack();
	await expect(hers).toBeVisible();

	// The document controller finds nothing, wherever she looks.
	await go(ines, '/vft/find?q=spongewood');
	await expect(
		ines.getByText('No document that you may look at has “spongewood”', { exact: false })
	).toBeVisible();
	expect((await ines.request.get(`/vft/document/${id}`)).status()).toBe(404);
	await go(ines, `/vft/place/${folder}`);
	await expect(theirs).toHaveCount(0);

	// Moved to a shelf it is there for everybody; taken back it is gone for them again, without a reload.
	const menu = async () => {
		await rhosyn.getByRole('checkbox', { name: `Tick ${number}` }).check();
		await rhosyn.getByRole('button', { name: '1 ticked' }).click();
		await rhosyn.getByRole('menuitem', { name: 'Move…', exact: true }).click();
		await pick(dialog.getByRole('combobox'), 'Marine works / Linkspan');
		await dialog.getByRole('button', { name: 'Move 1 document' }).click();
	};
	await menu();
	await expect(hers).toHaveCount(0);
	await expect(theirs).toBeVisible();
	await rhosyn.getByRole('button', { name: 'Take back' }).last().click();
	await expect(hers).toBeVisible();
	await expect(theirs).toHaveCount(0);
	await menu();
	await expect(theirs).toBeVisible();
	// Once somebody opened it, it stays where they find it.
	await theirs.dblclick();
	await expect(ines.getByText('spongewood')).toBeVisible();
	await rhosyn.getByRole('button', { name: 'Take back' }).last().click();
	await said(rhosyn, /not yours alone/);
	await expect(hers).toHaveCount(0);
});
