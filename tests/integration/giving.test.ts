import { readFile } from 'node:fs/promises';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeToken } from '../../src/lib/server/people/acts-account';
import { addDocument } from '../../src/lib/server/documents/acts';
import { takeLock } from '../../src/lib/server/locks/acts';
import { breakLock } from '../../src/lib/server/locks/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { makePass } from '../../src/lib/server/passes/acts';
import { event } from '../../src/lib/server/platform/db/schema';
import type { Shown } from '../../src/lib/core/files/shown';
import { ServerProcess } from './server';
import { TestWorld } from './world';

let world: TestWorld;
let server: ServerProcess;
const tokens: Record<string, string> = {};
const made: Record<string, { id: string; bytes: Buffer }> = {};

/** What a browser says when its user goes to an address, and when the application's own page fetches. */
const GOES = { 'sec-fetch-dest': 'document', 'sec-fetch-mode': 'navigate', 'sec-fetch-site': 'none' };
const PAGE = { 'sec-fetch-dest': 'empty', 'sec-fetch-mode': 'cors', 'sec-fetch-site': 'same-origin' };
const get = (who: string | null, path: string, headers: Record<string, string> = {}) =>
	fetch(server.origin + path, {
		headers: { ...(who ? { authorization: `Bearer ${tokens[who]}` } : {}), ...headers }
	});
const told = async (documentId: string, kind: string) =>
	world.db
		.select()
		.from(event)
		.where(and(eq(event.documentId, documentId), eq(event.kind, kind)));

const DXF = [
	'0',
	'SECTION',
	'2',
	'ENTITIES',
	'0',
	'LINE',
	'8',
	'A',
	'10',
	'0',
	'20',
	'0',
	'11',
	'50',
	'21',
	'30'
];

beforeAll(async () => {
	world = await TestWorld.open();
	const pdf = await PDFDocument.create();
	const font = await pdf.embedFont(StandardFonts.Helvetica);
	for (const words of ['Bearing shelf', 'Second page'])
		pdf.addPage([400, 300]).drawText(words, { x: 40, y: 200, font });
	const files: Record<string, Uint8Array> = {
		'sheet.pdf': await pdf.save(),
		'plan.dxf': Buffer.from([...DXF, '0', 'ENDSEC', '0', 'EOF', ''].join('\n')),
		'photo.png': await sharp({ create: { width: 300, height: 200, channels: 3, background: 'teal' } })
			.png()
			.toBuffer(),
		'note.md': Buffer.from('# Heading\n\n![x](/api/v1/documents/x/versions/P01.1/file?download) words'),
		'list.csv': Buffer.from('Mark,Length\nP-1,12\n'),
		'page.html': Buffer.from('<!doctype html><p>Hello</p><script>1</script>'),
		'model.bin': Buffer.from([0, 1, 2, 3, 255, 254])
	};
	let serial = 8_000;
	for (const [name, bytes] of Object.entries(files)) {
		const upload = await world.send('halla', bytes, name);
		const number = `VFT-AR-TB-00-DR-${++serial}`;
		const { id } = await world.act('halla', addDocument, {
			folder: world.other,
			upload,
			number,
			title: name
		});
		made[name] = { id, bytes: Buffer.from(bytes) };
	}
	// Oke has View on Architecture, Petra works there.
	for (const who of ['oke', 'petra', 'halla', 'ines'])
		tokens[who] = (await world.act(who, makeToken, { name: 'giving' })).secret;
	server = await ServerProcess.on(world.services.config.databaseUrl, world.home);
});
afterAll(async () => {
	await server.stop('SIGTERM');
	await world.close();
});

