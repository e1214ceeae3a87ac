/** Files that other programs made, as people see them on their pages. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect, test, type Page } from './world';
import { act, as, documentId, go, pick, sendBytes } from './people';

const FILES = join(import.meta.dirname, '../files');
const bytesOf = (name: string) => readFile(join(FILES, name));
const installed = (program: string) =>
	spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0;

/** Numbers that nobody has, also where the tests run again on what an earlier run left. */
let next = 2_000 + Math.floor(Math.random() * 700) * 10;
let own: Promise<{ id: string }> | null = null;
/** Adds a file to a folder of its own, where it is in nobody's way, and opens its page. */
async function opened(page: Page, name: string, title: string): Promise<string> {
	const { folder } = await documentId(page, 'VFT-MW-LS-00-DR-0101');
	own ??= act(page, 'makeFolder', { parent: folder, name: `From others ${next}` });
	const { id } = await act(page, 'addDocument', {
		folder: (await own).id,
		upload: await sendBytes(page, name, await bytesOf(name)),
		number: `VFT-MW-LS-00-DR-${next++}`,
		title
	});
	await go(page, `/vft/document/${id}`);
	return id;
}
/** What is drawn on the page now, as a short sign that differs when it does; once it has stopped changing. */
async function drawn(page: Page): Promise<string> {
	const sign = async () => {
		const pixels = await page
			.locator('canvas')
			.first()
			.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
		return createHash('sha256').update(pixels).digest('hex').slice(0, 12);
	};
	for (let last = await sign(); ;) {
		await page.waitForTimeout(300);
		const now = await sign();
		if (now === last) return now;
		last = now;
	}
}
const choose = (page: Page, label: RegExp, option: string) =>
	pick(page.getByRole('combobox', { name: label }), option);

test('a drawing shows every sheet it is laid out on, is found by their words, and says what it leaves out', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	await opened(oke, 'sheets.dxf', 'Walls and piles');
	await expect(oke.getByRole('combobox', { name: /^What is shown/ })).toBeVisible();
	const model = await drawn(oke);
	await choose(oke, /^What is shown of the drawing/, 'Walls');
	await expect.poll(() => drawn(oke)).not.toBe(model);
	const walls = await drawn(oke);
	await choose(oke, /^What is shown of the drawing/, 'Piles');
	await expect.poll(() => drawn(oke)).not.toBe(walls);
	// And back, twice.
	await choose(oke, /^What is shown of the drawing/, 'Model');
	await expect.poll(() => drawn(oke)).toBe(model);
	await choose(oke, /^What is shown of the drawing/, 'Walls');
	await expect.poll(() => drawn(oke)).toBe(walls);

	await expect(async () => {
		const answer = await oke.request.get('/api/v1/projects/VFT/find?q=laid%20out%20here');
		const { rows } = (await answer.json()) as { rows: { title: string }[] };
		expect(rows.map((row) => row.title)).toContain('Walls and piles');
	}).toPass({ timeout: 90_000 });

	await opened(oke, 'odd.dxf', 'What others draw');
	await expect(oke.getByText(/2 items are not shown/)).toBeVisible();
	await opened(oke, 'nothing.dxf', 'Nothing yet');
	await expect(oke.getByText('nothing is drawn here')).toBeVisible();
});

test('a schedule is shown as its own program shows it, and as it is printed where that can be', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	await opened(oke, 'piles.xlsx', 'Pile loads');
	const sheet = oke.getByRole('document', { name: /Pile loads/ });
	await expect(sheet).toContainText('1,250.50 kN');
	await expect(sheet).toContainText('27 Nov 2026');
	await expect(sheet).toContainText('This sheet holds 2 formulas and 1 comment on cells');
	for (let twice = 0; twice < 2; twice++) {
		await oke.getByRole('button', { name: 'As printed' }).click();
		if (installed('soffice')) await expect(oke.getByRole('img', { name: /Pile loads/ })).toBeVisible();
		else await expect(oke.getByText(/when LibreOffice is installed on the server/)).toBeVisible();
		await oke.getByRole('button', { name: 'As text and cells' }).click();
		await expect(sheet).toContainText('1,250.50 kN');
	}
});

