import { LETTER_SIZE } from '../../core/dxf/letters';
import { isDot, type Fill, type Sheet, type Stroke } from '../../core/dxf/sheet';

/** Strokes of one look together, as one path from the top left of the sheet, y downward, in drawing units. */
interface Batch {
	layer: number;
	colour: number;
	weight: number;
	wide: number;
	dot: boolean;
	dash: number[];
	strokes: Stroke[];
	/** Made anew when something of it is hidden or shown. */
	paths: Path2D[] | null;
}

/** Most lines of one path: a canvas takes far longer for one of thousands than for many of some. */
const MOST_JOINED = 100;

/** Where a sheet goes on a canvas: pixel = (drawing unit from its top left) × scale × ratio + (x, y) × ratio. */
export interface SheetPlace {
	x: number;
	y: number;
	scale: number;
	ratio: number;
	/** Thinnest line in pixels; more where the picture will be shown smaller. */
	thinnest?: number;
	/** Size of the ground in CSS pixels; texts outside are not drawn. */
	width: number;
	height: number;
}

/** Colours a drawing is drawn in on a light and on a dark ground. */
export const GROUNDS = {
	light: { paper: '#ffffff', ink: '#17231f' },
	dark: { paper: '#10201b', ink: '#e6ece8' }
} as const;
export type Ground = keyof typeof GROUNDS;

/** A flattened drawing, ready to be drawn again and again. */
export class DrawnSheet {
	private readonly batches: Batch[];
	private hidden: ReadonlySet<number> = new Set();

	/**
	 * @param box what the sheet's upper left corner is taken from; its own when left out
	 * @param detail drawing units within which points of a line fall together, where it is drawn at one scale only
	 */
	constructor(
		readonly sheet: Sheet,
		private readonly box: Sheet['box'] = sheet.box,
		private readonly detail = 0
	) {
		const byLook = new Map<string, Batch>();
		for (const s of sheet.strokes) {
			const dot = isDot(s.points);
			const key = `${s.layer}|${s.colour}|${s.weight}|${s.wide}|${dot}|${s.dash.join()}`;
			let batch = byLook.get(key);
			if (!batch) {
				const { layer, colour, weight, wide, dash } = s;
				batch = { layer, colour, weight, wide, dot, dash, strokes: [], paths: null };
				byLook.set(key, batch);
			}
			batch.strokes.push(s);
		}
		this.batches = [...byLook.values()];
	}

	/** Hides entities that are drawn elsewhere, or not at all any more. */
	hide(entities: ReadonlySet<number>): void {
		const different = new Set([...entities].filter((of) => !this.hidden.has(of)));
		for (const of of this.hidden) if (!entities.has(of)) different.add(of);
		this.hidden = entities;
		if (!different.size) return;
		for (const batch of this.batches)
			if (batch.paths && batch.strokes.some((s) => different.has(s.of))) batch.paths = null;
	}

	private pathsOf(batch: Batch): Path2D[] {
		if (batch.paths) return batch.paths;
		const [left, , , top] = this.box;
		const paths: Path2D[] = [];
		let path = new Path2D();
		let joined = MOST_JOINED;
		for (const { points, of } of batch.strokes) {
			if (this.hidden.has(of)) continue;
			if (joined++ === MOST_JOINED) {
				paths.push((path = new Path2D()));
				joined = 1;
			}
			let [x, y] = [points[0]!, points[1]!];
			path.moveTo(x - left, top - y);
			const last = points.length - 2;
			for (let i = 2; i <= last; i += 2) {
				const [nextX, nextY] = [points[i]!, points[i + 1]!];
				if (i < last && Math.abs(nextX - x) + Math.abs(nextY - y) < this.detail) continue;
				[x, y] = [nextX, nextY];
				path.lineTo(x - left, top - y);
			}
		}
		return (batch.paths = paths);
	}

	get width(): number {
		return this.box[2] - this.box[0];
	}
	get height(): number {
		return this.box[3] - this.box[1];
	}

