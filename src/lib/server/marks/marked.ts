import { readFile } from 'node:fs/promises';
import * as pdfLib from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { decodeDxf, readDxf } from '../../core/dxf/read';
import { DrawingPages } from '../../core/dxf/pages';
import type { Sheet } from '../../core/dxf/sheet';
import { sheetToSvg } from '../../core/dxf/svg';
import {
	burn,
	drawingGround,
	markedPages,
	pdfGround,
	pictureGround,
	type Ground
} from '../../core/markup/burn';
import type { Mark, Scale } from '../../core/markup/mark';
import { familyOf } from '../../core/files/kinds';
import { MOST_PICTURE_PIXELS } from '../formats/limits';

/** Longer side of a drawing's picture in pixels. */
const DRAWING_PIXELS = 4_000;

/** The marks of a version as a worker is given them: scales by page, as JSON writes a map. */
export interface GivenMarks {
	marks: Mark[];
	scales: Record<string, Scale>;
	codes: string[];
}

/** A copy of a sheet as PDF with marks burned in. Raises what the readers raise for locked or damaged files. */
export async function markedPdf(path: string, mediaType: string, given: GivenMarks): Promise<Uint8Array> {
	const bytes = await readFile(path);
	const family = familyOf(mediaType);
	const pdf = family === 'pdf' ? await pdfLib.PDFDocument.load(bytes) : await pdfLib.PDFDocument.create();
	const grounds =
		family === 'pdf'
			? pdf.getPages().map(pdfGround)
			: family === 'drawing'
				? await drawingsOn(pdf, bytes, given.marks)
				: await picturesOn(pdf, bytes, mediaType, given.marks);
	const scales = new Map(Object.entries(given.scales).map(([page, scale]) => [Number(page), scale]));
	await burn(pdfLib, pdf, grounds, { ...given, scales });
	return pdf.save();
}

/** The pages of a picture that carry marks, and the first when none does; at their own numbers. */
async function picturesOn(
	pdf: pdfLib.PDFDocument,
	bytes: Uint8Array,
	mediaType: string,
	marks: readonly Mark[]
) {
	const { pages = 1 } = mediaType === 'image/tiff' ? await sharp(bytes).metadata() : {};
	const grounds: (Ground | undefined)[] = [];
	for (const number of markedPages(marks, pages))
		grounds[number - 1] = await pictureOn(pdf, bytes, mediaType === 'image/tiff' ? { page: number - 1 } : {});
	return grounds;
}

async function pictureOn(pdf: pdfLib.PDFDocument, bytes: Uint8Array, page: { page?: number }) {
	const { data, info } = await sharp(bytes, { ...page, limitInputPixels: MOST_PICTURE_PIXELS })
		.autoOrient()
		.png()
		.toBuffer({ resolveWithObject: true });
	return pictureGround(pdf, { bytes: new Uint8Array(data), width: info.width, height: info.height });
}

/** The pages of a drawing that carry marks, and the model when none does; at their own numbers. */
async function drawingsOn(pdf: pdfLib.PDFDocument, bytes: Uint8Array, marks: readonly Mark[]) {
	const drawing = new DrawingPages(readDxf(decodeDxf(bytes)));
	const grounds: (Ground | undefined)[] = [];
	for (const number of markedPages(marks, drawing.names.length))
		grounds[number - 1] = await drawingOn(pdf, drawing.page(number));
	return grounds;
}

async function drawingOn(pdf: pdfLib.PDFDocument, sheet: Sheet) {
	const svg = sheetToSvg(sheet, DRAWING_PIXELS, 0);
	const png = await sharp(Buffer.from(svg), { limitInputPixels: MOST_PICTURE_PIXELS })
		.flatten({ background: '#fff' })
		.png()
		.toBuffer();
	return drawingGround(pdf, new Uint8Array(png), sheet);
}
