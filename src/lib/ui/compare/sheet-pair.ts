import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { DrawingChange } from '../../core/compare/drawings';
import type { Mask } from '../../core/compare/mask';
import type { Sheet } from '../../core/dxf/sheet';
import { familyOf } from '../../core/files/kinds';
import { withoutLock } from '../../formats/pdf/attachments-locked';
import { openPdf } from '../viewers/pdf';
import { readPage, readShown, type FileToShow } from '../viewers/shown';
import { DrawnDrawing } from './drawn-drawing';

type Box = Sheet['box'];

/** One of the two files to compare. */
export type Side = FileToShow;

/** A rendered sheet. */
type Picture = HTMLCanvasElement | ImageBitmap;

/** Two sheets rendered at one resolution. */
export interface RenderedPair {
	before: Picture;
	after: Picture;
	/** Their ink, where it is known already. */
	ink: { before: Mask | null; after: Mask | null };
	/** Where a box of drawing units (left, bottom, right, top) lies in pixels; null unless both are drawings. */
	inPixels: ((box: Box) => { x: number; y: number; w: number; h: number }) | null;
}

/** Resolution at which sheets are compared, in dots an inch, and the most pixels of one. */
const DPI = 150;
const MOST_PIXELS = 24e6;
/** Pixels along the longer side of a drawing, which has no paper size of its own. */
const DRAWING_PIXELS = 4_400;
/** White around a drawing, in pixels. */
const EDGE = 20;

interface Rendered {
	picture: Picture;
	ink: Mask | null;
}

/** An opened file that can be rendered page by page. */
interface Opened {
	pages: number;
	/** Size of a page in pixels at the resolution of comparing. */
	size(page: number): Promise<{ width: number; height: number }>;
	render(page: number, scale: number): Promise<Rendered>;
	/** The file itself; null for a drawing, and where the reader may only look and pages come drawn from the server. */
	bytes: ArrayBuffer | null;
	/** Of a drawing. */
	drawing?: DrawnDrawing;
	close(): void;
}

function ground(width: number, height: number): [HTMLCanvasElement, CanvasRenderingContext2D] {
	const canvas = document.createElement('canvas');
	canvas.width = Math.max(1, Math.round(width));
	canvas.height = Math.max(1, Math.round(height));
	const context = canvas.getContext('2d', { willReadFrequently: true })!;
	context.fillStyle = '#fff';
	context.fillRect(0, 0, canvas.width, canvas.height);
	return [canvas, context];
}

function openedPdf(pdf: PDFDocumentProxy, bytes: ArrayBuffer, close: () => void): Opened {
	const at = async (page: number) => pdf.getPage(Math.min(page, pdf.numPages));
	return {
		pages: pdf.numPages,
		bytes,
		close,
		async size(page) {
			return (await at(page)).getViewport({ scale: DPI / 72 });
		},
		async render(page, scale) {
			const one = await at(page);
			const viewport = one.getViewport({ scale: (DPI / 72) * scale });
			const [canvas] = ground(viewport.width, viewport.height);
			await one.render({ canvas, viewport, background: '#fff' }).promise;
			return { picture: canvas, ink: null };
		}
	};
}

function openedPicture(image: HTMLImageElement, bytes: ArrayBuffer): Opened {
	const size = { width: image.naturalWidth || 1600, height: image.naturalHeight || 1200 };
	return {
		pages: 1,
		bytes,
		close: () => URL.revokeObjectURL(image.src),
		size: () => Promise.resolve(size),
		render(_, scale) {
			const [canvas, context] = ground(size.width * scale, size.height * scale);
			context.drawImage(image, 0, 0, canvas.width, canvas.height);
			return Promise.resolve({ picture: canvas, ink: null });
		}
	};
}

/** Pixels of a drawing unit at full size, and the size of what a box encloses. */
function sizeOf([left, bottom, right, top]: Box): { unit: number; width: number; height: number } {
	const unit = DRAWING_PIXELS / Math.max(right - left, top - bottom);
	return { unit, width: (right - left) * unit + 2 * EDGE, height: (top - bottom) * unit + 2 * EDGE };
}

