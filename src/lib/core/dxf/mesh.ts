import type { Point } from './curves';
import { numberOf, type Entity } from './read';

/** Flags of a POLYLINE (DXF reference, POLYLINE, code 70). */
const CLOSED = 1;
const MESH = 16;
const CLOSED_ACROSS = 32;
const FACES = 64;
/** Most edges of one mesh. */
const MOST_EDGES = 100_000;

const place = (vertex: Entity): Point => [numberOf(vertex.groups, 10), numberOf(vertex.groups, 20)];

/** The edges of a POLYLINE that is a mesh, seen from above; null when it is a line. */
export function meshEdges(entity: Entity): Point[][] | null {
	const flags = numberOf(entity.groups, 70);
	if (flags & FACES) return faceEdges(entity.children);
	if (flags & MESH) return gridEdges(entity, flags);
	return null;
}

/** Faces name their corners by number, from 1 on; a negative one begins an edge that is not shown. */
function faceEdges(vertices: readonly Entity[]): Point[][] {
	const corners = vertices.filter((v) => numberOf(v.groups, 70) & FACES).map(place);
	const edges: Point[][] = [];
	const drawn = new Set<string>();
	for (const face of vertices) {
		if (numberOf(face.groups, 70) & FACES) continue;
		const ring = [71, 72, 73, 74].map((code) => numberOf(face.groups, code)).filter((n) => n !== 0);
		ring.forEach((from, i) => {
			const to = Math.abs(ring[(i + 1) % ring.length]!);
			const [a, b] = [corners[Math.abs(from) - 1], corners[to - 1]];
			if (from < 0 || !a || !b || edges.length >= MOST_EDGES) return;
			// Neighbouring faces share their edges.
			const key = [Math.abs(from), to].sort((p, q) => p - q).join();
			if (drawn.has(key)) return;
			drawn.add(key);
			edges.push([a, b]);
		});
	}
	return edges;
}

/** A grid of M rows (71) by N columns (72); of a smoothed one the smoothed points (73, 74). */
function gridEdges(entity: Entity, flags: number): Point[][] {
	const smooth = numberOf(entity.groups, 75) !== 0;
	const [rows, columns] = (smooth ? [73, 74] : [71, 72]).map((code) => numberOf(entity.groups, code)) as [
		number,
		number
	];
	// Of a smoothed mesh, 16 marks the points that steer it.
	const points = entity.children.filter((v) => !smooth || !(numberOf(v.groups, 70) & 16)).map(place);
	if (!(rows > 0 && columns > 0) || points.length < rows * columns || rows * columns > MOST_EDGES) return [];
	const lines: Point[][] = [];
	const closed = (line: Point[], how: boolean) => (how ? [...line, line[0]!] : line);
	for (let r = 0; r < rows; r++)
		lines.push(closed(points.slice(r * columns, (r + 1) * columns), (flags & CLOSED_ACROSS) !== 0));
	for (let c = 0; c < columns; c++)
		lines.push(
			closed(
				Array.from({ length: rows }, (_, r) => points[r * columns + c]!),
				(flags & CLOSED) !== 0
			)
		);
	return lines;
}
