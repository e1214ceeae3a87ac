import { arc, ellipse, polyline, spline, type Point } from './curves';
import { numberOf, type Group } from './read';

/** Vertices of a light polyline with the bulge after each. */
export function lightVertices(g: readonly Group[]): [Point[], number[]] {
	const vertices: Point[] = [];
	const bulges: number[] = [];
	for (const [code, value] of g) {
		if (code === 10) {
			vertices.push([Number(value), 0]);
			bulges.push(0);
		} else if (code === 20 && vertices.length) vertices.at(-1)![1] = Number(value);
		else if (code === 42 && bulges.length) bulges[bulges.length - 1] = Number(value);
	}
	return [vertices, bulges];
}

/** Every value of a group code, in order. */
export function all(g: readonly Group[], code: number): number[] {
	return g.filter((x) => x[0] === code).map((x) => Number(x[1]));
}

/** Points from two group codes, in order. */
export function pairs(g: readonly Group[], cx: number, cy: number): Point[] {
	const points: Point[] = [];
	for (const [code, value] of g) {
		if (code === cx) points.push([Number(value), 0]);
		else if (code === cy && points.length) points.at(-1)![1] = Number(value);
	}
	return points;
}

/** Boundary loops of a hatch: polylines with bulges, or edges (line, arc, ellipse, spline). */
export function hatchLoops(g: readonly Group[]): Point[][] {
	const loops: Point[][] = [];
	let i = g.findIndex(([code]) => code === 91);
	if (i < 0) return loops;
	const count = Math.min(Number(g[i]![1]), 5_000);
	i++;
	const rad = Math.PI / 180;
	for (let loop = 0; loop < count && i < g.length; loop++) {
		while (i < g.length && g[i]![0] !== 92) i++;
		if (i === g.length) break;
		const isPolyline = (Number(g[i]![1]) & 2) === 2;
		let end = i + 1;
		while (end < g.length && g[end]![0] !== 92 && g[end]![0] !== 75 && g[end]![0] !== 97) end++;
		const part = g.slice(i + 1, end);
		i = end;
		if (isPolyline) {
			const [vertices, bulges] = lightVertices(part);
			loops.push(polyline(vertices, bulges, true));
			continue;
		}
		const points: Point[] = [];
		const starts = part.flatMap(([code], at) => (code === 72 ? [at] : []));
		starts.forEach((at, k) => {
			const edge = part.slice(at, starts[k + 1] ?? part.length);
			const n = (code: number, otherwise = 0) => numberOf(edge, code, otherwise);
			const turn = n(73, 1) === 0 ? -1 : 1;
			if (n(72) === 1) points.push([n(10), n(20)], [n(11), n(21)]);
			else if (n(72) === 2)
				points.push(...arc(n(10), n(20), n(40), turn * n(50) * rad, turn * (n(51) - n(50)) * rad));
			else if (n(72) === 3)
				points.push(...ellipse(n(10), n(20), n(11), n(21), turn * n(40, 1), n(50) * rad, n(51, 360) * rad));
			else if (n(72) === 4)
				points.push(...spline(n(94, 3), pairs(edge, 10, 20), all(edge, 40), all(edge, 42)));
		});
		loops.push(points);
	}
	return loops;
}

/** The families of parallels of a hatch pattern: angle in radians, and the gap between two lines. At most eight. */
export function hatchPattern(g: readonly Group[]): { angle: number; gap: number }[] {
	const families: { angle: number; gap: number }[] = [];
	g.forEach(([code, value], i) => {
		if (code !== 53 || families.length === 8) return;
		const line = g.slice(i, i + 8);
		const angle = (Number(value) * Math.PI) / 180;
		// The gap is the part of the offset across the line.
		families.push({
			angle,
			gap: Math.abs(numberOf(line, 46) * Math.cos(angle) - numberOf(line, 45) * Math.sin(angle))
		});
	});
	return families;
}