function openedDrawing(drawing: DrawnDrawing, close: () => void): Opened {
	const within = (page: number) => Math.min(page, drawing.names.length);
	return {
		pages: drawing.names.length,
		bytes: null,
		drawing,
		close,
		size: async (page) => sizeOf(await drawing.box(within(page))),
		async render(page, scale) {
			const box = await drawing.box(within(page));
			return drawing.draw(within(page), box, { unit: sizeOf(box).unit, edge: EDGE, scale });
		}
	};
}

/** What the server draws, page by page, for those who may look at a file and not take it. */
async function openedMade(url: string, signal: AbortSignal): Promise<Opened> {
	const shown = await readShown(url, signal);
	if (shown.kind !== 'pages') throw new Error('One of the two cannot be compared as a sheet.');
	const at = (page: number) => shown.pages[Math.min(page, shown.pages.length) - 1]!;
	const size = (page: number) => {
		const { width, height } = at(page);
		const k =
			shown.unit === 'pt' ? DPI / 72 : shown.unit === 'px' ? 1 : DRAWING_PIXELS / Math.max(width, height);
		return { width: width * k, height: height * k };
	};
	return {
		pages: shown.pages.length,
		bytes: null,
		close: () => {},
		size: (page) => Promise.resolve(size(page)),
		async render(page, scale) {
			const { width, height } = size(page);
			const [canvas, context] = ground(width * scale, height * scale);
			const number = Math.min(page, shown.pages.length);
			const image = await readPage(url, number, Math.ceil(canvas.width), signal);
			context.drawImage(image, 0, 0, canvas.width, canvas.height);
			URL.revokeObjectURL(image.src);
			return { picture: canvas, ink: null };
		}
	};
}

async function fetched({ url }: Side, signal: AbortSignal): Promise<ArrayBuffer> {
	const response = await fetch(url, { signal });
	if (!response.ok) throw new Error('One of the two files could not be fetched.');
	return response.arrayBuffer();
}

async function open(side: Side, signal: AbortSignal): Promise<Opened> {
	const { url, mediaType, made } = side;
	// Who may only look gets pages that the server draws.
	if (made) return openedMade(url, signal);
	const family = familyOf(mediaType);
	if (family === 'drawing') {
		const reading = new AbortController();
		const close = () => reading.abort();
		signal.addEventListener('abort', close);
		return openedDrawing(await DrawnDrawing.open(fetched(side, signal), reading.signal), close);
	}
	const bytes = await fetched(side, signal);
	if (family === 'pdf') {
		const data = new Uint8Array(bytes.slice(0));
		const loading = await openPdf({ data: withoutLock(data) ?? data });
		const close = () => void loading.destroy();
		signal.addEventListener('abort', close);
		try {
			return openedPdf(await loading.promise, bytes, close);
		} catch (error) {
			throw new Error(
				(error as Error).name === 'PasswordException'
					? 'One of the two is locked with a password and cannot be compared.'
					: 'One of the two is damaged and cannot be compared.',
				{ cause: error }
			);
		}
	}
	const image = new Image();
	image.src = URL.createObjectURL(new Blob([bytes], { type: mediaType }));
	await image.decode().catch(() => {
		throw new Error('One of the two pictures is damaged and cannot be compared.');
	});
	return openedPicture(image, bytes);
}

/** A page of a drawing, and what of it there is. */
interface DrawingPage {
	drawing: DrawnDrawing;
	page: number;
	box: Box;
}

const pairOf = (before: Rendered, after: Rendered, inPixels: RenderedPair['inPixels']): RenderedPair => ({
	before: before.picture,
	after: after.picture,
	ink: { before: before.ink, after: after.ink },
	inPixels
});

