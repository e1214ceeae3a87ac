import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { areaText, FEWEST, lengthText, MARK_KINDS, type Mark, type MarkFields } from './mark';
import { changeMark, markFault, marksOf, readMark, writeMark } from './shared';
import { areaOf, boxOf, fitted, lengthOf, markBox, piecesOf, SHOWS_WORDS, simplified } from './shape';

const fields = (more: Partial<MarkFields> = {}): MarkFields => ({
	kind: 'rectangle',
	page: 1,
	points: [
		{ x: 10, y: 20 },
		{ x: 110, y: 70 }
	],
	turn: 0,
	size: 8,
	text: '',
	layer: 'MW',
	by: 'oke',
	at: '2026-11-24T10:00:00.000Z',
	group: null,
	order: 1,
	carried: null,
	...more
});
const mark = (more: Partial<Mark> = {}): Mark => ({ id: 'a', ...fields(more), ...more });
const point = fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 600 }) });

describe('shapes', () => {
	it('every kind has one, within its box but for what bulges', () => {
		for (const kind of MARK_KINDS) {
			const one = mark({ kind, text: 'Check\ncamber' });
			const points = [...one.points, { x: 60, y: 90 }].slice(0, Math.max(2, FEWEST[kind]));
			const pieces = piecesOf(one, points, null, 'mm');
			expect(pieces.length, kind).toBeGreaterThan(0);
			expect(SHOWS_WORDS.has(kind), kind).toBe(pieces.some((piece) => piece.kind === 'words'));
			for (const piece of pieces)
				if (piece.kind === 'path') expect(piece.d, kind).toMatch(/^M[-\d. LAZMa]+Z?$/);
			const box = markBox(one, points);
			expect(box.w, kind).toBeGreaterThan(0);
		}
	});

	it('lengths and areas follow the scale of the page', () => {
		const side = [
			{ x: 0, y: 0 },
			{ x: 300, y: 0 },
			{ x: 300, y: 400 },
			{ x: 0, y: 400 }
		];
		expect(lengthOf(side.slice(1, 3))).toBe(400);
		expect(areaOf(side)).toBe(120_000);
		expect(lengthText(400, { perUnit: 20, unit: 'm' }, 'pt')).toBe('20 m');
		expect(areaText(120_000, { perUnit: 20, unit: 'm' }, 'pt')).toBe('300 m²');
		expect(lengthText(1234.56, null, 'mm')).toBe('1,235 mm');
	});

	it('a line drawn by hand keeps near to the hand', () => {
		fc.assert(
			fc.property(fc.array(point, { minLength: 2, maxLength: 80 }), (points) => {
				const fewer = simplified(points, 2);
				expect(fewer[0]).toEqual(points[0]);
				expect(fewer.at(-1)).toEqual(points.at(-1));
				const off = (p: { x: number; y: number }) =>
					Math.min(
						...fewer.slice(1).map((b, i) => {
							const a = fewer[i]!;
							const d2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
							const t = d2
								? Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / d2))
								: 0;
							return Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y));
						})
					);
				// The measure is to the line through a piece, not to the piece; what lies beyond its ends may be further off.
				for (const p of points) expect(Math.min(off(p), boxDistance(fewer, p))).toBeLessThanOrEqual(2.001);
			})
		);
	});
	const boxDistance = (points: { x: number; y: number }[], p: { x: number; y: number }) => {
		const best = points.slice(1).map((b, i) => {
			const a = points[i]!;
			const length = Math.hypot(b.x - a.x, b.y - a.y) || 1e-9;
			return Math.abs((b.y - a.y) * p.x - (b.x - a.x) * p.y + b.x * a.y - b.y * a.x) / length;
		});
		return Math.min(...best);
	};

	it('drawn larger and back again they are where they were', () => {
		fc.assert(
			fc.property(
				fc.array(point, { minLength: 2, maxLength: 6 }),
				fc.integer({ min: 1, max: 9 }),
				(points, k) => {
					const box = boxOf(points);
					const larger = { x: box.x - 5, y: box.y + 3, w: box.w * k, h: box.h * k };
					const back = fitted(fitted(points, box, larger), larger, box);
					back.forEach((p, i) => {
						expect(p.x).toBeCloseTo(points[i]!.x, 6);
						expect(p.y).toBeCloseTo(points[i]!.y, 6);
					});
				}
			)
		);
	});
});

