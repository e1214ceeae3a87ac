/** Kinds of file that people exchange daily, made here and now by other programs, opened as the server opens them. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { EML, IFC } from '../../src/lib/core/files/kinds';
import { DrawingPages, leftOutWords } from '../../src/lib/core/dxf/pages';
import { decodeDxf, readDxf } from '../../src/lib/core/dxf/read';
import type { Shown, ShownMail } from '../../src/lib/core/files/shown';
import { HEAD_BYTES, sniff } from '../../src/lib/server/formats/sniff';
import { makeStandIn, standInFor } from '../../src/lib/server/formats/stand-in';
import work from '../../src/lib/server/formats/worker';
import { savedByOffice } from './office';

const home = mkdtempSync(join(tmpdir(), 'cupboard-kinds-'));
const COMMITTED = join(import.meta.dirname, '../files');

function run(program: string, ...args: string[]): void {
	const { status, stderr } = spawnSync(program, args, { encoding: 'utf8', timeout: 120_000 });
	if (status !== 0) throw new Error(`${program} ended with ${status}: ${stderr}`);
}
function kept(name: string, bytes: Uint8Array): string {
	const path = join(home, name);
	writeFileSync(path, bytes);
	return path;
}
/** The kind of a file by its bytes, as it is told when it arrives. */
async function kindOf(path: string): Promise<string> {
	const bytes = readFileSync(path);
	return sniff(new Uint8Array(bytes.subarray(0, HEAD_BYTES)), basename(path), (from, length) =>
		Promise.resolve(new Uint8Array(bytes.subarray(from, from + length)))
	);
}
const shown = async (path: string) =>
	(await work({ task: 'shown', path, mediaType: await kindOf(path), size: statSync(path).size })) as Shown;
const written = async (path: string) =>
	(await work({ task: 'written', path, mediaType: await kindOf(path), size: statSync(path).size })) as string;

describe('drawings of ezdxf', () => {
	run('/usr/bin/python3', join(import.meta.dirname, 'make_dxf.py'), home);
	const pagesOf = (name: string) => new DrawingPages(readDxf(decodeDxf(readFileSync(join(home, name)))));

	it.each(['R2000', 'R2018'])(
		'of %s show both sheets, with the layers that are frozen in a window left out',
		(version) => {
			const pages = pagesOf(`sheets-${version}.dxf`);
			expect(pages.names).toEqual(['Model', 'Walls', 'Piles']);
			const [walls, piles] = [pages.page(2), pages.page(3)];
			const on = (sheet: typeof walls, layer: string) =>
				sheet.strokes.filter((s) => sheet.layers[s.layer]!.name === layer).length;
			expect([on(walls, 'WALL'), on(piles, 'WALL'), on(piles, 'PILE')]).toEqual([2, 0, 5]);
			expect(pages.written().attributes.map((a) => a.value)).toContain('VFT-MW-LS-00-DR-0902');
		}
	);

	it('with odd things in them leave out only what they say', () => {
		expect(leftOutWords(pagesOf('odd.dxf').page(1))).toMatch(/^2 items are not shown/);
	});
});

describe('files of LibreOffice, as they are printed', () => {
	const text = (name: string) => readFileSync(join(COMMITTED, name));
	it.each([
		['doc', { 'memo.odt': text('memo.odt') }, 'rig arrives on Monday'],
		['docx', { 'memo.odt': text('memo.odt') }, 'rig arrives on Monday'],
		['odt', { 'memo.odt': text('memo.odt') }, 'minutes of the piling meeting'],
		['rtf', { 'memo.odt': text('memo.odt') }, 'rig arrives on Monday'],
		// Its columns come out too narrow for the longest figure, in their own program too.
		['xls', { 'piles.ods': text('piles.ods') }, '980.00 kN'],
		['xlsx', { 'piles.ods': text('piles.ods') }, '1,250.50 kN'],
		['ods', { 'piles.ods': text('piles.ods') }, '1,250.50 kN'],
		['ppt', { 'deck.pptx': text('deck.pptx') }, 'Linkspan lifted on Thursday'],
		['pptx', { 'deck.pptx': text('deck.pptx') }, 'Linkspan lifted on Thursday'],
		['odp', { 'deck.pptx': text('deck.pptx') }, 'Linkspan lifted on Thursday']
	])('%s is told by its bytes and becomes pages with its words on them', async (ending, files, words) => {
		const [bytes] = [...savedByOffice(files, ending).values()];
		const path = kept(`saved.${ending}`, bytes!);
		const kind = await kindOf(path);
		expect(standInFor(kind), kind).toMatchObject({ program: 'soffice' });
		const to = join(home, `${ending}.pdf`);
		await makeStandIn({ path, mediaType: kind, to });
		expect(await written(to)).toContain(words);
		const pages = (await shown(to)) as Extract<Shown, { kind: 'pages' }>;
		expect(pages.pages.length).toBeGreaterThan(0);
	});
});

