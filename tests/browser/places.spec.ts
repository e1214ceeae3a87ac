import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import { expect, test } from './world';
import { act, as, choose, documentId, go, pick, sendBytes, said } from './people';

test('files are added with proposed numbers, and each fault stays with its own file', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	await go(oke, `/vft/place/${folder}`);
	await oke.getByRole('button', { name: 'Add documents' }).click();
	const text = (name: string, content: string) => ({
		name,
		mimeType: 'text/plain',
		buffer: Buffer.from(content)
	});
	await oke
		.getByLabel('Choose files')
		.setInputFiles([
			text('VFT-MW-LS-00-RP-0901 site visit_v2_final.md', '# Site visit\n\nAll is well.'),
			text('empty.md', ''),
			text('tide notes.md', '# Tides')
		]);
	const dialog = oke.getByRole('dialog');
	await expect(dialog.getByLabel('Number of VFT-MW-LS-00-RP-0901 site visit_v2_final.md')).toHaveValue(
		'VFT-MW-LS-00-RP-0901'
	);
	await expect(dialog.getByLabel('Title of VFT-MW-LS-00-RP-0901 site visit_v2_final.md')).toHaveValue(
		'Site visit'
	);
	await dialog.getByLabel('Number of tide notes.md').fill('VFT-QQ-LS-00-RP-0902');
	await dialog.getByRole('button', { name: /^Add/ }).click();
	await expect(dialog.getByText('✓ added')).toHaveCount(1);
	await expect(dialog.getByText('The file is empty.')).toBeVisible();
	await expect(dialog.getByText(/is not a department of this project/)).toBeVisible();
	await dialog.getByLabel('Number of tide notes.md').fill('VFT-MW-LS-00-RP-0902');
	await dialog.getByRole('button', { name: /^Add/ }).click();
	await expect(dialog.getByText('✓ added')).toHaveCount(2);
	await dialog.getByRole('button', { name: 'Close' }).last().click();
	await expect(oke.getByText('Site visit')).toBeVisible();
});

test('a document is removed, seen gone by the other, and taken back from Removed', async ({ browser }) => {
	const [oke, rhosyn] = [await as(browser, 'oke'), await as(browser, 'rhosyn')];
	const { id, folder } = await documentId(oke, 'VFT-MW-QW-00-DR-0210');
	for (const page of [oke, rhosyn]) {
		await go(page, `/vft/place/${folder}?document=${id}`);
	}
	await expect(rhosyn.locator(`[data-document="${id}"]`)).toBeVisible();
	await choose(oke, 'Remove…');
	await oke.getByLabel('Reason').fill('Replaced by the supplier’s sheet');
	await oke.getByRole('dialog').getByRole('button', { name: 'Remove' }).click();
	await expect(rhosyn.locator(`[data-document="${id}"]`)).toHaveCount(0);
	expect((await rhosyn.request.get(`/vft/document/${id}`)).status()).toBe(404);
	await go(oke, '/vft/removed');
	await oke
		.getByRole('row', { name: /VFT-MW-QW-00-DR-0210/ })
		.getByRole('button', { name: 'Restore' })
		.click();
	await expect(rhosyn.locator(`[data-document="${id}"]`)).toBeVisible();
});

test('an older version opens with a warning and is restored as a new one', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	const { id } = await documentId(oke, 'VFT-MW-LS-00-DR-0124');
	await go(oke, `/vft/document/${id}?version=P01.1`);
	await expect(oke.getByText('This is P01.1, not the newest.')).toBeVisible();
	await expect(oke.getByRole('button', { name: /Layers/ })).toBeVisible();
	await oke.getByRole('button', { name: /Restore P01\.1/ }).click();
	await said(oke, /is restored as P\d\d\.\d+/);
});

test('a PDF is shown, searched and zoomed', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	const { id } = await documentId(oke, 'VFT-MW-LS-00-CA-0008');
	await go(oke, `/vft/document/${id}`);
	await oke.getByLabel('Find words in this file').fill('braking lorry');
	await oke.getByRole('button', { name: 'Find', exact: true }).click();
	await expect(oke.getByText(/^1 of \d+$/).last()).toBeVisible();
	await oke.getByRole('button', { name: 'Zoom in' }).click();
	await expect(oke.getByText('125 %')).toBeVisible();
});

