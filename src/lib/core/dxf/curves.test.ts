import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arc, bulge, ellipse, hatchLines, polyline, spline, type Point } from './curves';

const coordinate = fc.double({ min: -1_000, max: 1_000, noNaN: true });
const place: fc.Arbitrary<Point> = fc.tuple(coordinate, coordinate);
const far = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);
/** Whether a place lies on the left of a way, or on it. */
const left = ([ax, ay]: Point, [bx, by]: Point, [px, py]: Point) =>
	(bx - ax) * (py - ay) - (by - ay) * (px - ax);

describe('arcs', () => {
	it('stand on their circle, from their beginning to their end', () => {
		fc.assert(
			fc.property(
				place,
				fc.double({ min: 0.1, max: 500, noNaN: true }),
				fc.double({ min: -7, max: 7, noNaN: true }),
				fc.double({ min: -6.2, max: 6.2, noNaN: true }),
				([cx, cy], radius, start, sweep) => {
					const points = arc(cx, cy, radius, start, sweep);
					for (const point of points) expect(far(point, [cx, cy])).toBeCloseTo(radius, 6);
					const end: Point = [cx + radius * Math.cos(start + sweep), cy + radius * Math.sin(start + sweep)];
					expect(far(points.at(-1)!, end)).toBeLessThan(1e-6);
					// The chords keep within 0.3 % of the radius from the arc.
					for (let i = 1; i < points.length; i++) {
						const [a, b] = [points[i - 1]!, points[i]!];
						const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
						expect(radius - far(middle, [cx, cy])).toBeLessThan(radius * 0.003);
					}
				}
			)
		);
	});

	it('of a bulge of 1 are half circles, on the right of the way from end to end', () => {
		const points = bulge([0, 0], [10, 0], 1);
		expect(points.at(-1)).toEqual([10, 0]);
		for (const point of points) {
			expect(far(point, [5, 0])).toBeCloseTo(5, 9);
			expect(point[1]).toBeLessThanOrEqual(1e-9);
		}
		expect(Math.min(...points.map((p) => p[1]))).toBeCloseTo(-5, 6);
		// The other sign lies on the other side; none is straight, and ends that are one make nothing strange.
		expect(Math.max(...bulge([0, 0], [10, 0], -1).map((p) => p[1]))).toBeCloseTo(5, 6);
		expect(bulge([0, 0], [10, 0], 0)).toEqual([[10, 0]]);
		expect(bulge([3, 3], [3, 3], 0.7)).toEqual([[3, 3]]);
	});

	it('of a bulge leave and reach exactly the vertices, and turn by four times its arctangent', () => {
		fc.assert(
			fc.property(place, place, fc.double({ min: -3, max: 3, noNaN: true }), (from, to, value) => {
				fc.pre(far(from, to) > 1e-3 && Math.abs(value) > 1e-3);
				const points = [from, ...bulge(from, to, value)];
				expect(points.at(-1)).toEqual(to);
				let turned = 0;
				for (let i = 2; i < points.length; i++) {
					const [a, b, c] = [points[i - 2]!, points[i - 1]!, points[i]!];
					const first = Math.atan2(b[1] - a[1], b[0] - a[0]);
					let by = Math.atan2(c[1] - b[1], c[0] - b[0]) - first;
					if (by > Math.PI) by -= 2 * Math.PI;
					if (by < -Math.PI) by += 2 * Math.PI;
					turned += by;
				}
				const steps = points.length - 1;
				expect((turned * steps) / (steps - 1)).toBeCloseTo(4 * Math.atan(value), 2);
			})
		);
	});
});

describe('polylines', () => {
	it('go from vertex to vertex, and back to the first when they are closed', () => {
		const square: Point[] = [
			[0, 0],
			[4, 0],
			[4, 4],
			[0, 4]
		];
		expect(polyline(square, [], false)).toEqual(square);
		expect(polyline(square, [], true)).toEqual([...square, [0, 0]]);
		expect(polyline([], [], true)).toEqual([]);
		const round = polyline(square, [0, 1, 0, 0], false);
		expect(round.length).toBeGreaterThan(10);
		expect(Math.max(...round.map((p) => p[0]))).toBeCloseTo(6, 6);
	});
});