	private gradient(
		context: CanvasRenderingContext2D,
		{ way, ends, colours }: NonNullable<Fill['gradient']>,
		ground: Ground
	): CanvasGradient {
		const [left, , , top] = this.box;
		const [x1, y1, x2, y2] = [ends[0]! - left, top - ends[1]!, ends[2]! - left, top - ends[3]!];
		const made =
			way === 'along'
				? context.createLinearGradient(x1, y1, x2, y2)
				: context.createRadialGradient(x1, y1, 0, x1, y1, Math.hypot(x2 - x1, y2 - y1));
		colours.forEach((c, i) => made.addColorStop(i / (colours.length - 1), colourOn(ground, c)));
		return made;
	}

	/**
	 * Draws the layers that are on.
	 * @param on whether each layer is shown, by its index
	 */
	draw(context: CanvasRenderingContext2D, at: SheetPlace, on: boolean[], ground: Ground = 'light'): void {
		const { sheet } = this;
		const { ratio, scale } = at;
		const k = scale * ratio;
		const [left, , , top] = this.box;
		const css = (colour: number) => colourOn(ground, colour);
		const place = () => context.setTransform(k, 0, 0, k, at.x * ratio, at.y * ratio);
		for (const f of sheet.fills) {
			if (!on[f.layer] || this.hidden.has(f.of)) continue;
			place();
			context.fillStyle = f.gradient ? this.gradient(context, f.gradient, ground) : css(f.colour);
			const path = new Path2D();
			for (const loop of f.loops) {
				path.moveTo(loop[0]! - left, top - loop[1]!);
				for (let i = 2; i < loop.length; i += 2) path.lineTo(loop[i]! - left, top - loop[i + 1]!);
			}
			context.fill(path, 'evenodd');
		}
		place();
		for (const b of this.batches) {
			if (!on[b.layer]) continue;
			context.strokeStyle = css(b.colour);
			context.lineWidth = Math.max(Math.max(at.thinnest ?? 0.8, b.weight * 3.2) / scale, b.wide);
			context.lineJoin = b.wide ? 'miter' : 'round';
			context.lineCap = b.dot ? 'round' : 'butt';
			context.setLineDash(
				b.dash.some((d) => d * scale > 1.5) ? b.dash.map((d) => Math.max(d, 0.5 / scale)) : []
			);
			for (const path of this.pathsOf(b)) context.stroke(path);
		}
		context.setLineDash([]);
		for (const t of sheet.texts) {
			const size = t.height * scale * LETTER_SIZE;
			if (!on[t.layer] || size < 2.5 || this.hidden.has(t.of)) continue;
			const x = at.x + (t.x - left) * scale;
			const y = at.y + (top - t.y) * scale;
			if (x < -2000 || y < -200 || x > at.width + 2000 || y > at.height + 200) continue;
			context.setTransform(ratio, 0, 0, ratio, x * ratio, y * ratio);
			context.rotate(-t.turn);
			if (t.wide !== 1 || t.slant !== 0) context.transform(t.wide, 0, -Math.tan(t.slant), 1, 0, 0);
			context.font = `${size}px 'Archivo Variable', sans-serif`;
			context.textAlign = t.alignX === 0 ? 'left' : t.alignX === 1 ? 'right' : 'center';
			context.fillStyle = css(t.colour);
			context.fillText(t.text, 0, t.alignY * t.height * scale);
		}
	}
}

/** A drawing's colour as CSS; what would vanish on the ground takes its ink. */
function colourOn(ground: Ground, colour: number): string {
	if (colour < 0) return GROUNDS[ground].ink;
	const light = ((colour >> 16) * 299 + ((colour >> 8) & 255) * 587 + (colour & 255) * 114) / 255_000;
	if (ground === 'dark' ? light < 0.16 : light > 0.94) return GROUNDS[ground].ink;
	return '#' + colour.toString(16).padStart(6, '0');
}
