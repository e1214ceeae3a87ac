import type { Sheet } from './sheet';

/** A point of a drawing that a measure holds on to, in drawing units. */
export interface Snap {
	x: number;
	y: number;
	kind: 'end' | 'middle' | 'crossing' | 'square' | 'on';
}

/** Cells along the longer side of the drawing; each holds the pieces of line that touch it. */
const CELLS = 256;
/** Pieces compared with each other near the pointer; more would be slow and tell nothing. */
const MOST_NEAR = 60;

type Segment = readonly [x1: number, y1: number, x2: number, y2: number, layer: number, of: number];

/** Which pieces are shown: by the layer they lie on, and the entity they come from. */
export type Shown = (layer: number, of: number) => boolean;

/** Finds ends, middles, crossings and points on lines near a place of a drawing. */
export class SnapIndex {
	private readonly segments: Segment[] = [];
	private readonly cells = new Map<number, number[]>();
	private readonly size: number;
	private readonly left: number;
	private readonly bottom: number;

	constructor(sheet: Sheet) {
		const [left, bottom, right, top] = sheet.box;
		this.left = left;
		this.bottom = bottom;
		this.size = Math.max(right - left, top - bottom, 1e-9) / CELLS;
		for (const { points, layer, of } of sheet.strokes)
			for (let i = 0; i + 3 < points.length; i += 2)
				this.put([points[i]!, points[i + 1]!, points[i + 2]!, points[i + 3]!, layer, of]);
	}

	private put(segment: Segment): void {
		const at = this.segments.push(segment) - 1;
		const [x1, y1, x2, y2] = segment;
		// One step a cell along the piece finds the cells it touches, with a neighbour too many here and there.
		const steps = Math.min(
			4 * CELLS,
			Math.ceil((2 * Math.max(Math.abs(x2 - x1), Math.abs(y2 - y1))) / this.size)
		);
		let last = -1;
		for (let i = 0; i <= steps; i++) {
			const t = steps ? i / steps : 0;
			const cell = this.cell(x1 + (x2 - x1) * t, y1 + (y2 - y1) * t);
			if (cell === last) continue;
			last = cell;
			const list = this.cells.get(cell);
			if (!list) this.cells.set(cell, [at]);
			else if (list.at(-1) !== at) list.push(at);
		}
	}

	private cell(x: number, y: number): number {
		const clamp = (n: number) => Math.max(-1, Math.min(CELLS, Math.floor(n)));
		return (clamp((y - this.bottom) / this.size) + 1) * (CELLS + 2) + clamp((x - this.left) / this.size) + 1;
	}

	private near(x: number, y: number, reach: number, on: Shown): Segment[] {
		const found = new Set<number>();
		const step = Math.min(this.size, reach) || this.size;
		for (let dx = -reach; dx <= reach + step / 2; dx += step)
			for (let dy = -reach; dy <= reach + step / 2; dy += step)
				for (const at of this.cells.get(this.cell(x + dx, y + dy)) ?? []) found.add(at);
		return [...found]
			.map((at) => this.segments[at]!)
			.filter((s) => on(s[4], s[5]) && distanceTo(s, x, y).distance <= reach)
			.slice(0, MOST_NEAR);
	}

	/**
	 * The point to hold on to near (x, y), or null: ends and crossings first, then middles and the foot of a
	 * perpendicular, then the nearest point of a line.
	 * @param reach how far away it may be, in drawing units
	 * @param on what is shown
	 * @param from the point that one draws from, for perpendiculars
	 */
	nearest(
		x: number,
		y: number,
		reach: number,
		on: Shown = () => true,
		from: { x: number; y: number } | null = null
	): Snap | null {
		const near = this.near(x, y, reach, on);
		const points: (Snap & { far: number })[] = [];
		const offer = (px: number, py: number, kind: Snap['kind'], handicap: number) => {
			const far = Math.hypot(px - x, py - y);
			if (far <= reach) points.push({ x: px, y: py, kind, far: far + handicap * reach });
		};
		near.forEach((segment, i) => {
			const [x1, y1, x2, y2] = segment;
			offer(x1, y1, 'end', 0);
			offer(x2, y2, 'end', 0);
			offer((x1 + x2) / 2, (y1 + y2) / 2, 'middle', 1);
			const on = distanceTo(segment, x, y);
			offer(on.x, on.y, 'on', 2);
			if (from) {
				const foot = distanceTo(segment, from.x, from.y);
				// At its ends a piece is not met at a right angle.
				if (foot.inside) offer(foot.x, foot.y, 'square', 0.5);
			}
			for (const other of near.slice(i + 1)) {
				const crossing = crossingOf(segment, other);
				if (crossing) offer(crossing[0], crossing[1], 'crossing', 0);
			}
		});
		points.sort((a, b) => a.far - b.far);
		const best = points[0];
		return best ? { x: best.x, y: best.y, kind: best.kind } : null;
	}

	/** The entity whose line is nearest to (x, y) within reach, and how far that is; or null. */
	entityAt(
		x: number,
		y: number,
		reach: number,
		on: Shown = () => true
	): { of: number; distance: number } | null {
		let best: { of: number; distance: number } | null = null;
		for (const segment of this.near(x, y, reach, on)) {
			const { distance } = distanceTo(segment, x, y);
			if (!best || distance < best.distance) best = { of: segment[5], distance };
		}
		return best;
	}
}

/** The point of a piece of line nearest to a place, and how far that is. */
function distanceTo([x1, y1, x2, y2]: Segment, x: number, y: number) {
	const [dx, dy] = [x2 - x1, y2 - y1];
	const length = dx * dx + dy * dy;
	const t = length ? Math.max(0, Math.min(1, ((x - x1) * dx + (y - y1) * dy) / length)) : 0;
	const [px, py] = [x1 + t * dx, y1 + t * dy];
	return { x: px, y: py, distance: Math.hypot(px - x, py - y), inside: t > 0 && t < 1 };
}

/** Where two pieces of line cross within both, or null. */
function crossingOf(a: Segment, b: Segment): [number, number] | null {
	const [ax, ay] = [a[2] - a[0], a[3] - a[1]];
	const [bx, by] = [b[2] - b[0], b[3] - b[1]];
	const cross = ax * by - ay * bx;
	if (Math.abs(cross) < 1e-12 * (Math.hypot(ax, ay) * Math.hypot(bx, by) || 1)) return null;
	const t = ((b[0] - a[0]) * by - (b[1] - a[1]) * bx) / cross;
	const u = ((b[0] - a[0]) * ay - (b[1] - a[1]) * ax) / cross;
	return t < 0 || t > 1 || u < 0 || u > 1 ? null : [a[0] + t * ax, a[1] + t * ay];
}

/** Length of a way through points. */
export function lengthOf(points: readonly { x: number; y: number }[]): number {
	return points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - points[i]!.x, p.y - points[i]!.y), 0);
}

/** Area within points taken as a closed outline (the shoelace formula). */
export function areaOf(points: readonly { x: number; y: number }[]): number {
	const twice = points.reduce((sum, p, i) => {
		const next = points[(i + 1) % points.length]!;
		return sum + p.x * next.y - next.x * p.y;
	}, 0);
	return Math.abs(twice) / 2;
}
