import type { PDFDocument, PDFFont, PDFPage } from '@cantoo/pdf-lib';
import { pageMatrix, type Matrix } from '../../core/markup/annotations';
import type { Mark, Point, Scale } from '../../core/markup/mark';
import { markBox, piecesOf } from '../../core/markup/shape';
import { DrawnSheet, GROUNDS } from '../draw-sheet';
import { readDrawing } from '../read-drawing';
import { dashOf, lookOf } from './look';

/** What is burned into a copy. */
export interface Burning {
	bytes: ArrayBuffer;
	mediaType: string;
	marks: Mark[];
	scales: ReadonlyMap<number, Scale>;
	/** Codes of the project's departments, in their order. */
	codes: string[];
	title: string;
}

/** A page that marks are drawn on: from the coordinates of the view (y down) to those of the page. */
interface Ground {
	page: PDFPage;
	toPage: Matrix;
	inView: (p: Point) => Point;
	/** Longer side of the sheet in its own units. */
	across: number;
	unit: string;
}

/** Points in a pixel of a picture at 150 dpi. */
const POINTS = 72 / 150;
/** Longer side of a drawing's page in points (A1) and of its picture in pixels. */
const DRAWING_POINTS = 2384;
const DRAWING_PIXELS = 5_000;

/**
 * A copy of a sheet as PDF with marks burned in; the original stays as it is. A PDF keeps its own pages, a picture or
 * drawing becomes one. Raises an Error whose message is a sentence when the file cannot be copied so.
 */
export async function burnedPdf(burning: Burning): Promise<Uint8Array> {
	const lib = await import('@cantoo/pdf-lib');
	const { bytes, mediaType, marks, title } = burning;
	const pdf =
		mediaType === 'application/pdf'
			? await lib.PDFDocument.load(bytes).catch(() => {
					throw new Error('This PDF is locked or damaged; marks cannot be burned into a copy.');
				})
			: await lib.PDFDocument.create();
	pdf.setTitle(title);
	const grounds =
		mediaType === 'application/pdf'
			? pdf.getPages().map(pdfGround)
			: [
					mediaType === 'image/vnd.dxf'
						? await drawingGround(pdf, bytes)
						: await pictureGround(pdf, bytes, mediaType)
				];
	const font = await pdf.embedFont(lib.StandardFonts.HelveticaBold);
	for (const mark of [...marks].sort((a, b) => a.order - b.order)) {
		const ground = grounds[mark.page - 1];
		if (ground) drawMark(lib, ground, mark, burning, font);
	}
	return pdf.save();
}

/** A page of a PDF as it is seen: cut to its crop box and turned. */
function pdfGround(page: PDFPage): Ground {
	const { x, y, width: w, height: h } = page.getCropBox();
	const toPage = pageMatrix({ x, y, w, h }, page.getRotation().angle);
	return { page, toPage, inView: (p) => p, across: Math.max(w, h), unit: 'pt' };
}

async function pictureGround(pdf: PDFDocument, bytes: ArrayBuffer, mediaType: string): Promise<Ground> {
	const image = await createImageBitmap(new Blob([bytes], { type: mediaType })).catch(() => {
		throw new Error('This picture cannot be copied with its marks.');
	});
	const { width, height } = image;
	const canvas = new OffscreenCanvas(width, height);
	canvas.getContext('2d')!.drawImage(image, 0, 0);
	const page = pdf.addPage([width * POINTS, height * POINTS]);
	page.drawImage(await pdf.embedPng(await png(canvas)), { width: width * POINTS, height: height * POINTS });
	return {
		page,
		toPage: [POINTS, 0, 0, -POINTS, 0, height * POINTS],
		inView: (p) => p,
		across: Math.max(width, height),
		unit: 'px'
	};
}

async function drawingGround(pdf: PDFDocument, bytes: ArrayBuffer): Promise<Ground> {
	const { model } = await readDrawing(bytes, new AbortController().signal);
	const drawn = new DrawnSheet(model);
	const across = Math.max(drawn.width, drawn.height);
	const pixels = DRAWING_PIXELS / across;
	const canvas = new OffscreenCanvas(Math.ceil(drawn.width * pixels), Math.ceil(drawn.height * pixels));
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
	drawn.draw(
		context,
		place,
		model.layers.map((l) => l.visible),
		'light'
	);
	const k = DRAWING_POINTS / across;
	const [w, h] = [drawn.width * k, drawn.height * k];
	const page = pdf.addPage([w, h]);
	page.drawImage(await pdf.embedPng(await png(canvas)), { width: w, height: h });
	const [left, , , top] = model.box;
	return {
		page,
		toPage: [k, 0, 0, -k, 0, h],
		inView: (p) => ({ x: p.x - left, y: top - p.y }),
		across,
		unit: model.unit
	};
}

async function png(canvas: OffscreenCanvas): Promise<ArrayBuffer> {
	return (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer();
}

function drawMark(
	lib: typeof import('@cantoo/pdf-lib'),
	{ page, toPage, inView, across, unit }: Ground,
	mark: Mark,
	{ scales, codes }: Burning,
	font: PDFFont
): void {
	const points = mark.points.map(inView);
	const look = lookOf(mark.layer, codes);
	const [r, g, b] = [1, 3, 5].map((i) => parseInt(look.colour.slice(i, i + 2), 16) / 255);
	const colour = lib.rgb(r!, g!, b!);
	const width = across / 460;
	const box = markBox(mark, points);
	page.pushOperators(
		lib.pushGraphicsState(),
		lib.concatTransformationMatrix(...toPage),
		...turned(lib, mark.turn, box.x + box.w / 2, box.y + box.h / 2),
		// The library draws with y upward; within the view it is turned over once more.
		lib.concatTransformationMatrix(1, 0, 0, -1, 0, 0)
	);
	for (const piece of piecesOf(mark, points, scales.get(mark.page) ?? null, unit)) {
		if (piece.kind === 'words') {
			piece.lines.forEach((line, i) => {
				const text = writable(font, line);
				const shift = piece.middle ? font.widthOfTextAtSize(text, piece.size) / 2 : 0;
				page.drawText(text, {
					x: piece.x - shift,
					y: -(piece.y + i * piece.size * 1.3),
					size: piece.size,
					font,
					color: colour
				});
			});
			continue;
		}
		const dash = piece.filled || piece.plain ? undefined : dashOf(look, width)?.split(' ').map(Number);
		page.drawSvgPath(piece.d, {
			x: 0,
			y: 0,
			borderColor: colour,
			borderWidth: piece.plain ? mark.size * 1.2 : width,
			borderOpacity: piece.plain ? 0.32 : 1,
			...(piece.plain ? { borderLineCap: lib.LineCapStyle.Round } : {}),
			...(dash ? { borderDashArray: dash } : {}),
			...(piece.filled || piece.wash ? { color: colour, opacity: piece.filled ? 1 : 0.07 } : {})
		});
	}
	page.pushOperators(lib.popGraphicsState());
}

/** Turns what follows about a place of the view, clockwise as seen. */
function turned(lib: typeof import('@cantoo/pdf-lib'), degrees: number, x: number, y: number) {
	if (!degrees) return [];
	const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
	return [lib.concatTransformationMatrix(c, s, -s, c, x - c * x + s * y, y - s * x - c * y)];
}

/** Words in the letters that every reader has; others become a question mark. */
function writable(font: PDFFont, text: string): string {
	const known = new Set(font.getCharacterSet());
	return [...text].map((letter) => (known.has(letter.codePointAt(0)!) ? letter : '?')).join('');
}
