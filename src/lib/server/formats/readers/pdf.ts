/** PDF (ISO 32000), read by poppler. */
import sharp, { type Sharp } from 'sharp';
import { tellingWords, type SheetWord } from '../../../core/documents/title-block';
import { MOST_SHOWN_PIXELS, type ShownPage, type ShownWord } from '../../../core/files/shown';
import { poppler, popplerBytes } from '../limits';
import type { Reader } from './reader';

/** Most pages whose sizes are told. */
const MOST_PAGES = 2_000;

export const pdf: Reader = {
	called: 'PDF',
	async inspect({ path }) {
		const { stdout } = await poppler('pdfinfo', path, []);
		const pages = Number(/^Pages:\s+(\d+)/m.exec(stdout)?.[1] ?? 0);
		const [, width, height] = /^Page.*size:\s+([\d.]+) x ([\d.]+)/m.exec(stdout) ?? [];
		const turned = /^Page.*rot:\s+(?:90|270)/m.test(stdout);
		const wide = width !== undefined && Number(width) > Number(height) !== turned;
		return { pages, wide, sheetWords: await wordsOfSheet(path).catch(() => []) };
	},
	async shown({ path }) {
		return { kind: 'pages', unit: 'pt', pages: await pagesOf(path), words: true };
	},
	async page({ path }, page, width) {
		const size = ['-cropbox', '-scale-to-x', String(width), '-scale-to-y', '-1'];
		// Of a page that is far higher than wide, the height sets the bound.
		const { width: w, height: h } = (await pagesOf(path))[page - 1] ?? { width: 1, height: 1 };
		if ((width * h) / w > MOST_SHOWN_PIXELS) size.splice(1, 4, '-scale-to', String(MOST_SHOWN_PIXELS));
		const drawn = await drawPage(path, page, size);
		return { bytes: await drawn.webp({ quality: 88, effort: 1 }).toBuffer(), mediaType: 'image/webp' };
	},
	words: ({ path }, page) => wordsOf(path, page),
	async written({ path }) {
		const { stdout } = await poppler('pdftotext', path, ['-l', '2000', '-enc', 'UTF-8'], '-');
		return stdout;
	},
	async preview({ path }, to, across) {
		const drawn = await drawPage(path, 1, ['-scale-to-x', String(across), '-scale-to-y', '-1']);
		await drawn.webp({ quality: 80 }).toFile(to);
	}
};

/** Draws a page. @param size arguments of pdftoppm that say how large */
async function drawPage(path: string, page: number, size: string[]): Promise<Sharp> {
	const one = ['-f', String(page), '-l', String(page)];
	const stdout = await popplerBytes('pdftoppm', path, [...one, ...size]);
	const header = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(stdout.subarray(0, 64).toString('latin1'));
	if (!header) throw new Error('The page cannot be drawn.');
	const raw = { width: Number(header[1]), height: Number(header[2]), channels: 3 as const };
	return sharp(stdout.subarray(header[0].length), { raw });
}

/** The words of the first page that could be its number or revision, in shares of the page. */
async function wordsOfSheet(path: string): Promise<SheetWord[]> {
	const [page] = await pagesOf(path, 1);
	return tellingWords(
		(await wordsOf(path, 1)).map((w) => ({
			text: w.text,
			x: (w.x + w.w / 2) / page!.width,
			y: (w.y + w.h / 2) / page!.height
		}))
	);
}

/** Sizes of the pages as they are seen: cropped and turned. */
async function pagesOf(path: string, most = MOST_PAGES): Promise<ShownPage[]> {
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

async function wordsOf(path: string, page: number): Promise<ShownWord[]> {
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
