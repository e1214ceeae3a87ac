/** Kinds of file that people exchange daily, made by other programs (`tests/files`), opened as the server opens them. */
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { comparedAs, EML, IFC, isSheetKind, isShownByServer, MSG } from '../../core/files/kinds';
import type { Shown, ShownMail } from '../../core/files/shown';
import type { Inspection } from '../platform/db/schema';
import type { ShownPicture } from './readers/reader';
import { standInFor } from './stand-in';
import work from './worker';

const FILES = join(import.meta.dirname, '../../../../tests/files');
let home: string;
beforeAll(async () => {
	home = await mkdtemp(join(tmpdir(), 'cupboard-others-'));
});
afterAll(() => rm(home, { recursive: true, force: true }));

const file = async (name: string, mediaType: string) => ({
	path: join(FILES, name),
	mediaType,
	size: (await readFile(join(FILES, name))).length
});
const shown = async (name: string, mediaType: string) =>
	(await work({ task: 'shown', ...(await file(name, mediaType)) })) as Shown;
const written = async (name: string, mediaType: string) =>
	(await work({ task: 'written', ...(await file(name, mediaType)) })) as string;
const inspected = async (name: string, mediaType: string) =>
	(await work({ task: 'inspect', ...(await file(name, mediaType)) })) as Inspection;

describe('a scan of several pages (TIFF)', () => {
	it('has all its pages, each in its own size', async () => {
		expect(await shown('scan.tif', 'image/tiff')).toEqual({
			kind: 'pages',
			unit: 'px',
			words: false,
			pages: [
				{ width: 420, height: 297 },
				{ width: 420, height: 297 },
				{ width: 297, height: 420 }
			]
		});
	});

	it('gives each page as a picture, and a preview', async () => {
		const scan = await file('scan.tif', 'image/tiff');
		const pages = await Promise.all(
			[1, 2, 3].map(async (page) => {
				const made = (await work({ task: 'shown-page', ...scan, page, width: 400 })) as ShownPicture;
				return sharp(made.bytes).greyscale().raw().toBuffer({ resolveWithObject: true });
			})
		);
		expect(pages.map(({ info }) => info.width)).toEqual([400, 400, 297]);
		expect(Buffer.compare(pages[0]!.data, pages[1]!.data)).not.toBe(0);
		expect(await work({ task: 'preview', ...scan, to: join(home, 'scan.webp') })).toBe(true);
		expect(await inspected('scan.tif', 'image/tiff')).toMatchObject({ unchecked: false, fault: null });
	});

	it('carries marks into a copy, on the page they were made on', async () => {
		const mark = {
			id: 'm1',
			kind: 'rectangle',
			page: 3,
			points: [
				{ x: 10, y: 10 },
				{ x: 90, y: 60 }
			],
			text: '',
			layer: 'MW',
			size: 1,
			turn: 0,
			order: 1
		};
		const bytes = (await work({
			task: 'copy',
			...(await file('scan.tif', 'image/tiff')),
			stamp: null,
			marks: { marks: [mark] as never, scales: {}, codes: ['MW'] }
		})) as Uint8Array;
		const path = join(home, 'marked.pdf');
		await writeFile(path, bytes);
		const seen = (await work({
			task: 'inspect',
			path,
			mediaType: 'application/pdf',
			size: bytes.length
		})) as Inspection;
		expect(seen.pages).toBe(1);
	});

	it('counts as a sheet that is marked and compared', () => {
		for (const kind of ['image/tiff', 'image/heic'])
			expect([isShownByServer(kind), isSheetKind(kind), comparedAs(kind, 'application/pdf')]).toEqual([
				true,
				true,
				'sheets'
			]);
		expect([isSheetKind('application/msword'), comparedAs('application/msword', 'image/tiff')]).toEqual([
			false,
			'sheets'
		]);
	});
});

describe.each([
	['EML', 'mail.eml', EML, 'Pile list, größer', 3],
	['MSG', 'mail.msg', MSG, 'Linkspan lifted', 1]
])('a mail saved as %s', (_, name, kind, subject, attachments) => {
	it('shows who wrote to whom and when, what it says, and what came with it', async () => {
		const mail = (await shown(name, kind)) as ShownMail;
		expect(mail.head.slice(0, 2)).toEqual([
			{ label: 'Subject', value: subject },
			{ label: 'From', value: 'Maj Sund <maj@vennholm.example>' }
		]);
		expect(mail.head.find((line) => line.label === 'To')!.value).toContain(
			'Ines Halvor <ines@vennholm.example>'
		);
		expect(mail.sent).toBe('2026-11-26T09:30:00.000Z');
		expect(mail.attachments).toHaveLength(attachments);
	});

	it('is found by its own words, addresses and the names of its files, not by what is in them', async () => {
		const said = await written(name, kind);
		expect(said).toContain('maj@vennholm.example');
		expect(said).toMatch(kind === EML ? /pile list.*piles\.xlsx/ : /lifted at 09:12.*log\.txt/);
		expect(said).not.toMatch(/driven to refusal|crane|UEsDB/);
	});

	it('opens', async () => {
		expect(await inspected(name, kind)).toMatchObject({ unchecked: false, fault: null });
	});
});

