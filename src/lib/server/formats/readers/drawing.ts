/** Drawings (DXF), read by core. */
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { DrawingPages, isEmpty, leftOutWords, titleBlockOf } from '../../../core/dxf/pages';
import { decodeDxf, isBinaryDxf, readDxf } from '../../../core/dxf/read';
import { sheetToSvg } from '../../../core/dxf/svg';
import { MOST_SHOWN_PIXELS } from '../../../core/files/shown';
import { MOST_DXF_BYTES, MOST_PICTURE_PIXELS } from '../limits';
import { KEPT, NOT_SHOWN, type Reader, type StoredFile } from './reader';

async function open({ path }: StoredFile): Promise<DrawingPages> {
	return new DrawingPages(readDxf(decodeDxf(await readFile(path))));
}

export const drawing: Reader = {
	called: 'drawing',
	async inspect({ path, size }) {
		if (size > MOST_DXF_BYTES) return KEPT;
		const bytes = await readFile(path);
		if (isBinaryDxf(bytes)) return KEPT;
		return { titleBlock: titleBlockOf(bytes) };
	},
	async shown(file) {
		if (file.size > MOST_DXF_BYTES) return NOT_SHOWN;
		const drawing = await open(file);
		const sheets = drawing.names.map((name, i) => ({ name, sheet: drawing.page(i + 1) }));
		const pages = sheets.map(({ name, sheet }) => {
			const [left, bottom, right, top] = sheet.box;
			const note = isEmpty(sheet) ? 'nothing is drawn here' : leftOutWords(sheet);
			return { width: right - left, height: top - bottom, left, top, name, note };
		});
		return { kind: 'pages', unit: sheets[0]!.sheet.unit, pages, words: false };
	},
	async page(file, page) {
		const svg = sheetToSvg((await open(file)).page(page), MOST_SHOWN_PIXELS, 0);
		return { bytes: Buffer.from(svg), mediaType: 'image/svg+xml' };
	},
	async written(file) {
		if (file.size > MOST_DXF_BYTES) return '';
		const { texts } = (await open(file)).written();
		return texts.map((t) => t.text).join('\n');
	},
	async preview(file, to, across) {
		const pages = await open(file);
		const svg = sheetToSvg(pages.page(pages.first), across);
		await sharp(Buffer.from(svg), { limitInputPixels: MOST_PICTURE_PIXELS }).webp({ quality: 85 }).toFile(to);
	}
};
