/** What is made of a stored file for those who may view it and not take it. Runs in the format workers. */
import { readFile } from 'node:fs/promises';
import { marked } from 'marked';
import sharp from 'sharp';
import { DrawingPages, isEmpty, leftOutWords } from '../../core/dxf/pages';
import { decodeDxf, readDxf } from '../../core/dxf/read';
import { sheetToSvg } from '../../core/dxf/svg';
import {
	DOCX,
	EML,
	IFC,
	LOCKED_OFFICE,
	MSG,
	ODT,
	PICTURES,
	SERVER_PICTURES
} from '../../core/files/file-kinds';
import { SIDES } from '../../core/model/picture';
import { MOST_SHOWN_PIXELS, type Shown, type ShownPage, type ShownWord } from '../../core/files/shown';
import { listArchive } from './archive';
import { shownMail } from './mail';
import { modelTables, modelView, MOST_MODEL_BYTES } from './model';
import { MOST_DXF_BYTES, MOST_PICTURE_PIXELS, poppler, popplerBytes } from './limits';
import { readDocx } from '../../formats/docx/read';
import { checkPackage, LOCKED } from '../../formats/package/size';
import { TABLE_KINDS } from '../../core/files/media';
import { readTables } from '../../formats/tables/read';
import { plainText, writtenLines } from './written';

export type ShownTask =
	| { task: 'shown'; path: string; mediaType: string; size: number }
	| { task: 'shown-page'; path: string; mediaType: string; size: number; page: number; width: number }
	| { task: 'shown-words'; path: string; mediaType: string; page: number };

export interface ShownPicture {
	bytes: Uint8Array;
	mediaType: string;
}

/** Most rows of a sheet and columns of a row that are shown. */
const MOST_CELLS = { rows: 20_000, columns: 200 };
/** Most pixels along the longer side of a model's picture. */
const MOST_VIEW_PIXELS = 2_000;
/** Most pages whose sizes are told. */
const MOST_PAGES = 2_000;

const escapeHtml = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
const paragraphs = (lines: string[]) => lines.map((line) => `<p>${escapeHtml(line)}</p>`).join('');

/** What a file is shown as. Throws when it is damaged. */
export async function shown({
	path,
	mediaType,
	size
}: Extract<ShownTask, { task: 'shown' }>): Promise<Shown> {
	if (mediaType === 'application/pdf')
		return { kind: 'pages', unit: 'pt', pages: await pdfPages(path), words: true };
	if (mediaType === 'image/vnd.dxf' && size <= MOST_DXF_BYTES) {
		const drawing = new DrawingPages(readDxf(decodeDxf(await readFile(path))));
		const sheets = drawing.names.map((name, i) => ({ name, sheet: drawing.page(i + 1) }));
		const pages = sheets.map(({ name, sheet }) => {
			const [left, bottom, right, top] = sheet.box;
			const note = isEmpty(sheet) ? 'nothing is drawn here' : leftOutWords(sheet);
			return { width: right - left, height: top - bottom, left, top, name, note };
		});
		return { kind: 'pages', unit: sheets[0]!.sheet.unit, pages, words: false };
	}
	if (PICTURES.includes(mediaType) || SERVER_PICTURES.includes(mediaType))
		return { kind: 'pages', unit: 'px', pages: await picturePages(path), words: false };
	if (mediaType === EML || mediaType === MSG) return shownMail(path, mediaType, size);
	if (mediaType === IFC && size <= MOST_MODEL_BYTES)
		return { kind: 'table', tables: await modelTables(path), views: [...SIDES] };
	if (mediaType === LOCKED_OFFICE) return { kind: 'none', sentence: LOCKED };
	if (mediaType === 'text/markdown')
		return { kind: 'text', html: await marked.parse(await plainText(path), { gfm: true }) };
	if (mediaType === 'text/html') return { kind: 'text', html: await plainText(path) };
	if (mediaType === DOCX) {
		const bytes = await readFile(path);
		checkPackage(bytes);
		return { kind: 'text', html: await readDocx(Uint8Array.from(bytes).buffer) };
	}
	if (mediaType === ODT) return { kind: 'text', html: paragraphs(await writtenLines(path)) };
	if (TABLE_KINDS.includes(mediaType))
		return { kind: 'table', tables: await readTables(await readFile(path), mediaType, MOST_CELLS) };
	if (mediaType.startsWith('text/'))
		return { kind: 'text', html: paragraphs((await plainText(path)).split(/\r?\n/)) };
	if (mediaType === 'application/zip') return { kind: 'archive', ...(await listArchive(path)) };
	return {
		kind: 'none',
		sentence: 'Files of this kind are not shown here, only downloaded, and that needs Download.'
	};
}

/** Sizes of the pages of a picture in pixels, upright; most kinds have one. */
async function picturePages(path: string): Promise<ShownPage[]> {
	const { pages = 1, format } = await sharp(path, { limitInputPixels: MOST_PICTURE_PIXELS }).metadata();
	// Of moving pictures, whose pages follow each other in time, the first is shown.
	if (format !== 'tiff') return [await pageSize(path, 0)];
	const sizes: ShownPage[] = [];
	for (let page = 0; page < Math.min(pages, MOST_PAGES); page++) {
		sizes.push(await pageSize(path, page));
	}
	return sizes;
}