describe('somebody with View', () => {
	it('never gets the bytes of a file, however they ask', async () => {
		for (const [name, { id, bytes }] of Object.entries(made)) {
			const file = `/api/v1/documents/${id}/versions/P01.1/file`;
			for (const [path, headers] of [
				[file, {}],
				[file, GOES],
				[file, PAGE],
				[`${file}?download`, {}],
				[`${file}?download`, { range: 'bytes=0-' }],
				[file, { range: 'bytes=0-', ...GOES }],
				[file, { ...PAGE, 'sec-fetch-dest': 'image' }],
				[file, { ...PAGE, 'sec-fetch-dest': 'video', range: 'bytes=0-' }]
			] as [string, Record<string, string>][]) {
				const answer = await get('oke', path, headers);
				expect(answer.status, `${name} ${path} ${JSON.stringify(headers)}`).toBe(403);
				expect((await answer.arrayBuffer()).byteLength).toBeLessThan(1_000);
			}
			const shown = await get('oke', `/api/v1/documents/${id}/versions/P01.1/shown`);
			const body = Buffer.from(await shown.arrayBuffer());
			expect(body.includes(bytes.subarray(0, 200)) && name !== 'page.html', name).toBe(false);
			expect(await told(id, 'document.downloaded'), name).toEqual([]);
		}
	});

	it('is shown what the server makes of it: pages, words, drawings, texts, tables', async () => {
		const shown = async (name: string) =>
			(await (await get('oke', `/api/v1/documents/${made[name]!.id}/versions/P01.1/shown`)).json()) as Shown;
		const part = (name: string, query: string) =>
			get('oke', `/api/v1/documents/${made[name]!.id}/versions/P01.1/shown?${query}`);
		expect(await shown('sheet.pdf')).toMatchObject({
			kind: 'pages',
			unit: 'pt',
			pages: [
				{ width: 400, height: 300 },
				{ width: 400, height: 300 }
			]
		});
		const page = await part('sheet.pdf', 'part=page&page=2&width=800');
		expect(page.headers.get('content-type')).toBe('image/webp');
		expect((await sharp(await page.arrayBuffer()).metadata()).width).toBe(800);
		const { words } = (await (await part('sheet.pdf', 'part=words&page=1')).json()) as {
			words: { text: string; x: number }[];
		};
		expect(words.map((w) => w.text)).toEqual(['Bearing', 'shelf']);
		expect(words[0]!.x).toBeCloseTo(40, 0);
		expect(await shown('plan.dxf')).toMatchObject({
			kind: 'pages',
			pages: [{ width: 50, height: 30, left: 0, top: 30, name: 'Model', note: '' }]
		});
		const drawn = await part('plan.dxf', 'part=page');
		expect(drawn.headers.get('content-security-policy')).toContain('sandbox');
		expect(await drawn.text()).toContain('<path');
		expect(await shown('photo.png')).toMatchObject({ kind: 'pages', pages: [{ width: 300, height: 200 }] });
		expect(await shown('note.md')).toMatchObject({
			kind: 'text',
			html: expect.stringContaining('<h1>Heading')
		});
		expect(await shown('list.csv')).toMatchObject({
			kind: 'table',
			tables: [
				{
					rows: [
						['Mark', 'Length'],
						['P-1', '12']
					]
				}
			]
		});
		expect(await shown('model.bin')).toMatchObject({ kind: 'none' });
		expect((await part('sheet.pdf', 'part=page&page=99')).status).toBe(422);
		expect((await part('sheet.pdf', 'part=else')).status).toBe(422);
		expect(await told(made['sheet.pdf']!.id, 'document.opened')).toHaveLength(1);
	});

	it('gets no side version either', async () => {
		const { id } = await world.add('halla', 'first', world.other);
		await world.act('petra', takeLock, { document: id, purpose: '' });
		await world.act('halla', breakLock, { document: id, reason: 'r' });
		await world.act('petra', handIn, {
			document: id,
			upload: await world.send('petra', 'beside'),
			note: 'n'
		});
		expect((await get('oke', `/api/v1/documents/${id}/sides/1/file`, PAGE)).status).toBe(403);
		expect((await get('petra', `/api/v1/documents/${id}/sides/1/file`, PAGE)).status).toBe(200);
		expect((await get('oke', `/api/v1/documents/${id}/sides/1/shown`)).status).toBe(200);
	});
});

