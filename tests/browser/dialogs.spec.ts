import { expect, test, type Page } from './world';
import { act, as, base, choose, documentId, go, said } from './people';

/** Counts the changes that a page asks for while something is done, each answered late as on a slow line. */
async function changesAsked(page: Page, late: number, doing: () => Promise<void>): Promise<string[]> {
	const asked: string[] = [];
	await page.route('**/*', async (route) => {
		const request = route.request();
		// That a document was opened is noted by itself.
		if (request.method() === 'GET' || request.url().endsWith('/opened')) return route.continue();
		asked.push(`${request.method()} ${new URL(request.url()).pathname.replace(/[a-z0-9]{10}/g, '…')}`);
		const answer = await route.fetch();
		await new Promise((done) => setTimeout(done, late));
		await route.fulfill({ response: answer });
	});
	await doing();
	await page.unrouteAll({ behavior: 'wait' });
	return asked;
}

test('what was chosen for a pass and left, or made, does not stand in the next', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	const { folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
	await go(ines, `/vft/place/${folder}`);
	const dialog = ines.getByRole('dialog', { name: /^Pass to/ });
	const open = async () => {
		await ines.getByRole('button', { name: /^Folder/ }).click();
		await ines.getByRole('menuitem', { name: 'Make a pass…' }).click();
		await expect(dialog).toBeVisible();
	};
	const until = async () => dialog.getByLabel('Until', { exact: true }).inputValue();
	const lowest = async (day: string) => {
		await expect(dialog.getByLabel('For whom, as you call them')).toHaveValue('');
		await expect(dialog.getByLabel(/^Named people only/)).toBeChecked();
		await expect(dialog.getByLabel('Their mail addresses')).toHaveValue('');
		await expect(dialog.getByLabel('view only')).toBeChecked();
		await expect(dialog.getByLabel('Uses, at most')).toHaveValue('');
		await expect(dialog.getByLabel('Password, if any')).toHaveValue('');
		expect(await until()).toBe(day);
	};
	const widen = async () => {
		await dialog.getByLabel('For whom, as you call them').fill('the whole harbour');
		await dialog.getByLabel('Anyone who holds the link').check();
		await dialog.getByLabel('view and download').check();
		await dialog.getByLabel('Uses, at most').fill('900');
		await dialog.getByLabel('Password, if any').fill('wide-open-door');
		await dialog.getByLabel('Until', { exact: true }).fill('2027-06-30');
	};
	await open();
	const day = await until();
	await lowest(day);
	for (const leave of ['Cancel', 'Close', 'Escape', 'make']) {
		await widen();
		if (leave === 'Escape') await ines.keyboard.press('Escape');
		else if (leave === 'make') {
			await dialog.getByRole('button', { name: 'Make pass' }).click();
			await dialog.getByRole('button', { name: 'Done' }).click();
		} else await dialog.getByRole('button', { name: leave }).click();
		await expect(dialog).toBeHidden();
		await open();
		await lowest(day);
	}
	// The page answers as before: the keys are not caught by a dialog that is gone.
	await ines.keyboard.press('Escape');
	await expect(dialog).toBeHidden();
	await ines.getByRole('button', { name: 'New', exact: true }).click();
	await ines.getByRole('menuitem', { name: 'New folders…' }).click();
	await expect(ines.getByRole('dialog').getByLabel('Name')).toBeFocused();
});

test('what others change does not take away what is typed in a dialog', async ({ browser }) => {
	const [oke, ines] = [await as(browser, 'oke'), await as(browser, 'ines')];
	const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0304');
	for (const page of [oke, ines]) {
		await go(page, `/vft/document/${id}`);
		await choose(page, 'Properties…');
	}
	const title = (page: Page) => page.getByRole('dialog').getByLabel('Title');
	const was = await title(oke).inputValue();
	await title(oke).fill('Quay wall, as typed');
	await title(ines).fill(`${was} (Ines)`);
	await ines.getByRole('dialog').getByRole('button', { name: 'Change' }).click();
	await expect(oke.getByRole('heading', { level: 1 })).toContainText('(Ines)');
	await expect(title(oke)).toHaveValue('Quay wall, as typed');
});

