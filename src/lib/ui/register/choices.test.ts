import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GROUPINGS, ORDERS } from '../../core/register';
import { askedFor, figuresOf, ONLY, queryOf, shownOf, type Counts, type Shown } from './choices';
import { ZOOMS } from './strip';

const usual = shownOf(new URLSearchParams());
const word = fc.constantFrom('', 'MW', 'a b', 'ä&=?');
const some = fc.uniqueArray(fc.constantFrom('MW', 'PL', 'a b', 'ä&=?'));
const shown: fc.Arbitrary<Shown> = fc.record({
	department: some,
	zone: some,
	type: some,
	responsible: some,
	stage: word,
	words: word,
	only: fc.constantFrom('', ...ONLY),
	from: fc.constantFrom('', '2026-11-27'),
	to: fc.constantFrom('', '2026-12-27'),
	group: fc.constantFrom(...GROUPINGS),
	order: fc.constantFrom(...ORDERS),
	down: fc.boolean(),
	zoom: fc.constantFrom(...ZOOMS.map((one) => one.value))
});

describe('what the register shows', () => {
	it('stands in its address and comes back from it', () => {
		fc.assert(
			fc.property(shown, (one) => {
				expect(shownOf(new URLSearchParams(queryOf(one)))).toEqual(one);
			})
		);
		expect(queryOf(usual)).toBe('');
	});

	it('takes what an address does not know for the usual', () => {
		const odd = new URLSearchParams('only=everything&group=colour&order=luck&zoom=far');
		expect(shownOf(odd)).toEqual(usual);
	});

	it('is asked for by one figure at a time', () => {
		expect(askedFor({ ...usual, department: ['x', 'y'], only: 'with-client' })).toMatchObject({
			departments: ['x', 'y'],
			statuses: ['with-client'],
			late: false
		});
		expect(askedFor({ ...usual, only: 'late' })).toMatchObject({ statuses: [], late: true, undated: false });
		expect(askedFor(usual)).not.toHaveProperty('stage');
	});
});

it('figures that count nothing keep their places, so that nothing moves when somebody else gives them something', () => {
	const counts = {
		late: 3,
		none: 0,
		withClient: 0,
		returned: 1,
		met: 2,
		wasLate: 0,
		done: 4,
		undated: 0,
		missing: 5
	};
	const words = (of: Partial<Counts>, stage: string | null) =>
		figuresOf({ ...counts, ...of } as Counts, stage, true).map((one) => one.word);
	expect(figuresOf(counts as Counts, null, true).map((one) => `${one.word} ${one.count}`)).toEqual([
		'Late or slipping 3',
		'No document yet 0',
		'With the client 0',
		'Returned 1',
		'All stages met 4',
		'Without a day 0',
		'Numbers missing 5'
	]);
	// That a number is missing is told to those who may add documents.
	expect(figuresOf(counts as Counts, null, false).map((one) => one.only)).not.toContain('missing');
	for (const stage of [null, 'approval'])
		expect(words({ late: 0, none: 1, undated: 2, wasLate: 1 }, stage)).toEqual(words({}, stage));
});
