import type { Flat, Point } from './curves';

/** Placement of a block: x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];
export const UNIT: Matrix = [1, 0, 0, 1, 0, 0];
/** What an extrusion of 0,0,-1 does to an entity's own coordinates. */
export const MIRRORED: Matrix = [-1, 0, 0, 1, 0, 0];

/** First `n`, then `m`. */
export function times(m: Matrix, n: Matrix): Matrix {
	return [
		m[0] * n[0] + m[2] * n[1],
		m[1] * n[0] + m[3] * n[1],
		m[0] * n[2] + m[2] * n[3],
		m[1] * n[2] + m[3] * n[3],
		m[0] * n[4] + m[2] * n[5] + m[4],
		m[1] * n[4] + m[3] * n[5] + m[5]
	];
}

/** Points one after the other as x and y, placed. */
export function placed(points: readonly Point[], m: Matrix): Flat {
	const flat: number[] = [];
	for (const [x, y] of points) flat.push(m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]);
	// A copy has no room to grow, and no holes.
	return flat.slice();
}

/** How many times larger lengths become, on the average of all directions. */
export const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));
