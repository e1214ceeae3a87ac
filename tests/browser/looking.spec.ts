import { expect, test, type Page } from './world';
import { act, as, documentId, go, ready } from './people';

/** Collects kinds of bytes that must never reach somebody who may only look. */
function originals(page: Page): string[] {
	const found: string[] = [];
	page.on('response', (answer) => {
		const kind = answer.headers()['content-type'] ?? '';
		const name = answer.headers()['content-disposition'] ?? '';
		if (
			/application\/pdf|dxf|octet-stream|wordprocessing|spreadsheet/.test(kind) ||
			name.includes('attachment')
		)
			found.push(`${answer.url()} ${kind}`);
	});
	return found;
}

test('who may only look sees, finds, zooms and compares, and no original reaches the browser', async ({
	browser
}) => {
	// Architecture may look at the shelves of Structures.
	const petra = await as(browser, 'petra');
	const originalsSeen = originals(petra);
	const { id: pdf } = await documentId(petra, 'VFT-ST-TB-FN-CA-0012');
	await go(petra, `/vft/document/${pdf}`);
	await expect(petra.getByText('View only: drawn by the server')).toBeVisible();
	await expect(petra.getByRole('link', { name: 'Download' })).toHaveCount(0);
	await petra.getByLabel('Find words in this file').fill('the');
	await petra.getByRole('button', { name: 'Find', exact: true }).click();
	await expect(petra.getByText(/^1 of \d+$/).last()).toBeVisible();
	await petra.getByRole('button', { name: 'Find', exact: true }).click();
	await expect(petra.getByText(/^2 of \d+$/).last()).toBeVisible();
	await petra.getByRole('button', { name: 'Place before' }).click();
	await expect(petra.getByText(/^1 of \d+$/).last()).toBeVisible();
	await petra.getByRole('button', { name: 'Zoom in' }).click();
	await expect(petra.getByText('125 %')).toBeVisible();

	const { id: drawing } = await documentId(petra, 'VFT-ST-TB-FN-DR-0104');
	await go(petra, `/vft/document/${drawing}`);
	await expect(petra.getByText('layers and measuring need Download')).toBeVisible();
	const { versions } = await act(petra, 'documentView', { document: drawing });
	await petra.goto(
		`/vft/document/${drawing}/compare?from=${versions.at(-1)!.label}&to=${versions[0]!.label}`
	);
	await ready(petra);
	await expect(petra.getByRole('tab', { name: /^Places \d+/ })).toBeVisible();

	await petra.setViewportSize({ width: 390, height: 844 });
	await go(petra, `/vft/document/${pdf}`);
	await expect(petra.getByText('View only')).toBeVisible();
	expect(await petra.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
	expect(originalsSeen).toEqual([]);
});

test('the controller finds a release again among all, takes the list away, and reads what happened to it', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/releases');
	const list = ines.getByRole('table', { name: 'Releases' });
	const numbers = list.getByRole('row').filter({ hasText: /^\d{4}/ });
	const all = await numbers.count();
	expect(all).toBeGreaterThan(5);
	await ines.getByRole('searchbox', { name: 'Find in number' }).fill('linkspan harbour');
	await expect(ines.getByRole('status').filter({ hasText: `of ${all} releases` })).toBeVisible();
	const found = await numbers.count();
	await ines.getByRole('button', { name: /^Verdicts missing/ }).click();
	await expect(numbers).toHaveCount(1);
	await expect(numbers).toContainText('Linkspan for approval');
	const [file] = await Promise.all([
		ines.waitForEvent('download'),
		ines
			.getByRole('button', { name: 'Export' })
			.click()
			.then(() => ines.getByRole('menuitem', { name: 'CSV' }).click())
	]);
	const text = (await (await file.createReadStream()).toArray()).join('');
	expect(text).toContain('Linkspan for approval');
	expect(text).not.toContain('Linkspan drawings');

	// On the way back it is narrowed as it was, and what is typed next builds on that.
	await numbers.getByRole('link').click();
	await ready(ines);
	await ines.getByRole('tab', { name: 'Trail' }).click();
	const trail = ines.getByRole('tabpanel');
	await expect(trail).toContainText('gave verdict C');
	await expect(trail).not.toContainText('opened the pass');
	await trail.getByRole('checkbox', { name: 'openings and downloads too' }).check();
	await expect(trail).toContainText('opened the pass');
	await ines.goBack();
	await ready(ines);
	await expect(ines.getByRole('searchbox', { name: 'Find in number' })).toHaveValue('linkspan harbour');
	await expect(numbers).toHaveCount(1);
	await ines.getByRole('button', { name: /^Verdicts missing/ }).click();
	await expect(numbers).toHaveCount(found);
	await ines.getByLabel('State', { exact: true }).click();
	await ines.getByRole('option', { name: 'cancelled' }).click();
	await expect(list).toContainText('No release is so.');
});

test('a release is built from what was found, also by other words; who decides compares within it what they may not open elsewhere', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/find');
	const numbers = ['VFT-MW-LS-00-DR-0127', 'VFT-MW-LS-00-DR-0128'];
	for (const number of numbers) {
		await ines.getByRole('searchbox', { name: 'Number, title or words inside' }).fill(number);
		await ines.getByRole('button', { name: 'Find', exact: true }).click();
		await ines.getByRole('checkbox', { name: number }).check();
	}
	await expect(ines.getByText('2 ticked')).toBeVisible();
	await ines.getByRole('button', { name: 'Put in release…' }).click();
	const dialog = ines.getByRole('dialog');
	await dialog.getByLabel('Title').fill('Found and put together');
	await dialog.getByRole('combobox', { name: 'Purpose', exact: true }).click();
	await ines.getByRole('option', { name: 'For comment' }).click();
	await expect(dialog.getByText('Goes to, as the distribution list says')).toBeVisible();
	// Days of rest do not count.
	await dialog.getByRole('button', { name: 'Reply asked by in 10 working days' }).click();
	await expect(dialog.getByText('in 10 working days', { exact: true })).toBeVisible();
	await dialog.getByRole('button', { name: 'Build release' }).click();
	await ines.waitForURL(/\/releases\/\d+/);
	const documents = ines.getByRole('table', { name: 'Documents of the release' });
	for (const number of numbers) await expect(documents).toContainText(number);
	await ines.context().close();

	// Structures cannot open the sheets of Architecture, and are asked to decide on one.
	const sheet = 'VFT-AR-TB-EX-DR-0201';
	const tomas = await as(browser, 'tomas');
	await go(tomas, '/vft/releases/34');
	await tomas.getByRole('link', { name: `Compare ${sheet} with P02` }).click();
	await ready(tomas);
	await expect(tomas.getByRole('link', { name: 'Release 0034' })).toBeVisible();
	await expect(tomas.getByRole('status').filter({ hasText: /\d+ changes?/ })).toBeVisible();
	await tomas.getByRole('button', { name: 'Next change' }).click();
	await expect(tomas.getByText(/^1 of \d+ changes?$/)).toBeVisible();
	await tomas.getByRole('link', { name: sheet }).click();
	await ready(tomas);
	await expect(tomas.getByRole('link', { name: 'Compare with P02' })).toBeVisible();
});
