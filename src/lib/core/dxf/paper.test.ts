import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatten } from './flatten';
import { layoutsOf } from './layouts';
import { clippedArea, clippedLine, layOut } from './paper';
import { readDxf } from './read';

const drawing = (entities: string) =>
	readDxf(
		['0', 'SECTION', '2', 'ENTITIES', ...entities.trim().split(/\s+/), '0', 'ENDSEC', '0', 'EOF'].join('\n')
	);
const laidOut = (entities: string) => {
	const read = drawing(entities);
	const [layout] = layoutsOf(read);
	return layout ? layOut(read, layout, flatten(read)) : null;
};

describe('a sheet laid out on paper', () => {
	// A window of 100 x 50 around (200, 100) shows 1,000 x 500 of the model around its target: one to ten.
	const WINDOW = '0 VIEWPORT 67 1 69 2 10 200 20 100 40 100 41 50 12 0 22 0 45 500 17 3000 27 2000';

	it('shows the model in its window, cut off at the edges', () => {
		const sheet = laidOut(`${WINDOW} 0 LINE 8 A 10 3000 20 2000 11 3900 21 2000`)!;
		expect(sheet.strokes.map((s) => [...s.points])).toEqual([[200, 100, 250, 100]]);
		expect(sheet.layers.map((l) => l.name)).toEqual(['A']);
	});

	it('turns with the view, and leaves out what lies outside', () => {
		const sheet = laidOut(
			`${WINDOW} 51 90 0 LINE 8 A 10 3000 20 2000 11 3100 21 2000 0 LINE 8 A 10 0 20 0 11 1 21 1`
		)!;
		const [x1, y1, x2, y2] = sheet.strokes[0]!.points;
		expect([x1, y1, x2, y2].map((n) => Math.round(n! * 1e6) / 1e6)).toEqual([200, 100, 200, 110]);
		expect(sheet.strokes).toHaveLength(1);
	});

	it('keeps what stands on the paper itself, and is nothing without any', () => {
		const sheet = laidOut('0 LINE 67 1 8 FRAME 10 0 20 0 11 841 21 0 0 LINE 8 A 10 5 20 5 11 6 21 6')!;
		expect(sheet.strokes.map((s) => [...s.points])).toEqual([[0, 0, 841, 0]]);
		expect(laidOut('0 LINE 8 A 10 5 20 5 11 6 21 6')).toBeNull();
	});
});

describe('cutting off at a box', () => {
	const point = fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 }));
	const box: [number, number, number, number] = [-7, -5, 9, 6];

	it('leaves only what is inside, and all of it', () => {
		fc.assert(
			fc.property(fc.array(point, { minLength: 2, maxLength: 8 }), (points) => {
				const parts = clippedLine(points.flat(), box);
				for (const part of parts)
					for (let i = 0; i < part.length; i += 2) {
						expect(part[i]).toBeGreaterThanOrEqual(-7 - 1e-9);
						expect(part[i]).toBeLessThanOrEqual(9 + 1e-9);
					}
				const inside = points.filter(([x, y]) => x > -7 && x < 9 && y > -5 && y < 6);
				const kept = parts.flatMap((p) =>
					Array.from({ length: p.length / 2 }, (_, i) => [p[2 * i], p[2 * i + 1]])
				);
				for (const [x, y] of inside)
					expect(kept.some(([kx, ky]) => Math.hypot(kx! - x, ky! - y) < 1e-9)).toBe(true);
			})
		);
	});

	it('keeps of an area what is inside', () => {
		const square = [-20, 0, 0, 0, 0, 20, -20, 20];
		const cut = clippedArea(square, box);
		expect([...cut].filter((_, i) => i % 2 === 0).sort((a, b) => a - b)).toEqual([-7, -7, 0, 0]);
		expect(clippedArea([20, 20, 30, 20, 30, 30], box)).toHaveLength(0);
	});
});