describe('shared marks', () => {
	it('a move and new words at the same time both survive', () => {
		const [a, b] = [new Y.Doc(), new Y.Doc()];
		writeMark(a, 'm', fields({ kind: 'callout', text: 'Check' }));
		Y.applyUpdate(b, Y.encodeStateAsUpdate(a));
		changeMark(a, 'm', {
			points: [
				{ x: 1, y: 1 },
				{ x: 2, y: 2 }
			]
		});
		changeMark(b, 'm', { text: 'Check camber' });
		Y.applyUpdate(a, Y.encodeStateAsUpdate(b));
		expect(readMark('m', marksOf(a).get('m'))).toMatchObject({
			text: 'Check camber',
			points: [
				{ x: 1, y: 1 },
				{ x: 2, y: 2 }
			]
		});
	});

	it('what is no mark is none', () => {
		const doc = new Y.Doc();
		marksOf(doc).set('x', new Y.Map([['kind', 'script']]) as Y.Map<unknown>);
		expect(readMark('x', marksOf(doc).get('x'))).toBeNull();
		writeMark(doc, 'y', fields({ points: [{ x: Infinity, y: 0 }] }));
		expect(readMark('y', marksOf(doc).get('y'))).toBeNull();
	});

	it.each([
		['one’s own is made, changed and taken away', undefined, mark(), 'oke', 'own', true],
		['in another’s name none is made', undefined, mark({ by: 'halla' }), 'oke', 'all', false],
		[
			'another’s is not changed with Remark',
			mark({ by: 'halla' }),
			mark({ by: 'halla', text: 'x' }),
			'oke',
			'own',
			false
		],
		[
			'another’s is changed with Work',
			mark({ by: 'halla' }),
			mark({ by: 'halla', text: 'x' }),
			'oke',
			'all',
			true
		],
		[
			'nor in that of somebody outside',
			undefined,
			mark({ by: 'oke', from: 'Maren Aldgate' }),
			'oke',
			'all',
			false
		],
		[
			'nobody’s name outside is changed',
			mark({ from: 'Maren' }),
			mark({ from: 'Kaja' }),
			'oke',
			'all',
			false
		],
		['nobody’s name is changed', mark({ by: 'halla' }), mark({ by: 'oke' }), 'oke', 'all', false],
		['another’s is not taken away with Remark', mark({ by: 'halla' }), undefined, 'oke', 'own', false],
		['what is no mark does not come in', undefined, null, 'oke', 'all', false]
	] as const)('%s', (_, before, after, person, reach, fine) => {
		expect(markFault(before, after, person, reach) === null).toBe(fine);
	});

	it('converge after any histories with partitions', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						who: fc.nat(2),
						id: fc.constantFrom('a', 'b', 'c', 'd'),
						does: fc.constantFrom('make', 'move', 'say', 'remove', 'meet'),
						x: fc.nat(500)
					}),
					{ maxLength: 40 }
				),
				(history) => {
					const sides = [new Y.Doc(), new Y.Doc(), new Y.Doc()];
					const meet = (a: Y.Doc, b: Y.Doc) => {
						Y.applyUpdate(a, Y.encodeStateAsUpdate(b, Y.encodeStateVector(a)));
						Y.applyUpdate(b, Y.encodeStateAsUpdate(a, Y.encodeStateVector(b)));
					};
					for (const { who, id, does, x } of history) {
						const side = sides[who]!;
						if (does === 'make') writeMark(side, id, fields({ order: x }));
						else if (does === 'move') changeMark(side, id, { points: [{ x, y: x }] });
						else if (does === 'say') changeMark(side, id, { text: String(x) });
						else if (does === 'remove') marksOf(side).delete(id);
						else meet(side, sides[(who + 1) % 3]!);
					}
					meet(sides[0]!, sides[1]!);
					meet(sides[1]!, sides[2]!);
					meet(sides[0]!, sides[1]!);
					const said = sides.map((s) => JSON.stringify(sorted(marksOf(s).toJSON())));
					expect(said[1]).toBe(said[0]);
					expect(said[2]).toBe(said[0]);
				}
			),
			{ numRuns: 1_000 }
		);
	});
	const sorted = (of: Record<string, unknown>) => Object.entries(of).sort(([a], [b]) => (a < b ? -1 : 1));
});
