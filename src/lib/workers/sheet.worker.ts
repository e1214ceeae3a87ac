/** Reads a drawing, compares it with another and draws its pages as pictures, off the main thread. */
import { DrawingSide } from '../core/compare/drawing-side';
import { compareDrawings, type DrawingChange } from '../core/compare/drawings';
import { packMask, type Mask } from '../core/compare/mask';
import { DrawingPages } from '../core/dxf/pages';
import { decodeDxf, DxfError, readDxf } from '../core/dxf/read';
import type { Sheet } from '../core/dxf/sheet';
import { DrawnSheet, GROUNDS } from '../ui/viewers/draw-sheet';
import { answerOn, askedOn } from './drawing-port';

/** Points nearer to each other are drawn as one, in pixels. */
const HALF_A_PIXEL = 0.5;
/** Thinnest line, so that it is seen where the picture is shown smaller. */
const THINNEST = 3;

/**
 * First the bytes and the font of its texts; then what of it differs from an older drawing, which answers at the other
 * end of a port, and extents and pictures of pages by their numbers.
 */
export type SheetRequest =
	| { bytes: ArrayBuffer; font: { family: string; url: string } }
	| { answers: MessagePort }
	| { older: MessagePort }
	| { page: number }
	| ({ draw: number; box: Sheet['box'] } & Drawn);

/** How large a page is drawn. */
export interface Drawn {
	/** Pixels of a drawing unit at full size, and of the white around. */
	unit: number;
	edge: number;
	/** How many times full size the picture is. */
	scale: number;
}

/** A page as a picture, and its ink. */
export interface DrawnPage {
	picture: ImageBitmap;
	ink: Mask;
}
export type SheetAnswer =
	| { names: string[] }
	| { changes: DrawingChange[] }
	| { box: Sheet['box'] }
	| DrawnPage
	| { fault: string };

let pages: DrawingPages | null = null;
let side: DrawingSide | null = null;
/** The font that texts are drawn in; it may come while the drawing is read. */
let font: Promise<unknown> = Promise.resolve();

async function loadFont({ family, url }: { family: string; url: string }): Promise<void> {
	const loaded = await new FontFace(family, `url(${url})`).load().catch(() => null);
	if (loaded) (self as unknown as { fonts: FontFaceSet }).fonts.add(loaded);
}

async function answer(request: Exclude<SheetRequest, { answers: MessagePort }>): Promise<SheetAnswer> {
	if ('bytes' in request) {
		font = loadFont(request.font);
		const drawing = readDxf(decodeDxf(new Uint8Array(request.bytes)));
		[pages, side] = [new DrawingPages(drawing), new DrawingSide(drawing)];
		return { names: pages.names };
	}
	if ('older' in request) return { changes: await compareDrawings(askedOn(request.older), side!) };
	if ('page' in request) return { box: pages!.page(request.page).box };
	await font;
	return draw(request);
}

function draw({ draw, box, unit, edge, scale }: Extract<SheetRequest, { draw: number }>): DrawnPage {
	const sheet = pages!.page(draw);
	const pixels = (length: number) => Math.max(1, Math.round((length * unit + 2 * edge) * scale));
	const canvas = new OffscreenCanvas(pixels(box[2] - box[0]), pixels(box[3] - box[1]));
	const { width, height } = canvas;
	const context = canvas.getContext('2d', { willReadFrequently: true })!;
	context.fillStyle = GROUNDS.light.paper;
	context.fillRect(0, 0, width, height);
	new DrawnSheet(sheet, box, HALF_A_PIXEL / (unit * scale)).draw(
		context as unknown as CanvasRenderingContext2D,
		{
			x: edge * scale,
			y: edge * scale,
			scale: unit * scale,
			ratio: 1,
			thinnest: THINNEST * scale,
			width,
			height
		},
		sheet.layers.map((layer) => layer.visible)
	);
	const ink = packMask(context.getImageData(0, 0, width, height).data, width, height);
	return { picture: canvas.transferToImageBitmap(), ink };
}

self.onmessage = ({ data }: MessageEvent<SheetRequest>) => {
	if ('answers' in data) return answerOn(data.answers, side!);
	void answer(data).then(
		(given) => self.postMessage(given, { transfer: 'picture' in given ? [given.picture] : [] }),
		(error: unknown) =>
			self.postMessage({
				fault: error instanceof DxfError ? error.message : 'One of the two drawings cannot be compared.'
			} satisfies SheetAnswer)
	);
};