describe('what came with a mail', () => {
	const attached = async (name: string) => {
		const mail = await file('mail.eml', EML);
		return (await work({ task: 'attachment', ...mail, name })) as Uint8Array | null;
	};
	it('comes out byte for byte, two of one name apart', async () => {
		expect(
			Buffer.from((await attached('piles.xlsx'))!).equals(await readFile(join(FILES, 'piles.xlsx')))
		).toBe(true);
		expect(Buffer.from((await attached('note.txt'))!).toString()).toBe('driven to refusal');
		expect(Buffer.from((await attached('note (2).txt'))!).toString()).toBe('the second of that name');
		expect(await attached('../../etc/passwd')).toBeNull();
	});
	it('is not looked for in a mail that is too large to open, which is no fault of the mail', async () => {
		const mail = { ...(await file('mail.eml', EML)), size: 200_000_000 };
		expect(await work({ task: 'inspect', ...mail })).toMatchObject({ fault: null, unchecked: true });
	});
	it('is asked for in vain in a damaged one', async () => {
		const path = join(home, 'broken.msg');
		await writeFile(path, Buffer.concat([(await readFile(join(FILES, 'mail.msg'))).subarray(0, 700)]));
		const seen = (await work({ task: 'inspect', path, mediaType: MSG, size: 700 })) as Inspection;
		expect(seen.fault).toMatch(/damaged/);
	});
});

describe('a building model (IFC)', () => {
	it('lists what it is of, its storeys from the ground up, and how many elements there are', async () => {
		const made = (await shown('shed.ifc', IFC)) as Extract<Shown, { kind: 'table' }>;
		expect(made.tables.map((t) => t.rows)).toEqual([
			[
				['What', 'Name', 'Description'],
				['Project', 'Ferry terminal', 'Plant shed of the ferry terminal'],
				['Site', 'Quay', ''],
				['Building', 'Shed', ''],
				['Schema', 'IFC4', '']
			],
			[
				['Storey', 'Height', 'Elements'],
				['Ground floor', '0', '2'],
				['Loft öä', '3.4', '1']
			],
			[
				['Class', 'Count'],
				['IfcWall', '2'],
				['IfcSlab', '1']
			]
		]);
		expect(made.views).toHaveLength(5);
	});

	it('is drawn from each side', async () => {
		const model = await file('shed.ifc', IFC);
		for (const page of [1, 5]) {
			const made = (await work({ task: 'shown-page', ...model, page, width: 500 })) as ShownPicture;
			const { width, height } = await sharp(made.bytes).metadata();
			expect(Math.max(width, height)).toBeGreaterThan(480);
			const { channels } = await sharp(made.bytes).stats();
			expect(channels[0]!.min).toBeLessThan(120);
		}
		expect(await work({ task: 'preview', ...model, to: join(home, 'shed.webp') })).toBe(true);
	});

	it('is found by the names in it', async () => {
		expect(await written('shed.ifc', IFC)).toContain('Plant shed of the ferry terminal');
	});
});

describe('office files', () => {
	const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
	it('say above and below which pages they stand', async () => {
		const { html } = (await shown('memo.docx', DOCX)) as Extract<Shown, { kind: 'text' }>;
		expect(html).toMatch(/^<header>.*minutes of the piling meeting.*<\/header>/);
		expect(html).toMatch(/<footer>.*of the Vennholm ferry terminal.*<\/footer>$/);
		expect(html).toContain('The rig arrives on Monday.');
		for (const [name, kind] of [
			['memo.docx', DOCX],
			['memo.odt', 'application/vnd.oasis.opendocument.text']
		] as const)
			expect(await written(name, kind)).toMatch(/piling meeting/);
	});

	it('that ask for a password say so, and are no fault of the disk', async () => {
		const kind = 'application/x-locked-office';
		expect(await shown('locked.docx', kind)).toMatchObject({
			kind: 'none',
			sentence: expect.stringContaining('locked with a password') as string
		});
		expect((await inspected('locked.docx', kind)).fault).toMatch(/locked with a password/);
	});

	it('are shown as they are printed, where nothing else shows them', () => {
		expect(standInFor('application/msword')).toMatchObject({ mediaType: 'application/pdf' });
		expect(standInFor('image/heic')).toMatchObject({ mediaType: 'image/jpeg' });
		expect(standInFor('application/pdf')).toBeNull();
	});
});
