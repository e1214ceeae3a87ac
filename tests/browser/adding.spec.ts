import { buffer } from 'node:stream/consumers';
import { expect, test } from './world';
import sharp from 'sharp';
import yazl from 'yazl';
import { act, as, documentId, go, pick, sendBytes, said } from './people';

const text = (name: string, content: string) => ({
	name,
	mimeType: 'text/plain',
	buffer: Buffer.from(content)
});
/** Pastes as a sheet would: cells with tabs between them, lines below each other. */
const paste = (element: Element, cells: string) => {
	const data = new DataTransfer();
	data.setData('text/plain', cells);
	element.dispatchEvent(
		new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
	);
};

test('many files are settled in a table: next version, filled down, pasted, unpacked', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const held = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	await go(oke, `/vft/place/${held.folder}`);
	await oke.getByRole('button', { name: 'Add documents' }).click();
	const zip = new yazl.ZipFile();
	zip.addBuffer(Buffer.from('tide 1'), 'Tides/tide one.txt');
	zip.addBuffer(Buffer.from('tide 2'), 'Tides/tide two.txt');
	zip.end();
	await oke
		.getByLabel('Choose files')
		.setInputFiles([
			text('VFT-MW-LS-00-DR-0101 linkspan.txt', 'a new version'),
			{ name: 'tides.zip', mimeType: 'application/zip', buffer: await buffer(zip.outputStream) },
			text('VFT-MW-LS-00-DR-0102 section.txt', 'in nobody’s hand')
		]);
	const dialog = oke.getByRole('dialog');
	const becomes = (name: string) => dialog.getByLabel(`What becomes of ${name}`);

	// Oke has the first in hand, so it is handed in; the other waits for a decision, and gets a number of its own.
	await expect(becomes('VFT-MW-LS-00-DR-0101 linkspan.txt')).toContainText(/version|hand in/i);
	await expect(becomes('VFT-MW-LS-00-DR-0102 section.txt')).toContainText('choose what to do');
	await expect(dialog.getByText('VFT-MW-LS-00-DR-0102 is taken.')).toBeVisible();
	await pick(becomes('VFT-MW-LS-00-DR-0102 section.txt'), /^Add beside as/);
	await expect(dialog.getByLabel('Number of VFT-MW-LS-00-DR-0102 section.txt')).not.toHaveValue(
		'VFT-MW-LS-00-DR-0102'
	);

	await dialog.getByRole('button', { name: 'Unpack' }).click();
	await expect(dialog.getByText('Tides / tide two.txt')).toBeVisible();
	await expect(dialog.getByText('tides.zip')).toHaveCount(0);

	const first = dialog.getByLabel('Number of tide one.txt');
	await first.evaluate(
		paste,
		'VFT-MW-LS-00-RP-0950\tTide at noon\ttide, noon\nVFT-MW-LS-00-RP-0951\tTide at six'
	);
	await expect(dialog.getByLabel('Title of tide two.txt')).toHaveValue('Tide at six');
	await dialog.getByLabel('Tags of tide one.txt').focus();
	await dialog.getByRole('columnheader', { name: /^Tags/ }).getByRole('button').click();
	await expect(dialog.getByLabel('Tags of tide two.txt')).toHaveValue('tide, noon');

	await dialog.getByLabel('What changed in the next versions').fill('Pit wall as agreed');
	await dialog.getByRole('button', { name: 'Add 4 documents' }).click();
	await expect(dialog).toHaveCount(0);
	const rows = (await (await oke.request.get('/api/v1/projects/VFT/find?q=noon')).json()).rows as {
		number: string;
		tags: string[];
	}[];
	expect(rows.map((r) => [r.number, r.tags]).sort()).toEqual([
		['VFT-MW-LS-00-RP-0950', ['noon', 'tide']],
		['VFT-MW-LS-00-RP-0951', ['noon', 'tide']]
	]);
	const { row } = (await (await oke.request.get(`/api/v1/documents/${held.id}`)).json()) as {
		row: { note: string; lock: unknown };
	};
	expect(row).toMatchObject({ note: 'Pit wall as agreed', lock: null });
});