test('a scan is read page by page, and compared with the next one', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	const id = await opened(oke, 'scan.tif', 'Signed sheets');
	await expect(oke.getByText('1 of 3', { exact: true })).toBeVisible();
	await expect(oke.getByRole('group', { name: /page 1 of 3/ })).toBeVisible();
	await oke.getByRole('button', { name: 'Next page' }).click();
	await oke.getByRole('button', { name: 'Next page' }).click();
	await expect(oke.getByText('3 of 3', { exact: true })).toBeVisible();
	await oke.getByRole('button', { name: 'Page before' }).click();
	await expect(oke.getByText('2 of 3', { exact: true })).toBeVisible();

	// Marks of two people stand on the page they were made on, and leave on it.
	const rhosyn = await as(browser, 'rhosyn');
	await go(rhosyn, `/vft/document/${id}`);
	for (const page of [oke, rhosyn]) {
		await page.getByRole('button', { name: 'Mark up' }).click();
		await expect(page.getByRole('group', { name: 'Marks on the sheet: 0' })).toBeVisible();
	}
	await oke.getByRole('radio', { name: 'Cloud', exact: true }).click();
	await oke.mouse.move(420, 350);
	await oke.mouse.down();
	await oke.mouse.move(560, 450, { steps: 5 });
	await oke.mouse.up();
	await expect(oke.locator('[data-kind="cloud"]')).toHaveCount(1);
	await rhosyn.getByRole('button', { name: 'Next page' }).click();
	await expect(rhosyn.locator('[data-kind="cloud"]')).toHaveCount(1);
	await rhosyn.getByRole('button', { name: 'Next page' }).click();
	await expect(rhosyn.locator('[data-kind="cloud"]')).toHaveCount(0);
	await rhosyn.context().close();
	const [copy] = await Promise.all([
		oke.waitForEvent('download'),
		oke.getByRole('button', { name: 'Copy with marks, PDF' }).click()
	]);
	expect((await readFile((await copy.path())!)).subarray(0, 5).toString()).toBe('%PDF-');

	await act(oke, 'takeLock', { document: id, purpose: 'scan anew' });
	const { default: sharp } = await import('sharp');
	const changed = await sharp(await bytesOf('scan.tif'))
		.composite([
			{ input: { create: { width: 60, height: 40, channels: 3, background: '#000' } }, left: 300, top: 200 }
		])
		.tiff()
		.toBuffer();
	await act(oke, 'handIn', {
		document: id,
		upload: await sendBytes(oke, 'scan.tif', changed),
		note: 'scanned anew'
	});
	await go(oke, `/vft/document/${id}/compare`);
	await expect(oke.getByRole('tab', { name: /^Places \d/ })).toBeVisible();
	await expect(oke.getByRole('listitem').filter({ hasText: 'added' }).first()).toBeVisible();
});

test('a mail is read, and what came with it becomes documents', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	await opened(oke, 'mail.eml', 'Mail about the piles');
	const mail = oke.getByRole('document', { name: /Mail about the piles/ });
	await expect(mail).toContainText('Maj Sund <maj@vennholm.example>');
	await expect(mail).toContainText('Please find the pile list.');
	// Nothing in it runs, and nothing is fetched for it from elsewhere.
	await expect(mail.locator('script, img[src^="http"]')).toHaveCount(0);

	await mail.getByRole('button', { name: 'piles.xlsx' }).click();
	await expect(oke.getByRole('document', { name: /Mail about the piles/ })).toContainText('1,250.50 kN');
	await oke.getByRole('button', { name: 'Back to mail.eml' }).click();

	await mail.getByLabel('Choose note.txt').check();
	await mail.getByRole('button', { name: /Save 1 attachment as documents/ }).click();
	const dialog = oke.getByRole('dialog', { name: /Add documents/ });
	await dialog
		.getByLabel(/^Number/)
		.first()
		.fill('VFT-MW-LS-00-SH-0989');
	await dialog
		.getByLabel(/^Title/)
		.first()
		.fill('Note that came by mail');
	await dialog.getByRole('button', { name: /^Add/ }).click();
	await expect(dialog).toHaveCount(0);
	const { id } = await documentId(oke, 'VFT-MW-LS-00-SH-0989');
	await oke.goto(`/vft/document/${id}`);
	await expect(oke.getByRole('document', { name: /came by mail/ })).toContainText('driven to refusal');
});

test('a building model, an old office file, a locked one and a PDF with a locked attachment', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	await opened(oke, 'shed.ifc', 'Plant shed');
	const model = oke.getByRole('document', { name: /Plant shed/ });
	await expect(model.getByRole('img', { name: /From the south-west/ })).toBeVisible();
	await choose(oke, /^From where it is looked at/, 'From above');
	await expect(model.getByRole('img', { name: /From above/ })).toBeVisible();
	await model.getByRole('tab', { name: 'Storeys' }).click();
	await expect(model).toContainText('Ground floor');
	await model.getByRole('tab', { name: 'View' }).click();
	await expect(model.getByRole('img', { name: /From above/ })).toBeVisible();

	await opened(oke, 'memo.doc', 'Old memo');
	// LibreOffice prints after everybody who waits for a page.
	if (installed('soffice'))
		await expect(oke.getByRole('button', { name: 'Find' }).last()).toBeVisible({ timeout: 80_000 });
	else await expect(oke.getByText(/when LibreOffice is installed on the server/)).toBeVisible();
	await opened(oke, 'locked.docx', 'Locked memo');
	await expect(oke.getByText(/locked with a password/)).toBeVisible();
	await opened(oke, 'memo.docx', 'Memo');
	await expect(oke.getByRole('document', { name: /Memo/ })).toContainText('minutes of the piling meeting');

	await opened(oke, 'attachment-locked.pdf', 'Tender');
	await expect(oke.getByText('What is attached to this PDF is locked with a password.')).toBeVisible();
	// Whatever was said while it opened is over.
	await expect(oke.getByRole('status').filter({ hasText: /opening|%/ })).toHaveCount(0);
});