/** Waits until what just came can have been painted; not for long where nobody looks. */
const seen = () =>
	new Promise<void>((done) => {
		requestAnimationFrame(() => setTimeout(done));
		setTimeout(done, 100);
	});

const sameName = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();

/** What brings the larger of some sizes within the pixels that are compared. */
const scaleFor = (sizes: { width: number; height: number }[]) =>
	Math.min(1, ...sizes.map((s) => Math.sqrt(MOST_PIXELS / (s.width * s.height))));

/** Two opened files, rendered page by page at one resolution. */
export class SheetPair {
	/** What differs between two drawings, item by item; null unless both are. */
	readonly changes: Promise<DrawingChange[]> | null;

	private constructor(
		readonly before: Opened,
		readonly after: Opened
	) {
		const [older, newer] = [before.drawing, after.drawing];
		this.changes = older && newer ? newer.changesFrom(older) : null;
		// Whoever asks for them is told; nobody has to.
		this.changes?.catch(() => {});
	}

	/** Raises an Error whose message is a sentence when one of the two cannot be opened. */
	static async open(before: Side, after: Side, signal: AbortSignal): Promise<SheetPair> {
		return new SheetPair(...(await Promise.all([open(before, signal), open(after, signal)])));
	}

	/** What the pages of two drawings are called, those of the newer first; null unless both are drawings. */
	get names(): string[] | null {
		const [before, after] = [this.before.drawing?.names, this.after.drawing?.names];
		if (!before || !after) return null;
		return [...after, ...before.filter((name) => !after.some((other) => sameName(name, other)))];
	}

	/** The page of one of two drawings that has the name of a page of both; null where it has none. */
	private async pageOf(side: Opened, page: number): Promise<DrawingPage | null> {
		const drawing = side.drawing!;
		const name = this.names![page - 1]!;
		const at = drawing.names.findIndex((own) => sameName(own, name));
		return at < 0 ? null : { drawing, page: at + 1, box: await drawing.box(at + 1) };
	}

	get pages(): number {
		return this.names?.length ?? Math.max(this.before.pages, this.after.pages);
	}

	async render(page: number): Promise<RenderedPair> {
		if (this.names) return this.renderDrawings(page);
		const sizes = await Promise.all([this.before.size(page), this.after.size(page)]);
		const scale = scaleFor(sizes);
		// Of two kinds, the second is brought to the width of the first.
		const same = Boolean(this.before.drawing) === Boolean(this.after.drawing);
		const fit = same ? 1 : sizes[0]!.width / sizes[1]!.width;
		const before = await this.before.render(page, scale);
		const after = await this.after.render(page, scale * fit);
		return pairOf(before, after, null);
	}

	/** Drawings share their units: one box around both needs no aligning. What one has not is blank. */
	private async renderDrawings(page: number): Promise<RenderedPair> {
		// The same workers draw: the list is there at once, and pictures take no longer. It is seen before they take all
		// that the machine can do.
		await this.changes?.then(seen, () => {});
		const [a, b] = await Promise.all([this.pageOf(this.before, page), this.pageOf(this.after, page)]);
		const [p, q] = [(a ?? b)!.box, (b ?? a)!.box];
		const box: Box = [Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[2], q[2]), Math.max(p[3], q[3])];
		const { unit, width, height } = sizeOf(box);
		const scale = scaleFor([{ width, height }]);
		const drawn = (side: DrawingPage | null) =>
			side
				? side.drawing.draw(side.page, box, { unit, edge: EDGE, scale })
				: { picture: ground(width * scale, height * scale)[0], ink: null };
		const [before, after] = await Promise.all([drawn(a), drawn(b)]);
		const [left, , , top] = box;
		const k = unit * scale;
		return pairOf(before, after, ([l, low, r, t]) => ({
			x: EDGE * scale + (l - left) * k,
			y: EDGE * scale + (top - t) * k,
			w: (r - l) * k,
			h: (t - low) * k
		}));
	}

	close(): void {
		this.before.close();
		this.after.close();
	}
}