describe('giving out', () => {
	it('is an event, once a download and not once a range', async () => {
		const { id, bytes } = made['model.bin']!;
		const file = `/api/v1/documents/${id}/versions/P01.1/file?download`;
		const first = await get('petra', file, { range: 'bytes=0-' });
		expect(Buffer.from(await first.arrayBuffer())).toEqual(bytes);
		expect(await told(id, 'document.downloaded')).toHaveLength(1);
		await get('petra', file, { range: 'bytes=3-' });
		expect(await told(id, 'document.downloaded')).toHaveLength(1);
		await get('petra', file);
		expect(await told(id, 'document.downloaded')).toHaveLength(2);
		await get('halla', file, { range: 'bytes=3-' });
		expect(await told(id, 'document.downloaded')).toHaveLength(3);
	});

	it('is also what no browser shows, when somebody goes to it or a program asks', async () => {
		const { id } = made['plan.dxf']!;
		const file = `/api/v1/documents/${id}/versions/P01.1/file`;
		expect((await get('petra', file, PAGE)).status).toBe(200);
		expect(await told(id, 'document.downloaded')).toHaveLength(0);
		expect((await get('petra', file, GOES)).headers.get('content-disposition')).toMatch(/^attachment/);
		await get('petra', file);
		expect(await told(id, 'document.downloaded')).toHaveLength(2);
	});

	it('is never begun by a picture in a text, nor by a browser that reads ahead', async () => {
		const { id } = made['photo.png']!;
		const file = `/api/v1/documents/${id}/versions/P01.1/file`;
		const image = { ...PAGE, 'sec-fetch-dest': 'image' };
		expect((await get('petra', `${file}?download`, image)).status).toBe(403);
		expect((await get('petra', `${file}?download`, { ...GOES, 'sec-purpose': 'prefetch' })).status).toBe(403);
		await get('petra', file, image);
		expect(await told(id, 'document.downloaded')).toHaveLength(0);
		expect(await told(id, 'document.opened')).toHaveLength(1);
	});
});

describe('a pass', () => {
	const pass = async (more: object) => {
		const { link } = await world.act('ines', makePass, {
			place: made['sheet.pdf']!.id,
			for: 'Ansa Reyl',
			audience: 'anyone',
			until: '2099-12-31'.replace('2099', String(new Date().getFullYear() + 1)),
			...more
		});
		return `/pass/${link.split('/pass/')[1]!}/file/${made['sheet.pdf']!.id}`;
	};

	it('for looking shows, and gives nothing', async () => {
		const file = await pass({});
		for (const headers of [{}, GOES, PAGE, { range: 'bytes=0-' }] as Record<string, string>[]) {
			expect((await get(null, file, headers)).status).toBe(403);
			expect((await get(null, `${file}?download`, headers)).status).toBe(403);
		}
		expect(await (await get(null, `${file}/shown`)).json()).toMatchObject({ kind: 'pages' });
	});

	it('with stamps gives stamped copies only, and never the original', async () => {
		const file = await pass({ mayDownload: true, stamped: true });
		for (const headers of [GOES, PAGE]) expect((await get(null, file, headers)).status).toBe(403);
		const copy = Buffer.from(await (await get(null, `${file}?download`, GOES)).arrayBuffer());
		expect(copy.equals(made['sheet.pdf']!.bytes)).toBe(false);
		expect((await PDFDocument.load(copy)).getPageCount()).toBe(2);
		const ranged = Buffer.from(await (await get(null, file, { range: 'bytes=0-' })).arrayBuffer());
		expect(ranged.equals(made['sheet.pdf']!.bytes)).toBe(false);
		expect((await get(null, `${file}/shown`)).status).toBe(200);
	});
});

describe('files of the home', () => {
	it('are nobody else’s to read', async () => {
		const { stat, readdir } = await import('node:fs/promises');
		const walk = async (folder: string): Promise<void> => {
			for (const name of await readdir(folder)) {
				const path = `${folder}/${name}`;
				const about = await stat(path);
				expect(about.mode & 0o077, path).toBe(0);
				if (about.isDirectory()) await walk(path);
			}
		};
		await readFile(await world.services.store.localPath((await world.db.query.content.findFirst())!.hash));
		await walk(world.home);
	});
});
