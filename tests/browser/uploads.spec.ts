import { createHash, randomBytes } from 'node:crypto';
import { mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ServerProcess } from '../integration/server';
import { Line } from './line';
import { act, as, documentId, go, ready } from './people';
import { expect, test, world, type Page } from './world';

const MB = 1024 * 1024;
const SIZE = 80 * MB;
const BROKEN_AT = 0.6 * SIZE;

let files: string;
let server: ServerProcess;
test.beforeEach(async () => {
	files ??= await mkdtemp(join(tmpdir(), 'cupboard-upload-'));
	// A process of its own over the same world, so that it can be killed.
	server ??= await ServerProcess.on(world().database, world().home, {
		CUPBOARD_SECRET: process.env.CUPBOARD_SECRET
	});
});
test.afterAll(async () => {
	await server.stop('SIGTERM');
	await rm(files, { recursive: true, force: true });
});

/** A file whose bytes are nobody else's, with its hash. */
async function largeFile(name: string): Promise<{ path: string; hash: string }> {
	const path = join(files, name);
	const hash = createHash('sha256');
	const file = await open(path, 'w');
	const piece = randomBytes(10 * MB);
	for (let at = 0; at < SIZE; at += piece.byteLength) {
		piece.writeUInt32LE(at, 0);
		hash.update(piece);
		await file.write(piece);
	}
	await file.close();
	return { path, hash: hash.digest('hex') };
}

async function choose(page: Page, path: string, number: string): Promise<void> {
	await page.getByRole('button', { name: 'Add documents' }).first().click();
	const dialog = page.getByRole('dialog');
	await dialog.getByLabel('Choose files').setInputFiles(path);
	await dialog.getByLabel(/^Number of/).fill(number);
	await dialog.getByLabel(/^Title of/).fill(`Harbour model ${number.slice(-2)}`);
	await dialog.getByRole('button', { name: 'Add 1 document' }).click();
}

/** What happens when 60 % have gone. `choose` chooses the same file again, for ways on which the page forgot it. */
interface Break {
	page: Page;
	line: Line;
	chooseAgain: () => Promise<void>;
}
const WAYS: [string, string, (what: Break) => Promise<void>][] = [
	[
		'paused',
		'VFT-MW-LS-00-MO-9001',
		async ({ page }) => {
			const dialog = page.getByRole('dialog');
			await dialog.getByRole('button', { name: 'Pause' }).click();
			await expect(dialog.getByText('paused')).toBeVisible();
			await dialog.getByRole('button', { name: 'Go on', exact: true }).click();
		}
	],
	[
		'forgotten by a page that was loaded anew',
		'VFT-MW-LS-00-MO-9002',
		async ({ page, chooseAgain }) => {
			page.once('dialog', (dialog) => void dialog.accept());
			await page.reload();
			await ready(page);
			await chooseAgain();
		}
	],
	[
		'met by a server that is killed',
		'VFT-MW-LS-00-MO-9003',
		async () => {
			await server.stop('SIGKILL');
			await server.start();
		}
	],
	[
		'without a line for ten minutes',
		'VFT-MW-LS-00-MO-9004',
		async ({ page, line }) => {
			line.cut();
			await expect(page.getByText('line is down, tries again')).toBeVisible();
			for (let minute = 0; minute < 10; minute++) {
				await page.clock.fastForward('01:00');
				await expect(page.getByText('line is down, tries again')).toBeVisible();
			}
			line.mend();
			await page.clock.fastForward('01:01');
		}
	]
];

for (const [how, number, breaking] of WAYS)
	test(`an upload that is ${how} at 60 % of a large file goes on from there`, async ({ browser }) => {
		const { path, hash } = await largeFile(`${number}.bin`);
		const line = new Line();
		const proxy = { server: await line.open(), bypass: '<-loopback>' };
		const page = await as(browser, 'oke', { baseURL: server.origin, proxy });
		await page.clock.install();
		const { folder } = await documentId(page, 'VFT-MW-LS-00-DR-0101');
		await go(page, `/vft/place/${folder}`);
		const chooseAgain = () => choose(page, path, number);
		const begun = line.sent;
		const held = line.holdAfter(BROKEN_AT);
		await chooseAgain();
		await held;
		await breaking({ page, line, chooseAgain });
		const dialog = page.getByRole('dialog');
		await expect(dialog).toBeHidden();
		const found = await page.request.get(`${server.origin}/api/v1/projects/VFT/find?q=${number}`);
		const { rows } = (await found.json()) as { rows: { id: string; number: string }[] };
		const document = await page.request.get(`${server.origin}/api/v1/documents/${rows[0]!.id}`);
		const { versions } = (await document.json()) as { versions: { hash: string }[] };
		expect(versions.map((v) => v.hash)).toEqual([hash]);
		// What was kept is not sent again: only what was on its way when it broke.
		expect(line.sent - begun).toBeLessThan(SIZE + 24 * MB);
		await page.context().close();
		await line.close();
		await rm(path);
	});

test('what comes through a hatch goes on after a broken line, and after the page was loaded anew', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	const { folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
	const { link } = await act(ines, 'makeHatch', {
		place: folder,
		title: 'Survey clouds',
		until: '2027-11-30'
	});
	const { path } = await largeFile('cloud.bin');
	const line = new Line();
	const proxy = { server: await line.open(), bypass: '<-loopback>' };
	const tarn = await (await browser.newContext({ baseURL: server.origin, proxy })).newPage();
	const put = async () => {
		await go(tarn, new URL(link).pathname);
		await tarn.getByLabel('Your name and company').fill('Kaja Dorn, Tarn Steelwork');
		await tarn.getByLabel('Choose files').setInputFiles(path);
		await tarn.getByRole('button', { name: 'Put in 1 file' }).click();
	};
	const begun = line.sent;
	let held = line.holdAfter(0.3 * SIZE);
	await put();
	await held;
	held = line.holdAfter(0.3 * SIZE);
	line.cut();
	await expect(tarn.getByText('line is down, tries again')).toBeVisible();
	line.mend();
	await held;
	await put();
	await expect(tarn.getByText('1 file arrived.')).toBeVisible();
	expect(line.sent - begun).toBeLessThan(SIZE + 24 * MB);
	await Promise.all([ines, tarn].map((p) => p.context().close()));
	await line.close();
});