async function pageSize(path: string, page: number): Promise<ShownPage> {
	const { autoOrient } = await sharp(path, { page, limitInputPixels: MOST_PICTURE_PIXELS }).metadata();
	return { width: autoOrient.width, height: autoOrient.height };
}

/** Sizes of the pages of a PDF as they are seen: cropped and turned. */
export async function pdfPages(path: string, most = MOST_PAGES): Promise<ShownPage[]> {
	const { stdout } = await poppler('pdfinfo', path, ['-f', '1', '-l', String(most), '-box']);
	const pages: ShownPage[] = [];
	for (const line of stdout.split('\n')) {
		const [, number, key, rest] = /^Page\s+(\d+)\s+(CropBox|rot):\s+(.+)$/.exec(line) ?? [];
		if (!number) continue;
		const at = Number(number) - 1;
		if (key === 'CropBox') {
			const [x0, y0, x1, y1] = rest!.trim().split(/\s+/).map(Number) as [number, number, number, number];
			const before = pages[at];
			pages[at] = { width: Math.abs(x1 - x0), height: Math.abs(y1 - y0) };
			if (before?.width === -1) pages[at] = turned(pages[at]);
		} else if (Number(rest) % 180 !== 0)
			pages[at] = pages[at] ? turned(pages[at]) : { width: -1, height: -1 };
	}
	return pages;
}

const turned = ({ width, height }: ShownPage): ShownPage => ({ width: height, height: width });

/** One page as a picture, `width` pixels across at most; drawings as SVG. */
export async function shownPage({
	path,
	mediaType,
	page,
	width
}: Extract<ShownTask, { task: 'shown-page' }>): Promise<ShownPicture> {
	const across = Math.max(16, Math.min(MOST_SHOWN_PIXELS, Math.round(width)));
	if (mediaType === 'application/pdf') {
		const one = ['-f', String(page), '-l', String(page)];
		const size = ['-cropbox', '-scale-to-x', String(across), '-scale-to-y', '-1'];
		// Of a page that is far higher than wide, the height sets the bound.
		const pages = await pdfPages(path);
		const { width: w, height: h } = pages[page - 1] ?? { width: 1, height: 1 };
		if ((across * h) / w > MOST_SHOWN_PIXELS) size.splice(1, 4, '-scale-to', String(MOST_SHOWN_PIXELS));
		const stdout = await popplerBytes('pdftoppm', path, [...one, ...size]);
		const header = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(stdout.subarray(0, 64).toString('latin1'));
		if (!header) throw new Error('The page cannot be drawn.');
		const raw = { width: Number(header[1]), height: Number(header[2]), channels: 3 as const };
		const bytes = await sharp(stdout.subarray(header[0].length), { raw })
			.webp({ quality: 88, effort: 1 })
			.toBuffer();
		return { bytes, mediaType: 'image/webp' };
	}
	if (mediaType === 'image/vnd.dxf') {
		const drawing = new DrawingPages(readDxf(decodeDxf(await readFile(path))));
		const svg = sheetToSvg(drawing.page(page), MOST_SHOWN_PIXELS, 0);
		return { bytes: Buffer.from(svg), mediaType: 'image/svg+xml' };
	}
	if (mediaType === IFC) {
		const view = await modelView(path, page - 1, Math.min(across, MOST_VIEW_PIXELS));
		return { bytes: await view.webp({ quality: 90, effort: 1 }).toBuffer(), mediaType: 'image/webp' };
	}
	const one = mediaType === 'image/tiff' ? { page: page - 1 } : {};
	const bytes = await sharp(path, { ...one, limitInputPixels: MOST_PICTURE_PIXELS })
		.autoOrient()
		.resize({ width: across, height: MOST_SHOWN_PIXELS, fit: 'inside', withoutEnlargement: true })
		.webp({ quality: 90, effort: 1 })
		.toBuffer();
	return { bytes, mediaType: 'image/webp' };
}

/** The words of one page of a PDF with where they stand. */
export async function shownWords({
	path,
	mediaType,
	page
}: Omit<Extract<ShownTask, { task: 'shown-words' }>, 'task'>): Promise<ShownWord[]> {
	if (mediaType !== 'application/pdf') return [];
	const one = ['-f', String(page), '-l', String(page), '-cropbox', '-bbox'];
	const { stdout } = await poppler('pdftotext', path, one, '-');
	const words: ShownWord[] = [];
	const each = /<word xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">([^<]*)<\/word>/g;
	for (const [, x0, y0, x1, y1, text] of stdout.matchAll(each)) {
		const [x, y] = [Number(x0), Number(y0)];
		const plain = text!
			.replace(/&lt;/g, '<')
			.replace(/&gt;/g, '>')
			.replace(/&quot;/g, '"')
			.replace(/&amp;/g, '&');
		words.push({ text: plain, x, y, w: Number(x1) - x, h: Number(y1) - y });
	}
	return words;
}
