import { expect, test, type Page } from './world';
import { act, as, documentId, ready } from './people';

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
	await petra.goto(`/vft/document/${pdf}`);
	await ready(petra);
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
	await petra.goto(`/vft/document/${drawing}`);
	await ready(petra);
	await expect(petra.getByText('layers and measuring need Download')).toBeVisible();
	const { versions } = await act(petra, 'documentView', { document: drawing });
	await petra.goto(
		`/vft/document/${drawing}/compare?from=${versions.at(-1)!.label}&to=${versions[0]!.label}`
	);
	await ready(petra);
	await expect(petra.getByRole('tab', { name: /^Places \d+/ })).toBeVisible();

	await petra.setViewportSize({ width: 390, height: 844 });
	await petra.goto(`/vft/document/${pdf}`);
	await ready(petra);
	await expect(petra.getByText('View only')).toBeVisible();
	expect(await petra.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
	expect(originalsSeen).toEqual([]);
	await petra.context().close();
});
