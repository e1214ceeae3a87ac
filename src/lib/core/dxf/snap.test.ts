import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Sheet } from './sheet';
import { areaOf, lengthOf, SnapIndex } from './snap';

const sheet = (...lines: [number, number, number, number, number?][]): Sheet => ({
	strokes: lines.map(([x1, y1, x2, y2, layer = 0]) => ({
		of: 0,
		points: [x1, y1, x2, y2],
		layer,
		colour: -1,
		weight: 0.25,
		wide: 0,
		dash: []
	})),
	fills: [],
	texts: [],
	layers: [],
	attributes: [],
	box: [0, 0, 1000, 500],
	unknown: {},
	unit: 'mm',
	cut: false
});

describe('snapping', () => {
	const index = new SnapIndex(sheet([0, 0, 1000, 0], [500, -100, 500, 400], [200, 200, 400, 200, 1]));

	it.each([
		['an end', 3, 4, { x: 0, y: 0, kind: 'end' }],
		['a crossing', 503, 2, { x: 500, y: 0, kind: 'crossing' }],
		['a middle', 302, 203, { x: 300, y: 200, kind: 'middle' }],
		['a point on a line', 700, 5, { x: 700, y: 0, kind: 'on' }]
	])('holds on to %s', (_, x, y, snap) => {
		expect(index.nearest(x, y, 10)).toEqual(snap);
	});

	it('holds on to nothing far away, nor to what is not shown', () => {
		expect(index.nearest(800, 300, 10)).toBeNull();
		expect(index.nearest(302, 203, 10, (layer) => layer === 0)).toBeNull();
	});

	it('finds every end within reach, wherever it lies and however long the lines are', () => {
		const coordinate = fc.double({ min: -50, max: 1050, noNaN: true });
		fc.assert(
			fc.property(
				fc.array(fc.tuple(coordinate, coordinate, coordinate, coordinate), { minLength: 1, maxLength: 20 }),
				fc.nat(),
				(lines, seed) => {
					const line = lines[seed % lines.length]!;
					const snap = new SnapIndex(sheet(...lines)).nearest(line[2], line[3], 5);
					expect(snap).not.toBeNull();
					expect(Math.hypot(snap!.x - line[2], snap!.y - line[3])).toBeLessThanOrEqual(5);
				}
			)
		);
	});
});

describe('measures', () => {
	it('are the length of a way and the area of an outline, whichever way round', () => {
		const square = [
			{ x: 10, y: 10 },
			{ x: 40, y: 10 },
			{ x: 40, y: 50 },
			{ x: 10, y: 50 }
		];
		expect(lengthOf(square)).toBe(100);
		expect(areaOf(square)).toBe(1200);
		expect(areaOf([...square].reverse())).toBe(1200);
		expect([lengthOf([]), areaOf([])]).toEqual([0, 0]);
	});
});