describe('ellipses', () => {
	it('satisfy their equation, whole or in part', () => {
		fc.assert(
			fc.property(
				place,
				fc.double({ min: 0.5, max: 80, noNaN: true }),
				fc.double({ min: 0, max: 6.28, noNaN: true }),
				fc.double({ min: 0.05, max: 1, noNaN: true }),
				fc.double({ min: 0, max: 6, noNaN: true }),
				fc.double({ min: 0, max: 6, noNaN: true }),
				([cx, cy], long, turn, ratio, start, end) => {
					const [mx, my] = [long * Math.cos(turn), long * Math.sin(turn)];
					for (const [x, y] of ellipse(cx, cy, mx, my, ratio, start, end)) {
						const along = ((x - cx) * mx + (y - cy) * my) / long;
						const across = ((y - cy) * mx - (x - cx) * my) / long;
						expect((along / long) ** 2 + (across / (long * ratio)) ** 2).toBeCloseTo(1, 6);
					}
				}
			)
		);
	});
	it('whose end is their beginning are whole', () => {
		const points = ellipse(0, 0, 10, 0, 0.5, 0, 0);
		expect(far(points[0]!, points.at(-1)!)).toBeLessThan(1e-9);
		expect(Math.min(...points.map((p) => p[0]))).toBeCloseTo(-10, 6);
	});
});

describe('splines', () => {
	const clamped = (degree: number, count: number) => [
		...Array<number>(degree + 1).fill(0),
		...Array.from({ length: count - degree - 1 }, (_, i) => i + 1),
		...Array<number>(degree + 1).fill(count - degree)
	];

	it('with clamped knots begin and end at their outer control points, within the hull of all', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 3 }),
				fc.array(place, { minLength: 4, maxLength: 9 }),
				(degree, control) => {
					const points = spline(degree, control, clamped(degree, control.length), []);
					expect(far(points[0]!, control[0]!)).toBeLessThan(1e-6);
					expect(far(points.at(-1)!, control.at(-1)!)).toBeLessThan(1e-6);
					const [xs, ys] = [control.map((p) => p[0]), control.map((p) => p[1])];
					for (const [x, y] of points) {
						expect(x).toBeGreaterThanOrEqual(Math.min(...xs) - 1e-6);
						expect(x).toBeLessThanOrEqual(Math.max(...xs) + 1e-6);
						expect(y).toBeGreaterThanOrEqual(Math.min(...ys) - 1e-6);
						expect(y).toBeLessThanOrEqual(Math.max(...ys) + 1e-6);
					}
				}
			)
		);
	});
	it('of degree two with the weight of a circle draw a quarter of it', () => {
		const quarter = spline(
			2,
			[
				[1, 0],
				[1, 1],
				[0, 1]
			],
			[0, 0, 0, 1, 1, 1],
			[1, Math.SQRT1_2, 1]
		);
		for (const point of quarter) expect(far(point, [0, 0])).toBeCloseTo(1, 9);
	});
	it('whose knots do not fit are their control points', () => {
		const control: Point[] = [
			[0, 0],
			[5, 5],
			[9, 0]
		];
		expect(spline(2, control, [0, 1], [])).toEqual(control);
		expect(spline(3, control, clamped(3, 3), [])).toEqual(control);
		expect(spline(0, control, [], [])).toEqual(control);
	});
});

describe('lines of a hatch', () => {
	const square: Point[] = [
		[0, 0],
		[10, 0],
		[10, 10],
		[0, 10]
	];
	const hole: Point[] = [
		[4, 4],
		[6, 4],
		[6, 6],
		[4, 6]
	];

	it('fill the area between loops: their lengths times the gap are the area', () => {
		for (const angle of [0, 0.4, Math.PI / 4, 2.2]) {
			const lines = hatchLines([square, hole], angle, 0.05, 10_000);
			const length = lines!.reduce((sum, [a, b]) => sum + far(a, b), 0);
			expect(length * 0.05, `${angle}`).toBeCloseTo(96, 0);
			for (const [a, b] of lines!) {
				const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
				const inside = (loop: Point[], margin: number) =>
					loop.every((corner, i) => left(corner, loop[(i + 1) % loop.length]!, middle) > margin);
				expect(inside(square, -1e-6)).toBe(true);
				expect(inside(hole, 1e-6)).toBe(false);
			}
		}
	});
	it('are left out when they would be too many, or when there is no gap', () => {
		expect(hatchLines([square], 0, 0.001, 100)).toBeNull();
		expect(hatchLines([square], 0, 0, 100)).toBeNull();
		expect(hatchLines([square], 0, Number.NaN, 100)).toBeNull();
		expect(hatchLines([], 0, 1, 100)).toEqual([]);
	});
});
