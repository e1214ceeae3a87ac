import { areaText, lengthText, WITH_WORDS, type Mark, type MarkKind, type Point, type Scale } from './mark';

/** A piece of a mark to be drawn: lines as an SVG path, or words. Coordinates are those of the view, y down. */
export type Piece =
	| { kind: 'path'; d: string; filled: boolean; wash: boolean; plain?: boolean }
	| { kind: 'words'; x: number; y: number; lines: string[]; size: number; middle: boolean };

export interface Box {
	x: number;
	y: number;
	w: number;
	h: number;
}

const n = (value: number) => String(Math.round(value * 1000) / 1000);
const at = (p: Point) => `${n(p.x)} ${n(p.y)}`;
const way = (points: readonly Point[], closed = false) => `M${points.map(at).join('L')}${closed ? 'Z' : ''}`;

export function boxOf(points: readonly Point[]): Box {
	let [x, y, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
	for (const p of points) {
		x = Math.min(x, p.x);
		y = Math.min(y, p.y);
		right = Math.max(right, p.x);
		bottom = Math.max(bottom, p.y);
	}
	return { x, y, w: right - x, h: bottom - y };
}

const corners = ({ x, y, w, h }: Box): Point[] => [
	{ x, y },
	{ x: x + w, y },
	{ x: x + w, y: y + h },
	{ x, y: y + h }
];

/** The outline of a revision cloud: arcs that bulge outward along a box, evenly spaced on each side. */
function cloudPath(box: Box, arc: number): string {
	const round = corners(box);
	let d = `M${at(round[0]!)}`;
	round.forEach((from, i) => {
		const to = round[(i + 1) % 4]!;
		const length = Math.hypot(to.x - from.x, to.y - from.y);
		const count = Math.max(1, Math.round(length / arc));
		const r = n(length / count / 1.7);
		for (let k = 1; k <= count; k++)
			d += `A${r} ${r} 0 0 1 ${at({
				x: from.x + ((to.x - from.x) * k) / count,
				y: from.y + ((to.y - from.y) * k) / count
			})}`;
	});
	return `${d}Z`;
}

function arrowhead(from: Point, tip: Point, size: number): Point[] {
	const angle = Math.atan2(tip.y - from.y, tip.x - from.x);
	const side = (turn: number): Point => ({
		x: tip.x - size * Math.cos(angle + turn),
		y: tip.y - size * Math.sin(angle + turn)
	});
	return [tip, side(0.42), side(-0.42)];
}

/** Width that words take, near enough for boxes around them. */
function wordsWidth(lines: readonly string[], size: number): number {
	return Math.max(...lines.map((l) => l.length), 1) * size * 0.56;
}

const LINE = 1.3;

function wordsBox(mark: Pick<Mark, 'text' | 'size'>, from: Point): Box {
	const lines = mark.text.split('\n');
	const pad = mark.size * 0.5;
	return {
		x: from.x,
		y: from.y,
		w: wordsWidth(lines, mark.size) + pad * 2,
		h: lines.length * mark.size * LINE + pad * 2
	};
}

function words(mark: Pick<Mark, 'text' | 'size'>, box: Box): Piece {
	const pad = mark.size * 0.5;
	return {
		kind: 'words',
		x: box.x + pad,
		y: box.y + pad + mark.size * 0.95,
		lines: mark.text.split('\n'),
		size: mark.size,
		middle: false
	};
}

/** Length of a way through points. */
export function lengthOf(points: readonly Point[]): number {
	let length = 0;
	for (let i = 1; i < points.length; i++)
		length += Math.hypot(points[i]!.x - points[i - 1]!.x, points[i]!.y - points[i - 1]!.y);
	return length;
}

/** Area within points, by the shoelace formula (Meister, 1769). */
export function areaOf(points: readonly Point[]): number {
	let twice = 0;
	points.forEach((p, i) => {
		const next = points[(i + 1) % points.length]!;
		twice += p.x * next.y - next.x * p.y;
	});
	return Math.abs(twice) / 2;
}

/**
 * What a mark looks like.
 * @param points its points in the view
 * @param scale of its page; without one lengths are in the sheet's own unit
 */
export function piecesOf(
	mark: Omit<Mark, 'points'>,
	points: readonly Point[],
	scale: Scale | null,
	unit: string
): Piece[] {
	const path = (d: string, filled = false, wash = false): Piece => ({ kind: 'path', d, filled, wash });
	const [first, second] = [points[0]!, points[1] ?? points[0]!];
	const { size } = mark;
	switch (mark.kind) {
		case 'cloud':
			return [path(cloudPath(boxOf(points), size * 1.6), false, true)];
		case 'line':
		case 'polyline':
		case 'freehand':
			return [path(way(points))];
		case 'highlight':
			return [{ kind: 'path', d: way(points), filled: false, wash: false, plain: true }];
		case 'arrow':
			return [path(way([first, second])), path(way(arrowhead(first, second, size), true), true)];
		case 'rectangle':
			return [path(way(corners(boxOf(points)), true), false, true)];
		case 'ellipse': {
			const { x, y, w, h } = boxOf(points);
			const [rx, ry] = [n(w / 2), n(h / 2)];
			return [
				path(
					`M${n(x)} ${n(y + h / 2)}a${rx} ${ry} 0 1 0 ${n(w)} 0a${rx} ${ry} 0 1 0 ${n(-w)} 0Z`,
					false,
					true
				)
			];
		}
		case 'text':
			return [words(mark, wordsBox(mark, first))];
		case 'callout': {
			const box = wordsBox(mark, second);
			const near = {
				x: Math.min(Math.max(first.x, box.x), box.x + box.w),
				y: Math.min(Math.max(first.y, box.y), box.y + box.h)
			};
			return [
				path(way([near, first])),
				path(way(arrowhead(near, first, size * 0.9), true), true),
				path(way(corners(box), true), false, true),
				words(mark, box)
			];
		}
		case 'dimension': {
			const angle = Math.atan2(second.y - first.y, second.x - first.x);
			const across = { x: -Math.sin(angle) * size, y: Math.cos(angle) * size };
			const tick = (p: Point) =>
				way([
					{ x: p.x + across.x, y: p.y + across.y },
					{ x: p.x - across.x, y: p.y - across.y }
				]);
			const middle = { x: (first.x + second.x) / 2, y: (first.y + second.y) / 2 };
			return [
				path(way([first, second])),
				path(tick(first)),
				path(tick(second)),
				{
					kind: 'words',
					x: middle.x + Math.abs(across.x) * 0.6,
					y: middle.y - size * 0.5,
					lines: [lengthText(lengthOf([first, second]), scale, unit)],
					size,
					middle: true
				}
			];
		}
		case 'area': {
			const { x, y, w, h } = boxOf(points);
			return [
				path(way(points, true), false, true),
				{
					kind: 'words',
					x: x + w / 2,
					y: y + h / 2,
					lines: [areaText(areaOf(points), scale, unit)],
					size,
					middle: true
				}
			];
		}
		case 'count':
			return points.flatMap((p, i): Piece[] => [
				path(
					way(corners({ x: p.x - size * 0.7, y: p.y - size * 0.7, w: size * 1.4, h: size * 1.4 }), true),
					false,
					true
				),
				{ kind: 'words', x: p.x, y: p.y + size * 0.35, lines: [String(i + 1)], size, middle: true }
			]);
		case 'stamp': {
			const box = wordsBox(mark, first);
			const inner = {
				x: box.x + size * 0.18,
				y: box.y + size * 0.18,
				w: box.w - size * 0.36,
				h: box.h - size * 0.36
			};
			return [path(way(corners(box), true), false, true), path(way(corners(inner), true)), words(mark, box)];
		}
	}
}

/** Kinds that show words: those that somebody wrote, or what they measure or count. */
export const SHOWS_WORDS: ReadonlySet<MarkKind> = new Set([...WITH_WORDS, 'dimension', 'area', 'count']);

/** The box that a mark takes up in the view, before it is turned. */
export function markBox(mark: Omit<Mark, 'points'>, points: readonly Point[]): Box {
	const box = boxOf(points);
	if (mark.kind === 'text' || mark.kind === 'stamp') return wordsBox(mark, points[0]!);
	if (mark.kind === 'callout') {
		const second = wordsBox(mark, points[1] ?? points[0]!);
		return boxOf([...points, { x: second.x + second.w, y: second.y + second.h }]);
	}
	const grown = mark.kind === 'count' ? mark.size * 0.7 : 0;
	return { x: box.x - grown, y: box.y - grown, w: box.w + 2 * grown, h: box.h + 2 * grown };
}

/** Fewer points for a line drawn by hand, none further off than `within` (Douglas and Peucker, 1973). */
export function simplified(points: readonly Point[], within: number): Point[] {
	if (points.length < 3) return [...points];
	const [first, last] = [points[0]!, points.at(-1)!];
	const length = Math.hypot(last.x - first.x, last.y - first.y) || 1e-9;
	let [worst, where] = [0, 0];
	for (let i = 1; i < points.length - 1; i++) {
		const p = points[i]!;
		const off =
			length < 1e-6
				? Math.hypot(p.x - first.x, p.y - first.y)
				: Math.abs(
						(last.y - first.y) * p.x - (last.x - first.x) * p.y + last.x * first.y - last.y * first.x
					) / length;
		if (off > worst) [worst, where] = [off, i];
	}
	if (worst <= within) return [first, last];
	return [
		...simplified(points.slice(0, where + 1), within).slice(0, -1),
		...simplified(points.slice(where), within)
	];
}

/** Points moved with a box as it is drawn larger, smaller or elsewhere. */
export function fitted(points: readonly Point[], from: Box, to: Box): Point[] {
	const [kx, ky] = [from.w > 1e-9 ? to.w / from.w : 1, from.h > 1e-9 ? to.h / from.h : 1];
	return points.map((p) => ({ x: to.x + (p.x - from.x) * kx, y: to.y + (p.y - from.y) * ky }));
}
