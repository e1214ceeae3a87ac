import type { ViewPort } from '../viewers/view-port.svelte';

/** A place of a comparison as it is flagged, in pixels of the first sheet. */
export interface Flagged {
	x: number;
	y: number;
	w: number;
	h: number;
}

const INK = '#17231f';
const LOCK = '#b86e00';
const ACT = '#0b6b58';

/** Draws a whole sheet where the view port has it. */
export function drawPicture(
	context: CanvasRenderingContext2D,
	port: ViewPort,
	source: HTMLCanvasElement | ImageBitmap
): void {
	context.fillStyle = '#fff';
	context.fillRect(port.x, port.y, port.sheetWidth * port.scale, port.sheetHeight * port.scale);
	context.imageSmoothingEnabled = port.scale < 2;
	context.imageSmoothingQuality = 'high';
	context.drawImage(source, port.x, port.y, source.width * port.scale, source.height * port.scale);
}

/** Draws one sheet left of a line and the other right of it. */
export function drawDivided(
	context: CanvasRenderingContext2D,
	port: ViewPort,
	before: HTMLCanvasElement | ImageBitmap,
	after: HTMLCanvasElement | ImageBitmap,
	divide: number
): void {
	drawPicture(context, port, after);
	context.save();
	context.beginPath();
	context.rect(0, 0, port.width * divide, port.height);
	context.clip();
	context.fillStyle = '#dbe3dd';
	context.fillRect(0, 0, port.width, port.height);
	drawPicture(context, port, before);
	context.restore();
}

/** Draws a numbered frame around every place that is in sight. */
export function drawFlags<Place extends Flagged>(
	context: CanvasRenderingContext2D,
	port: ViewPort,
	places: readonly Place[],
	current: number,
	here: (place: Place) => boolean
): void {
	label(context);
	places.forEach((p, i) => {
		if (!here(p)) return;
		const gap = 6;
		const [x, y] = [port.x + p.x * port.scale - gap, port.y + p.y * port.scale - gap];
		const [w, h] = [p.w * port.scale + 2 * gap, p.h * port.scale + 2 * gap];
		if (x > port.width || y > port.height || x + w < 0 || y + h < 0) return;
		const mine = i === current;
		context.strokeStyle = mine ? LOCK : INK;
		context.lineWidth = mine ? 2.5 : 1;
		context.setLineDash(mine ? [] : [4, 3]);
		context.strokeRect(x, y, w, h);
		const flag = String(i + 1);
		const width = 8 + flag.length * 7;
		context.fillStyle = mine ? LOCK : INK;
		context.fillRect(x + w - width / 2, y - 9, width, 16);
		context.fillStyle = '#fff';
		context.fillText(flag, x + w, y + 3);
	});
	context.setLineDash([]);
}

/** Draws the places that were marked by hand, as numbered crosses. */
export function drawMarks(
	context: CanvasRenderingContext2D,
	port: ViewPort,
	marks: readonly (readonly [number, number])[]
): void {
	label(context);
	context.strokeStyle = ACT;
	context.fillStyle = ACT;
	context.lineWidth = 2;
	marks.forEach(([px, py], i) => {
		const [x, y] = [port.x + px * port.scale, port.y + py * port.scale];
		context.beginPath();
		context.moveTo(x - 9, y);
		context.lineTo(x + 9, y);
		context.moveTo(x, y - 9);
		context.lineTo(x, y + 9);
		context.stroke();
		context.fillText(String(i + 1), x + 12, y - 6);
	});
}

function label(context: CanvasRenderingContext2D): void {
	context.font = "600 11px 'Sometype Mono Variable', monospace";
	context.textAlign = 'center';
}
