import type { PDFDocument, PDFEmbeddedPage } from '@cantoo/pdf-lib';

/** A place to cloud, in pixels of the picture, with what happened there. */
export interface CloudedPlace {
	x: number;
	y: number;
	w: number;
	h: number;
	words: string;
}

/** The bulges of a revision cloud around a box, as an SVG path with y downward. */
function cloudPath(x: number, y: number, w: number, h: number, bulge: number): string {
	const arcs: string[] = [`M ${x} ${y}`];
	const side = (dx: number, dy: number, length: number) => {
		const n = Math.max(1, Math.round(length / bulge));
		const r = length / n / 2;
		for (let i = 0; i < n; i++)
			arcs.push(`a ${r * 1.05} ${r * 1.05} 0 0 1 ${(dx * length) / n} ${(dy * length) / n}`);
	};
	side(1, 0, w);
	side(0, 1, h);
	side(-1, 0, w);
	side(0, -1, h);
	return arcs.join(' ');
}

/** A page of a PDF that a sheet was drawn from. */
export interface SourcePage {
	bytes: ArrayBuffer;
	/** Counted from one. */
	page: number;
}

/** Points of a pixel of a sheet that was drawn at 150 dpi. */
const POINTS = 72 / 150;

/**
 * The newer sheet as a PDF with a numbered cloud around every changed place, and a last page that lists them.
 * @param picture the sheet as compared, in pixels
 * @param source the page it was drawn from: its lines stay lines. A picture of the sheet stands in for any other kind,
 * and for pages that are turned, cut or locked.
 */
export async function cloudedPdf(
	picture: HTMLCanvasElement | ImageBitmap,
	places: CloudedPlace[],
	heading: string,
	source: SourcePage | null = null
): Promise<Uint8Array> {
	const { PDFDocument, StandardFonts, rgb } = await import('@cantoo/pdf-lib');
	const pdf = await PDFDocument.create();
	pdf.setTitle(heading);
	const original = source && (await embedded(pdf, source).catch(() => null));
	const scale = original ? original.width / picture.width : POINTS;
	const [width, height] = [picture.width * scale, picture.height * scale];
	const page = pdf.addPage([width, height]);
	if (original) page.drawPage(original, { x: 0, y: height - original.height });
	else {
		const png = await pdf.embedPng(await pngOf(picture));
		page.drawImage(png, { x: 0, y: 0, width, height });
	}
	const font = await pdf.embedFont(StandardFonts.HelveticaBold);
	const plain = await pdf.embedFont(StandardFonts.Helvetica);
	const red = rgb(0.7, 0.19, 0.12);
	const ink = rgb(0.09, 0.14, 0.12);
	const size = Math.max(7, Math.min(width, height) / 70);
	places.forEach((place, i) => {
		const margin = size * 0.8;
		const [x, y] = [place.x * scale - margin, place.y * scale - margin];
		const [w, h] = [place.w * scale + 2 * margin, place.h * scale + 2 * margin];
		page.drawSvgPath(cloudPath(x, y, w, h, size * 1.4), {
			x: 0,
			y: height,
			borderColor: red,
			borderWidth: size / 9
		});
		page.drawText(String(i + 1), {
			x: x + w + size * 0.5,
			y: height - y - size * 0.2,
			size,
			font,
			color: red
		});
	});
	const [across, down] = [595, 842];
	let list = pdf.addPage([across, down]);
	let at = down - 60;
	list.drawText(heading, { x: 50, y: at, size: 13, font, color: ink });
	at -= 28;
	places.forEach((place, i) => {
		if (at < 50) {
			list = pdf.addPage([across, down]);
			at = down - 60;
		}
		list.drawText(`${i + 1}`, { x: 50, y: at, size: 10, font, color: red });
		list.drawText(place.words, { x: 84, y: at, size: 10, font: plain, color: ink });
		at -= 16;
	});
	return pdf.save();
}

/** A page of another PDF to be drawn in this one; null when it is turned or cut, for then it lies elsewhere. */
async function embedded(pdf: PDFDocument, { bytes, page }: SourcePage): Promise<PDFEmbeddedPage | null> {
	const { PDFDocument } = await import('@cantoo/pdf-lib');
	const from = await PDFDocument.load(bytes);
	const original = from.getPage(page - 1);
	const { x, y, width, height } = original.getMediaBox();
	const crop = original.getCropBox();
	const whole = crop.x === x && crop.y === y && crop.width === width && crop.height === height;
	if (!whole || original.getRotation().angle % 360 !== 0) return null;
	return pdf.embedPage(original);
}

async function pngOf(picture: HTMLCanvasElement | ImageBitmap): Promise<ArrayBuffer> {
	const canvas = document.createElement('canvas');
	canvas.width = picture.width;
	canvas.height = picture.height;
	canvas.getContext('2d')!.drawImage(picture, 0, 0);
	const blob = await new Promise<Blob>((done) => canvas.toBlob((b) => done(b!), 'image/png'));
	return blob.arrayBuffer();
}
