import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DRAWN_KINDS, drawnOf, drawnWords, markOf, mayDraw, type Drawn } from './drawn';

const point = fc.record({ x: fc.double({ min: -1e6, max: 1e6 }), y: fc.double({ min: -1e6, max: 1e6 }) });
const drawn: fc.Arbitrary<Drawn> = fc.record({
	id: fc.stringMatching(/^[\w-]{6,20}$/),
	kind: fc.constantFrom(...DRAWN_KINDS),
	page: fc.integer({ min: 1, max: 30 }),
	points: fc.array(point, { minLength: 1, maxLength: 6 }),
	turn: fc.integer({ min: -360, max: 360 }),
	size: fc.double({ min: 0.5, max: 100, noNaN: true }),
	text: fc.string({ maxLength: 40 }),
	group: fc.option(fc.string({ maxLength: 20 })),
	order: fc.integer({ min: -1000, max: 1000 })
});

describe('marks that are drawn with a verdict', () => {
	it('become marks of a sheet and are the same again', () => {
		const whose = { by: 'abcdefghjk', from: 'Maren Aldgate', at: '2026-11-30T09:00:00.000Z', layer: '' };
		fc.assert(
			fc.property(
				drawn.filter((one) => one.points.every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))),
				(one) => {
					const mark = markOf(one, whose);
					expect(mark).toMatchObject(whose);
					expect(drawnOf(mark)).toEqual(one);
				}
			)
		);
	});

	it('are none of the kinds that need a scale or a stamp of the project', () => {
		const [one] = fc.sample(drawn, 1);
		const mark = markOf(one!, { by: 'x', at: '2026-11-30T09:00:00.000Z', layer: '' });
		for (const kind of ['stamp', 'dimension', 'area'] as const) expect(drawnOf({ ...mark, kind })).toBeNull();
	});

	it('say their words page by page, and count what has none', () => {
		expect(
			drawnWords([
				{ page: 2, kind: 'cloud', text: '' },
				{ page: 1, kind: 'callout', text: ' Lower by 50 mm ' },
				{ page: 1, kind: 'arrow', text: '' },
				{ page: 1, kind: 'text', text: 'Which steel?' },
				{ page: 2, kind: 'line', text: '' }
			])
		).toEqual([
			{ page: 1, text: '“Lower by 50 mm”; “Which steel?”; 1 mark without words' },
			{ page: 2, text: '2 marks' }
		]);
		expect(drawnWords([])).toEqual([]);
	});

	it('are drawn unless the project says otherwise', () => {
		expect([{}, { answersDraw: true }, { answersDraw: false }].map(mayDraw)).toEqual([true, true, false]);
	});
});
