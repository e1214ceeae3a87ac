import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { standardRule } from '../numbering/numbering';
import { arranged, arrangementWords, AS_ADDED, groupings, ITEM_ORDERS, NO_GROUP } from './arrange';

const rule = standardRule('VFT', [
	{ code: 'MW', name: 'Marine works' },
	{ code: 'AR', name: 'Architecture' }
]);
const item = (number: string, title = number, placed: number | null = null) => ({ number, title, placed });
const items = [
	item('VFT-AR-TB-00-DR-0010', 'Roof'),
	item('VFT-MW-LS-00-DR-0102', 'Deck'),
	item('VFT-AR-TB-00-DR-0002', 'Stairs'),
	item('an old number', 'Minutes'),
	item('VFT-MW-LS-00-DR-0101', 'Hinge')
];

describe('the documents of a release', () => {
	it('stand as they were added, or in order, in one list', () => {
		expect(arranged(items, AS_ADDED, rule)).toEqual(items.map((one) => ({ ...one, heading: '' })));
		const titles = arranged(items, { order: 'title', group: null }, rule).map((one) => one.title);
		expect(titles).toEqual(['Deck', 'Hinge', 'Minutes', 'Roof', 'Stairs']);
	});

	it('stand in an order set by hand, what came after it last, as it was added', () => {
		const placed = [item('D', 'fourth'), item('B', 'second', 2), item('E', 'fifth'), item('A', 'first', 1)];
		const listed = arranged([...placed, item('C', 'third', 7)], { order: 'placed', group: null }, rule);
		expect(listed.map(({ title }) => title)).toEqual(['first', 'second', 'third', 'fourth', 'fifth']);
	});

	it('stand in groups in the order of the rule, each in order; what it does not know comes last', () => {
		expect(
			arranged(items, { order: 'number', group: 'department' }, rule).map(({ heading, title }) => [
				heading,
				title
			])
		).toEqual([
			['Marine works', 'Hinge'],
			['Marine works', 'Deck'],
			['Architecture', 'Stairs'],
			['Architecture', 'Roof'],
			[NO_GROUP, 'Minutes']
		]);
	});

	it('are the same whatever their order, and each heading stands once', () => {
		const numbers = fc.constantFrom(...items.map((one) => one.number), 'VFT-XX-TB-00-DR-0001');
		fc.assert(
			fc.property(
				fc.array(fc.record({ number: numbers, title: fc.string(), placed: fc.option(fc.nat(9)) })),
				fc.constantFrom(...ITEM_ORDERS),
				fc.constantFrom(null, 'department', 'type', 'gone'),
				(some, order, group) => {
					const listed = arranged(some, { order, group }, rule);
					const plain = listed.map(({ heading: _, ...one }) => one);
					const key = (one: object) => JSON.stringify(one);
					expect(plain.map(key).sort()).toEqual(some.map(key).sort());
					const heads = listed.flatMap(({ heading }, i) =>
						heading === listed[i - 1]?.heading ? [] : [heading]
					);
					expect(new Set(heads).size).toBe(heads.length);
				}
			)
		);
	});

	it('are grouped by what tells several apart, and it is said in words', () => {
		expect(groupings(rule).map((one) => one.key)).toEqual(['department', 'zone', 'level', 'type']);
		expect(arrangementWords(AS_ADDED, rule)).toBe('as they were added');
		expect(arrangementWords({ order: 'number', group: 'department' }, rule)).toBe(
			'by number, in groups by department'
		);
	});
});