test('shelves show only what one reaches', async ({ browser }) => {
	const sefa = await as(browser, 'sefa');
	await go(sefa, '/vft/shelves');
	await expect(sefa.getByRole('region', { name: 'Site team' })).toBeVisible();
	await expect(sefa.getByRole('region', { name: 'Structures' })).toHaveCount(0);
	expect((await sefa.request.get('/vft/outbox')).status()).toBe(403);
});

test('ticked documents are downloaded as one zip with the very bytes, and signing out ends the session', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	const { folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
	await go(ines, `/vft/place/${folder}`);
	const boxes = ines.getByRole('checkbox', { name: /^Tick VFT-/ });
	const wanted = new Map<string, string>();
	for (const at of [0, 1, 2]) {
		const number = (await boxes.nth(at).getAttribute('aria-label'))!.replace('Tick ', '');
		const { id } = await documentId(ines, number);
		const { versions } = (await (await ines.request.get(`/api/v1/documents/${id}`)).json()) as {
			versions: { label: string; hash: string }[];
		};
		wanted.set(`${number}_${versions[0]!.label}`, versions[0]!.hash);
		await boxes.nth(at).check();
	}
	// The keys of the screen work from the box that was ticked last.
	await ines.keyboard.press('r');
	await expect(ines.getByRole('dialog', { name: /release/i })).toBeVisible();
	await ines.keyboard.press('Escape');
	await ines.keyboard.press('Shift+?');
	await expect(ines.getByRole('dialog', { name: 'Keys of this screen' })).toBeVisible();
	await ines.keyboard.press('Escape');
	const coming = ines.waitForEvent('download');
	await ines.getByRole('button', { name: '3 ticked' }).click();
	await ines.getByRole('menuitem', { name: 'Download as zip' }).click();
	const download = await coming;
	expect(download.suggestedFilename()).toBe('vft-documents.zip');
	const files = unzipSync(await readFile(await download.path()));
	const found = Object.entries(files).map(([name, bytes]) => [
		name.replace(/\.[a-z]+$/, ''),
		createHash('sha256').update(bytes).digest('hex')
	]);
	expect(new Map(found as [string, string][])).toEqual(wanted);

	await go(ines, '/me');
	await ines.getByRole('button', { name: 'Sign out' }).click();
	await ines.waitForURL(/\/sign-in/);
	expect((await ines.request.get(`/vft/place/${folder}`, { maxRedirects: 0 })).status()).toBe(303);
});

test('a list in a national encoding is read right, says so, and is read anew when somebody knows better', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	// What a Central European spreadsheet writes: Windows-1250.
	const written = Buffer.from(
		'Znak;Popis\nP1;\x8At\xECtov\xE1 st\xECna, d\xE9lka 12 m\n\nP3;P\xF8\xEDstavn\xED hrana, v\xFD\x9Aka 4 m, \x9Elut\xE1 b\xF8evnost\n',
		'latin1'
	);
	const { id } = await act(oke, 'addDocument', {
		folder,
		upload: await sendBytes(oke, 'piloty.csv', written),
		number: 'VFT-MW-LS-00-SH-0931',
		title: 'Piles, list of the supplier'
	});
	await go(oke, `/vft/document/${id}`);
	const sheet = oke.getByRole('document', { name: /list of the supplier/ });
	await expect(sheet).toContainText('Štětová stěna, délka 12 m');
	// The empty line keeps its number.
	await expect(sheet.getByRole('row').nth(4)).toContainText('4P3Přístavní hrana, výška 4 m');
	const choice = oke.getByRole('combobox', { name: /^Encoding/ });
	await expect(choice).toContainText('Central European');
	await pick(choice, 'Cyrillic (Windows-1251)');
	await expect(sheet).toContainText('Љtмtovб');
	await expect(sheet).not.toContainText('Štětová');
	await pick(choice, 'as told from the file');
	await expect(sheet).toContainText('Štětová stěna');
});
