import { describe, expect, it } from 'vitest';
import { flatten } from '../dxf/flatten';
import { readDxf } from '../dxf/read';
import { draftOf, POINTS, TOOLS, type Settled } from './draft';
import { itemSchema, type XY } from './item';
import { byEntity, liesWithin, textAt } from './pick';

const settled: Settled = { layer: 'MW', words: ' Check ', height: 2.5, block: 'PIN', scale: 2, turn: 30 };

describe('what a tool draws', () => {
	it('is nothing without points, and something that a drawing can hold with all of them', () => {
		for (const tool of TOOLS) {
			expect(draftOf(tool, [], settled)).toBeNull();
			if (tool === 'choose') continue;
			const points: XY[] = [
				[0, 0],
				[3, 4],
				[0, 5]
			];
			const made = draftOf(tool, points.slice(0, Math.min(3, POINTS[tool])), settled);
			expect(itemSchema.safeParse(made).success, tool).toBe(true);
		}
	});
	it('circles and arcs by their middle, counter-clockwise', () => {
		expect(
			draftOf(
				'circle',
				[
					[1, 1],
					[4, 5]
				],
				settled
			)
		).toMatchObject({ points: [[1, 1]], radius: 5 });
		const arc = draftOf(
			'arc',
			[
				[0, 0],
				[2, 0],
				[0, 9]
			],
			settled
		);
		expect(arc).toMatchObject({ radius: 2, from: 0, to: 90 });
		expect(
			draftOf(
				'circle',
				[
					[1, 1],
					[1, 1]
				],
				settled
			)
		).toBeNull();
	});
	it('a polyline closes where it began, words and blocks need to be said', () => {
		const square: XY[] = [
			[0, 0],
			[1, 0],
			[1, 1],
			[0, 0]
		];
		expect(draftOf('polyline', square, settled)).toMatchObject({ closed: true, points: square.slice(0, 3) });
		expect(draftOf('text', [[0, 0]], settled)).toMatchObject({ text: 'Check' });
		expect(draftOf('text', [[0, 0]], { ...settled, words: ' ' })).toBeNull();
		expect(draftOf('block', [[0, 0]], { ...settled, block: '' })).toBeNull();
	});
});

describe('what lies at a place', () => {
	const lines = (...all: (string | number)[]) => all.join('\n') + '\n';
	const sheet = flatten(
		readDxf(
			lines(0, 'SECTION', 2, 'ENTITIES') +
				lines(0, 'LINE', 8, 'A', 10, 0, 20, 0, 11, 10, 21, 0) +
				lines(0, 'TEXT', 8, 'B', 10, 20, 20, 20, 40, 2, 1, 'HINGE') +
				lines(0, 'TEXT', 8, 'B', 10, 40, 20, 40, 40, 2, 50, 90, 1, 'UPRIGHT') +
				lines(0, 'ENDSEC', 0, 'EOF')
		)
	);
	const all = () => true;
	it('words are found on them, also turned, and not beside them', () => {
		expect(textAt(sheet.texts, [25, 21], 0.1, all)?.text).toBe('HINGE');
		expect(textAt(sheet.texts, [39, 46], 0.1, all)?.text).toBe('UPRIGHT');
		expect(textAt(sheet.texts, [25, 26], 0.1, all)).toBeUndefined();
		expect(textAt(sheet.texts, [25, 21], 0.1, () => false)).toBeUndefined();
	});
	it('a box holds what lies wholly within it and is shown', () => {
		const shapes = byEntity(sheet);
		expect([...shapes.keys()]).toEqual([0, 1, 2]);
		const on = sheet.layers.map(() => true);
		expect(liesWithin(shapes.get(0)!, [11, 1], [-1, -1], on)).toBe(true);
		expect(liesWithin(shapes.get(0)!, [9, 1], [-1, -1], on)).toBe(false);
		expect(liesWithin(shapes.get(0)!, [11, 1], [-1, -1], [false, true])).toBe(false);
		expect(liesWithin({ strokes: [], texts: [] }, [0, 0], [1, 1], on)).toBe(false);
	});
});