test('photographs taken without a line are kept, and arrive when it is back, without their position', async ({
	browser
}) => {
	const [ines, sefa] = [await as(browser, 'ines'), await as(browser, 'sefa')];
	await go(ines, '/vft/settings/files');
	await ines.getByLabel(/Photographs keep where they were taken/).uncheck();
	await ines.getByRole('button', { name: 'Change what files may be' }).click();
	await said(ines, /^Changed\./);

	await go(sefa, '/vft/photograph');
	const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#8899aa' } })
		.withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '57/1 12/1 30/1' } })
		.jpeg()
		.toBuffer();
	await sefa.getByLabel('Choose several').setInputFiles([
		{ name: 'one.jpg', mimeType: 'image/jpeg', buffer: picture },
		{ name: 'two.jpg', mimeType: 'image/jpeg', buffer: Buffer.concat([picture, Buffer.from([0])]) }
	]);
	await sefa.getByLabel('Title', { exact: true }).first().fill('Pile cap 4 before the pour');
	await sefa.context().setOffline(true);
	await sefa.getByRole('button', { name: 'Add 2 photographs' }).click();
	await expect(sefa.getByText('No line. They are kept here')).toBeVisible();

	// The page is closed and opened again before the line is back: they are still there.
	await sefa.context().setOffline(false);
	await sefa.route('**/api/v1/uploads/**', (route) => route.abort());
	await sefa.reload();
	await expect(sefa.getByText('2 photographs on the way')).toBeVisible();
	await sefa.close();
	// A page says what it sent itself; the one without a line must not begin to.
	const later = await sefa.context().newPage();
	await later.goto('/vft/photograph');
	await expect(later.getByText('2 photographs added')).toBeVisible();

	const found = (await (await later.request.get('/api/v1/projects/VFT/find?q=pile cap pour')).json())
		.rows as {
		id: string;
		label: string;
	}[];
	const file = await later.request.get(`/api/v1/documents/${found[0]!.id}/versions/${found[0]!.label}/file`);
	const { exif } = await sharp(await file.body()).metadata();
	expect(exif?.includes(Buffer.from([57, 0, 0, 0]))).not.toBe(true);
});

test('documents are gone through one after the other in the order of the list', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0120');
	await go(oke, `/vft/place/${folder}`);
	await oke.getByLabel('Filter this list').fill('deck panel');
	await oke.locator('[data-document]').first().dblclick();
	await expect(oke.getByRole('heading', { level: 1 })).toContainText('Deck panel');
	await expect(oke.getByText(/^1 of \d$/)).toBeVisible();
	await oke.keyboard.press('n');
	await expect(oke.getByText(/^2 of \d$/)).toBeVisible();
	await expect(oke.getByRole('heading', { level: 1 })).toContainText('Deck panel');
	await oke.keyboard.press('p');
	await expect(oke.getByText(/^1 of \d$/)).toBeVisible();

	// On a slow line the list comes long after the buttons, which stay under the pointer all the same.
	const sent = await oke.context().newPage();
	let comes = () => {};
	const late = new Promise<void>((come) => (comes = come));
	await sent.route(/\/documents\?limit=/, async (route) => {
		await late;
		await route.continue();
	});
	await go(sent, oke.url());
	const places = () =>
		Promise.all(
			['Lock', 'Mark up', 'Actions'].map((name) =>
				sent.getByRole('button', { name, exact: true }).boundingBox()
			)
		);
	const before = await places();
	comes();
	await expect(sent.getByText(/^\d+ of \d+$/)).toBeVisible();
	expect(await places()).toEqual(before);

	// What is clicked before the page answers is done when it does.
	let loads = () => {};
	const scripts = new Promise<void>((load) => (loads = load));
	await sent.route(/\/_app\/.*\.js$/, async (route) => {
		await scripts;
		await route.continue();
	});
	await sent.goto(oke.url(), { waitUntil: 'commit' });
	await sent.getByRole('button', { name: 'Lock', exact: true }).click();
	expect(await sent.locator('[data-ready]').count()).toBe(0);
	loads();
	await expect(sent.getByRole('dialog', { name: /^Lock / })).toBeVisible();
});

test('what two wrote into one text apart is merged, and the place both changed is chosen', async ({
	browser
}) => {
	const [oke, rhosyn] = [await as(browser, 'oke'), await as(browser, 'rhosyn')];
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	const text = (mix: string, pour: string, end = '') =>
		`# Grouting\n\nMix for ${mix} minutes.\n\nPour within ${pour} minutes.\n${end}`;
	const { id } = await act(oke, 'addDocument', {
		folder,
		upload: await sendBytes(oke, 'method.md', text('three', '20')),
		number: 'VFT-MW-LS-00-SP-0960',
		title: 'Grouting method'
	});
	await act(oke, 'takeLock', { document: id, purpose: 'mixing' });
	const newer = {
		upload: await sendBytes(oke, 'method.md', text('five', '15')),
		note: 'mixed longer',
		keepLock: true
	};
	await act(oke, 'handIn', { document: id, ...newer });
	const beside = {
		upload: await sendBytes(rhosyn, 'method.md', text('three', '30', '\nSign the record.\n')),
		note: 'record',
		base: 'P01.1'
	};
	await act(rhosyn, 'handIn', { document: id, ...beside });

	await go(oke, `/vft/document/${id}`);
	await oke.getByRole('button', { name: 'Merge…' }).click();
	const dialog = oke.getByRole('dialog');
	await expect(dialog).toContainText('1 place was changed by both');
	await expect(dialog.getByRole('button', { name: 'Hand in as next version' })).toBeDisabled();
	await dialog.getByLabel('Side', { exact: true }).check();
	await dialog.getByRole('button', { name: 'Hand in as next version' }).click();
	await said(oke, 'Side version 1 is merged as P01.3');
	const file = await oke.request.get(`/api/v1/documents/${id}/versions/P01.3/file`);
	expect(await file.text()).toBe(text('five', '30', '\nSign the record.\n'));
});
