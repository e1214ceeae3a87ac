import { polyline, type Point } from './curves';
import { numberOf, type Entity, type Group } from './read';

/** A polyline's way with how wide it is drawn. */
export interface WideLine {
	points: Point[];
	/** Width all along in drawing units; 0 for a line drawn by its weight. */
	wide: number;
	/** Areas of the pieces whose width changes along them. */
	tapers: Point[][];
}

interface Vertex {
	at: Point;
	bulge: number;
	from: number;
	to: number;
}

/** A light polyline (DXF reference, LWPOLYLINE: width 43 for all, or 40 and 41 from each vertex on). */
export function lightPolyline(g: readonly Group[]): WideLine {
	const all = numberOf(g, 43);
	const vertices: Vertex[] = [];
	for (const [code, value] of g) {
		const last = vertices.at(-1);
		if (code === 10) vertices.push({ at: [Number(value), 0], bulge: 0, from: all, to: all });
		else if (!last) continue;
		else if (code === 20) last.at[1] = Number(value);
		else if (code === 40) last.from = Number(value);
		else if (code === 41) last.to = Number(value);
		else if (code === 42) last.bulge = Number(value);
	}
	return wideLine(vertices, (numberOf(g, 70) & 1) === 1);
}

/** A polyline of the older kind, with its vertices beneath it; those that only steer its curve are left out. */
export function heavyPolyline({ groups, children }: Entity): WideLine {
	const [from, to] = [numberOf(groups, 40), numberOf(groups, 41)];
	const vertices = children
		.filter((v) => (numberOf(v.groups, 70) & 16) === 0)
		.map(({ groups: g }): Vertex => ({
			at: [numberOf(g, 10), numberOf(g, 20)],
			bulge: numberOf(g, 42),
			from: numberOf(g, 40, from),
			to: numberOf(g, 41, to)
		}));
	return wideLine(vertices, (numberOf(groups, 70) & 1) === 1);
}

function wideLine(vertices: readonly Vertex[], closed: boolean): WideLine {
	const points = polyline(
		vertices.map((v) => v.at),
		vertices.map((v) => v.bulge),
		closed
	);
	const drawn = closed ? vertices : vertices.slice(0, -1);
	const wide = drawn[0]?.from ?? 0;
	if (drawn.every((v) => v.from === wide && v.to === wide))
		return { points, wide: Math.max(0, wide), tapers: [] };
	const tapers = drawn
		.map((v, i) => taper(v, vertices[(i + 1) % vertices.length]!.at))
		.filter((area) => area.length > 2);
	return { points, wide: 0, tapers };
}

/** The area of one piece, as wide at its ends as they say. */
function taper({ at, bulge, from, to }: Vertex, end: Point): Point[] {
	if (!(from > 0 || to > 0)) return [];
	const way = polyline([at, end], [bulge], false);
	const left: Point[] = [];
	const right: Point[] = [];
	way.forEach((p, i) => {
		const [a, b] = [way[Math.max(0, i - 1)]!, way[Math.min(way.length - 1, i + 1)]!];
		const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
		const half = (from + ((to - from) * i) / (way.length - 1)) / 2 / length;
		const across: Point = [-(b[1] - a[1]) * half, (b[0] - a[0]) * half];
		left.push([p[0] + across[0], p[1] + across[1]]);
		right.unshift([p[0] - across[0], p[1] - across[1]]);
	});
	return [...left, ...right];
}
