import type { PDFDocument, PDFFont, PDFPage } from '@cantoo/pdf-lib';
import { pageMatrix, type Matrix } from './annotations';
import { dashOf, lookOf } from './look';
import type { Mark, Point, Scale } from './mark';
import { markBox, piecesOf } from './shape';

type Lib = typeof import('@cantoo/pdf-lib');

/** The marks of a version, to be burned into a copy of it. */
export interface Burning {
	marks: Mark[];
	/** Scales by page. */
	scales: ReadonlyMap<number, Scale>;
	/** Codes of the project's departments, in their order. */
	codes: string[];
}

/** A page that marks are drawn on: from the coordinates of the view (y down) to those of the page. */
export interface Ground {
	page: PDFPage;
	toPage: Matrix;
	inView: (p: Point) => Point;
	/** Longer side of the sheet in its own units. */
	across: number;
	unit: string;
}

/** Points in a pixel of a picture at 150 dpi. */
const POINTS = 72 / 150;
/** Longer side of a drawing's page in points (A1). */
const DRAWING_POINTS = 2384;

/** A page of a PDF as it is seen: cut to its crop box and turned. */
export function pdfGround(page: PDFPage): Ground {
	const { x, y, width: w, height: h } = page.getCropBox();
	const toPage = pageMatrix({ x, y, w, h }, page.getRotation().angle);
	return { page, toPage, inView: (p) => p, across: Math.max(w, h), unit: 'pt' };
}

/** A page that is a picture, given as PNG or JPEG with its size in pixels. */
export async function pictureGround(
	pdf: PDFDocument,
	picture: { bytes: Uint8Array | ArrayBuffer; width: number; height: number }
): Promise<Ground> {
	const { width, height } = picture;
	const page = pdf.addPage([width * POINTS, height * POINTS]);
	page.drawImage(await pdf.embedPng(picture.bytes), { width: width * POINTS, height: height * POINTS });
	return {
		page,
		toPage: [POINTS, 0, 0, -POINTS, 0, height * POINTS],
		inView: (p) => p,
		across: Math.max(width, height),
		unit: 'px'
	};
}

/** A page that is a drawing, given as a PNG of its whole extent, with that extent and its unit. */
export async function drawingGround(
	pdf: PDFDocument,
	png: Uint8Array | ArrayBuffer,
	{ box, unit }: { box: readonly [number, number, number, number]; unit: string }
): Promise<Ground> {
	const [left, bottom, right, top] = box;
	const across = Math.max(right - left, top - bottom);
	const k = DRAWING_POINTS / across;
	const [w, h] = [(right - left) * k, (top - bottom) * k];
	const page = pdf.addPage([w, h]);
	page.drawImage(await pdf.embedPng(png), { width: w, height: h });
	return {
		page,
		toPage: [k, 0, 0, -k, 0, h],
		inView: (p) => ({ x: p.x - left, y: top - p.y }),
		across,
		unit
	};
}

/** Numbers of the pages, out of so many, that a copy of a drawing shows: those with marks, and the first when none has. */
export function markedPages(marks: readonly Mark[], pages: number): number[] {
	const marked = new Set(marks.map((m) => m.page).filter((n) => n >= 1 && n <= pages));
	return marked.size ? [...marked].sort((a, b) => a - b) : [1];
}

/**
 * Draws marks onto the pages of a copy, in their order.
 * @param grounds by page, from the first on; what stands on a page that is not there is left out
 */
export async function burn(
	lib: Lib,
	pdf: PDFDocument,
	grounds: readonly (Ground | undefined)[],
	burning: Burning
): Promise<void> {
	const font = await pdf.embedFont(lib.StandardFonts.HelveticaBold);
	for (const mark of [...burning.marks].sort((a, b) => a.order - b.order)) {
		const ground = grounds[mark.page - 1];
		if (ground) drawMark(lib, ground, mark, burning, font);
	}
}

function drawMark(
	lib: Lib,
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
function turned(lib: Lib, degrees: number, x: number, y: number) {
	if (!degrees) return [];
	const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
	return [lib.concatTransformationMatrix(c, s, -s, c, x - c * x + s * y, y - s * x - c * y)];
}

/** Words in the letters that every reader has; others become a question mark. */
function writable(font: PDFFont, text: string): string {
	const known = new Set(font.getCharacterSet());
	return [...text].map((letter) => (known.has(letter.codePointAt(0)!) ? letter : '?')).join('');
}