test.describe('a button pressed twice acts once', () => {
	for (const late of [0, 400])
		test(late ? 'on a slow line' : 'on a quick line', async ({ browser }) => {
			const oke = await as(browser, 'oke');
			const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
			const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0305');
			await go(oke, `/vft/place/${folder}`);
			const dialog = oke.getByRole('dialog');
			await oke.getByRole('button', { name: 'New', exact: true }).click();
			await oke.getByRole('menuitem', { name: 'New folders…' }).click();
			await dialog.getByLabel('Name').fill(`Pressed twice ${Date.now()}`);
			expect(
				await changesAsked(oke, late, async () => {
					await dialog.getByRole('button', { name: 'Make folder' }).dblclick();
					await expect(oke.getByRole('heading', { level: 1 })).toContainText('Pressed twice');
				})
			).toEqual(['POST /api/v1/places/…/folder-tree']);

			await oke.getByRole('button', { name: /^Folder/ }).click();
			await oke.getByRole('menuitem', { name: 'Open a hatch…' }).click();
			await dialog.getByLabel('What is asked for').fill('Twice');
			expect(
				await changesAsked(oke, late, async () => {
					await dialog.getByRole('button', { name: 'Open hatch' }).dblclick();
					await expect(dialog.getByLabel('Link', { exact: true })).toBeVisible();
				})
			).toEqual(['POST /api/v1/places/…/hatches']);

			await go(oke, `/vft/document/${id}`);
			await oke.getByRole('button', { name: 'Lock', exact: true }).click();
			expect(
				await changesAsked(oke, late, async () => {
					await dialog.getByRole('button', { name: 'Lock', exact: true }).dblclick();
					await expect(dialog).toBeHidden();
					await expect(oke.getByRole('button', { name: 'Hand in', exact: true })).toBeVisible();
				})
			).toEqual(['POST /api/v1/documents/…/lock']);
			expect(
				await changesAsked(oke, late, async () => {
					await oke.getByRole('button', { name: 'Actions', exact: true }).click();
					await oke.getByRole('menuitem', { name: 'Give back unchanged' }).dblclick();
					await expect(oke.getByRole('button', { name: 'Lock', exact: true })).toBeVisible();
				})
			).toEqual(['DELETE /api/v1/documents/…/lock']);
			await oke.context().close();

			const stranger = await (await browser.newContext({ baseURL: base() })).newPage();
			await go(stranger, '/forgotten');
			await stranger.getByLabel('Mail address').fill('nobody@vennholm.example');
			expect(
				await changesAsked(stranger, late, async () => {
					await stranger.locator('form button').dblclick();
					await expect(stranger.locator('form')).toBeHidden();
				})
			).toEqual(['POST /forgotten']);
		});
});

test('what is handed in goes on when its dialog is closed, and what is wrong with it is still said', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0211');
	await act(oke, 'takeLock', { document: id, purpose: 'elevation' });
	const { versions } = (await (await oke.request.get(`/api/v1/documents/${id}`)).json()) as {
		versions: { label: string }[];
	};
	const file = await oke.request.get(`/api/v1/documents/${id}/versions/${versions[0]!.label}/file?download`);
	expect(file.ok()).toBe(true);
	await go(oke, `/vft/document/${id}`);
	await oke.route('**/uploads/resumable', async (route) => {
		await new Promise((done) => setTimeout(done, 1_500));
		await route.continue();
	});
	const dialog = oke.getByRole('dialog');
	await oke.getByRole('button', { name: 'Hand in', exact: true }).click();
	await dialog
		.getByLabel('The file you worked on')
		.setInputFiles({ name: 'note.txt', mimeType: 'text/plain', buffer: Buffer.from('not a drawing') });
	await dialog.getByLabel('What changed').fill('by mistake');
	await dialog.getByRole('button', { name: 'Hand in', exact: true }).click();
	await oke.keyboard.press('Escape');
	await expect(dialog).toBeHidden();
	await said(oke, /0211 is not handed in yet: The file is of another kind/);
	await oke.getByRole('button', { name: 'Hand in all the same' }).click();
	await said(oke, /0211 is handed in as P/);
	await expect(oke.getByRole('button', { name: 'Lock', exact: true })).toBeVisible();
});