describe('pictures', () => {
	const page = (says: string) =>
		sharp(
			Buffer.from(
				`<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400"><rect width="600" height="400" fill="#fff"/><text x="40" y="200" font-size="80">${says}</text></svg>`
			)
		);

	it('of several pages (libtiff) are shown page by page, however they are packed', async () => {
		const paths = await Promise.all(
			['one', 'two', 'three'].map(async (says) => kept(`${says}.tif`, await page(says).tiff().toBuffer()))
		);
		for (const packing of ['lzw', 'zip', 'packbits', 'none']) {
			const path = join(home, `${packing}.tif`);
			run('tiffcp', '-c', packing, ...paths, path);
			const scan = (await shown(path)) as Extract<Shown, { kind: 'pages' }>;
			expect(scan.pages, packing).toEqual(Array(3).fill({ width: 600, height: 400 }));
		}
	});

	it('of phones (libheif) are shown through one that everything opens', async () => {
		const path = join(home, 'phone.heic');
		run('heif-enc', '-q', '60', kept('phone.png', await page('phone').png().toBuffer()), '-o', path);
		expect(await kindOf(path)).toMatch(/^image\/hei[cf]$/);
		const to = join(home, 'phone.jpg');
		await makeStandIn({ path, mediaType: 'image/heic', to });
		expect(await sharp(to).metadata()).toMatchObject({ format: 'jpeg', width: 600, height: 400 });
	});
});

it('a mail of Python is read, its files come out byte for byte, and a mail within it is one of them', async () => {
	const path = join(home, 'mail.eml');
	const attached = ['piles.xlsx', 'scan.tif'].map((name) => join(COMMITTED, name));
	run('/usr/bin/python3', join(import.meta.dirname, 'make_mail.py'), path, ...attached);
	expect(await kindOf(path)).toBe(EML);
	const mail = (await shown(path)) as ShownMail;
	expect(mail.head[0]!.value).toBe('Größe der Pfähle, 桟橋');
	expect(mail.sent).toBe('2026-11-26T09:30:00.000Z');
	expect(mail.attachments.slice(0, 2).map((one) => one.name)).toEqual(['piles.xlsx', 'scan.tif']);
	expect(mail.attachments).toHaveLength(3);
	for (const one of attached) {
		const task = { task: 'attachment', path, mediaType: EML, size: 1, name: basename(one) } as const;
		expect(Buffer.from((await work(task)) as Uint8Array).equals(readFileSync(one)), one).toBe(true);
	}
	expect(await written(path)).toContain('Die Liste liegt bei.');
});

it('a building model of another office is listed and drawn from every side', async () => {
	const path = '/usr/share/assimp/models/IFC/AC14-FZK-Haus.ifc';
	expect(await kindOf(path)).toBe(IFC);
	const model = (await shown(path)) as Extract<Shown, { kind: 'table' }>;
	const [, storeys, elements] = model.tables;
	expect(storeys!.rows).toHaveLength(3);
	expect(elements!.rows).toContainEqual(['IfcWallStandardCase', '13']);
	for (let page = 1; page <= model.views!.length; page++) {
		const made = (await work({ task: 'shown-page', path, mediaType: IFC, size: 1, page, width: 400 })) as {
			bytes: Uint8Array;
		};
		const { channels } = await sharp(made.bytes).stats();
		expect(channels[0]!.stdev, String(page)).toBeGreaterThan(20);
	}
});
