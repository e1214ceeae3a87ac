import type { PDFDocument } from '@cantoo/pdf-lib';
import {
	burn,
	drawingGround,
	markedPages,
	pdfGround,
	pictureGround,
	type Burning,
	type Ground
} from '../../core/markup/burn';
import type { Mark } from '../../core/markup/mark';
import type { Sheet } from '../../core/dxf/sheet';
import { familyOf } from '../../core/files/kinds';
import { DrawnSheet, GROUNDS } from '../viewers/draw-sheet';
import { readPage, readShown } from '../viewers/shown';
import { readDrawing } from '../viewers/read-drawing';

/** Longer side of a drawing's picture in pixels. */
const DRAWING_PIXELS = 5_000;

/**
 * A copy of a sheet as PDF with marks burned in, `shown` being where its pages are drawn by the server; the original stays as it is. A PDF keeps its own pages, a picture or
 * drawing becomes one. Raises an Error whose message is a sentence when the file cannot be copied so.
 */
export async function burnedPdf(
	burning: Burning & { bytes: ArrayBuffer; mediaType: string; title: string; shown: string }
): Promise<Uint8Array> {
	const lib = await import('@cantoo/pdf-lib');
	const { bytes, mediaType, title } = burning;
	const family = familyOf(mediaType);
	const pdf =
		family === 'pdf'
			? await lib.PDFDocument.load(bytes).catch(() => {
					throw new Error('This PDF is locked or damaged; marks cannot be burned into a copy.');
				})
			: await lib.PDFDocument.create();
	pdf.setTitle(title);
	const grounds =
		family === 'pdf'
			? pdf.getPages().map(pdfGround)
			: family === 'drawing'
				? await drawings(pdf, bytes, burning.marks)
				: family === 'scan' || family === 'phone'
					? await pagesOfServer(pdf, burning.shown, burning.marks)
					: [await pictureGround(pdf, await picture(bytes, mediaType))];
	await burn(lib, pdf, grounds, burning);
	return pdf.save();
}

/** The pages of a picture that no browser opens, as the server draws them, as far as they carry marks. */
async function pagesOfServer(pdf: PDFDocument, url: string, marks: readonly Mark[]) {
	const never = new AbortController().signal;
	const shown = await readShown(url, never);
	if (shown.kind !== 'pages') throw new Error('This picture cannot be copied with its marks.');
	const grounds: (Ground | undefined)[] = [];
	for (const number of markedPages(marks, shown.pages.length)) {
		const { width, height } = shown.pages[number - 1]!;
		const image = await readPage(url, number, width, never);
		const canvas = new OffscreenCanvas(image.naturalWidth, image.naturalHeight);
		canvas.getContext('2d')!.drawImage(image, 0, 0);
		URL.revokeObjectURL(image.src);
		grounds[number - 1] = await pictureGround(pdf, { bytes: await png(canvas), width, height });
	}
	return grounds;
}

async function picture(bytes: ArrayBuffer, mediaType: string) {
	const image = await createImageBitmap(new Blob([bytes], { type: mediaType })).catch(() => {
		throw new Error('This picture cannot be copied with its marks.');
	});
	const { width, height } = image;
	const canvas = new OffscreenCanvas(width, height);
	canvas.getContext('2d')!.drawImage(image, 0, 0);
	return { bytes: await png(canvas), width, height };
}

/** The pages of a drawing that carry marks, at their own numbers. */
async function drawings(pdf: PDFDocument, bytes: ArrayBuffer, marks: readonly Mark[]) {
	const reading = new AbortController();
	try {
		const drawing = await readDrawing(bytes, reading.signal);
		const grounds: (Ground | undefined)[] = [];
		for (const number of markedPages(marks, drawing.names.length))
			grounds[number - 1] = await drawingGround(pdf, ...(await drawn(await drawing.page(number))));
		return grounds;
	} finally {
		reading.abort();
	}
}

async function drawn(page: Sheet) {
	const sheet = new DrawnSheet(page);
	const pixels = DRAWING_PIXELS / Math.max(sheet.width, sheet.height);
	const canvas = new OffscreenCanvas(Math.ceil(sheet.width * pixels), Math.ceil(sheet.height * pixels));
	const context = canvas.getContext('2d') as unknown as CanvasRenderingContext2D;
	context.fillStyle = GROUNDS.light.paper;
	context.fillRect(0, 0, canvas.width, canvas.height);
	const place = {
		x: 0,
		y: 0,
		scale: pixels,
		ratio: 1,
		width: canvas.width,
		height: canvas.height,
		thinnest: 2
	};
	sheet.draw(
		context,
		place,
		page.layers.map((l) => l.visible),
		'light'
	);
	return [await png(canvas), page] as const;
}

async function png(canvas: OffscreenCanvas): Promise<ArrayBuffer> {
	return (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer();
}
