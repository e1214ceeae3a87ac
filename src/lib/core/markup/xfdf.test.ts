import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	annotationsOf,
	inverse,
	marksFrom,
	pageMatrix,
	through,
	type Annotation,
	type Matrix
} from './annotations';
import { FEWEST, MARK_KINDS, WITH_WORDS, type Mark, type MarkKind } from './mark';
import { fromXfdf, isoDate, pdfDate, toXfdf } from './xfdf';

const page = pageMatrix({ x: 10, y: 20, w: 842, h: 595 }, 0);
const saying = { colour: '#2c5d8f', dash: [6, 3], width: 1.5, author: 'Oke Lindvar', measure: '' };
const mark = (kind: MarkKind, more: Partial<Mark> = {}): Mark => ({
	id: `m-${kind}`,
	kind,
	page: 2,
	points: [
		{ x: 100, y: 120 },
		{ x: 220, y: 190 },
		{ x: 180, y: 260 }
	].slice(0, kind === 'area' || kind === 'polyline' || kind === 'freehand' ? 3 : FEWEST[kind]),
	turn: 0,
	size: 9,
	text: WITH_WORDS.has(kind) ? 'Check “camber” & <hinge>\nat midspan' : '',
	layer: 'MW',
	by: 'oke',
	at: '2026-11-25T10:20:30.000Z',
	group: null,
	order: 1,
	carried: null,
	...more
});
const near = (a: readonly { x: number; y: number }[], b: readonly { x: number; y: number }[]) => {
	expect(a).toHaveLength(b.length);
	a.forEach((p, i) => {
		expect(p.x).toBeCloseTo(b[i]!.x, 2);
		expect(p.y).toBeCloseTo(b[i]!.y, 2);
	});
};

describe('marks as annotations', () => {
	it.each(MARK_KINDS)('a %s comes back through XFDF as what it was, where it was', (kind) => {
		const before = mark(kind);
		const { annotations, others } = fromXfdf(toXfdf(annotationsOf(before, page, saying), 'sheet.pdf'));
		expect(others).toBe(0);
		expect(annotations).toHaveLength(1);
		const after = marksFrom(annotations[0]!, inverse(page), 'g')[0]!;
		expect([after.kind, after.page, after.text]).toEqual([kind, 2, before.text]);
		near(after.points, before.points);
		expect(annotations[0]).toMatchObject({ author: 'Oke Lindvar', at: before.at, colour: '#2c5d8f' });
	});

	it('a count is a mark a point, a turned rectangle keeps its corners', () => {
		const count = mark('count', { points: [0, 1, 2].map((i) => ({ x: 50 + i * 20, y: 50 })) });
		expect(annotationsOf(count, page, saying).map((a) => a.name)).toEqual([
			'm-count-1',
			'm-count-2',
			'm-count-3'
		]);
		const [turned] = annotationsOf(mark('rectangle', { turn: 90 }), page, saying);
		expect(turned).toMatchObject({ type: 'Polygon', cloudy: false });
		expect(marksFrom(turned!, inverse(page), 'g')[0]!.points).toHaveLength(5);
	});

	it('pages that are turned and cut lead there and back', () => {
		for (const turn of [0, 90, 180, 270, -90]) {
			const there = pageMatrix({ x: 5, y: 7, w: 600, h: 400 }, turn);
			near([through(inverse(there), through(there, { x: 30, y: 40 }))], [{ x: 30, y: 40 }]);
		}
		// The upper left corner as it is seen, of a page that is turned a quarter clockwise, is its lower left.
		near([through(pageMatrix({ x: 5, y: 7, w: 600, h: 400 }, 90), { x: 0, y: 0 })], [{ x: 5, y: 7 }]);
	});

	it('times are PDF’s, with their zones', () => {
		expect(pdfDate('2026-11-25T10:20:30.000Z')).toBe('D:20261125102030Z');
		expect(isoDate("D:20261125112030+01'00'")).toBe('2026-11-25T10:20:30.000Z');
		expect(isoDate('D:2026')).toBe('2026-01-01T00:00:00.000Z');
		expect(isoDate('soon')).toBeNull();
	});

	it('reads what other programs write, and counts what there is not here', () => {
		const { annotations, others } =
			fromXfdf(`<?xml version="1.0"?><xfdf xmlns="http://ns.adobe.com/xfdf/"><annots>
			<line page="0" rect="0,0,10,10" start="1,2" end="3,4" head="OpenArrow" tail="None" color="#FF0000"><contents><![CDATA[see]]></contents></line>
			<text page="0" rect="0,0,10,10"><contents>a note</contents></text>
			<ink page="3" rect="0,0,9,9"><inklist><gesture>1,1;2,2</gesture><gesture>3,3;4,4</gesture></inklist></ink>
			<polygon page="0" rect="0,0,9,9" color="red"><vertices>0,0;nothing,5;9,0;9,9</vertices></polygon>
		</annots></xfdf>`);
		expect(others).toBe(1);
		expect(annotations.map((a) => a.type)).toEqual(['Line', 'Ink', 'Polygon']);
		expect(annotations[0]).toMatchObject({
			head: true,
			contents: 'see',
			points: [
				{ x: 3, y: 4 },
				{ x: 1, y: 2 }
			]
		});
		expect(annotations[1]!.page).toBe(4);
		const flip: Matrix = [1, 0, 0, -1, 0, 10];
		expect(marksFrom(annotations[1]!, flip, 'drawn').map((m) => [m.kind, m.group, m.points])).toEqual([
			[
				'freehand',
				'drawn',
				[
					{ x: 1, y: 9 },
					{ x: 2, y: 8 }
				]
			],
			[
				'freehand',
				'drawn',
				[
					{ x: 3, y: 7 },
					{ x: 4, y: 6 }
				]
			]
		]);
		// A dot of a washing pen is no stroke, and brings nothing down.
		expect(
			marksFrom({ ...annotations[1]!, opacity: 0.3, points: [{ x: 1, y: 1 }], strokes: [] }, flip, 'x')
		).toEqual([]);
		expect(annotations[2]!.points).toHaveLength(3);
	});

	it.each([
		['not at all', 'just words'],
		['another XML', '<svg></svg>'],
		['broken off', '<xfdf><annots><line'],
		['entities', '<!DOCTYPE x [<!ENTITY a "aaaa">]><xfdf><annots/></xfdf>']
	])('%s is refused with a sentence', (_, text) => expect(() => fromXfdf(text)).toThrow(/\.$/));

	it('any words and any numbers survive, and nothing brings it down', () => {
		const any = fc.record({
			x: fc.double({ noNaN: true, min: -1e5, max: 1e5 }),
			y: fc.double({ noNaN: true, min: -1e5, max: 1e5 })
		});
		fc.assert(
			fc.property(
				fc.string({ unit: 'binary', maxLength: 60 }),
				fc.array(any, { minLength: 2, maxLength: 9 }),
				(text, points) => {
					const [made] = annotationsOf(mark('polyline', { points, text }), page, saying) as [Annotation];
					const [read] = fromXfdf(toXfdf([made], 'a.pdf')).annotations;
					near(read!.points, made.points);
					// XML knows no control characters, and lone halves of letters are none.
					const kept = (words: string) => words.replace(/[\p{Cc}\p{Cs}\ufffe\uffff]/gu, '').trim();
					expect(kept(read!.contents)).toBe(kept(text));
				}
			)
		);
	});
});
