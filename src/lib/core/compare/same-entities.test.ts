import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withoutSame } from './same-entities';

const prints = fc
	.array(fc.constantFrom(1, 2, 3, 4, NaN), { maxLength: 30 })
	.map((list) => Float64Array.from(list));
const counted = (list: Iterable<number>) => {
	const counts = new Map<number, number>();
	for (const one of list) counts.set(one, (counts.get(one) ?? 0) + 1);
	return counts;
};

describe('what two lists have in common', () => {
	it('is left out of both as often as it stands in both, wherever it does, and what is no number never is', () => {
		fc.assert(
			fc.property(prints, prints, (before, after) => {
				const rest = withoutSame(before, after);
				const [inBefore, inAfter] = [counted(before), counted(after)];
				const left = (all: Float64Array, places: number[]) => counted(places.map((at) => all[at]!));
				for (const print of [1, 2, 3, 4]) {
					const [n, m] = [inBefore.get(print) ?? 0, inAfter.get(print) ?? 0];
					expect(left(before, rest.before).get(print) ?? 0).toBe(Math.max(0, n - m));
					expect(left(after, rest.after).get(print) ?? 0).toBe(Math.max(0, m - n));
				}
				for (const [all, places] of [
					[before, rest.before],
					[after, rest.after]
				] as const) {
					expect(left(all, places).get(NaN)).toBe(counted(all).get(NaN));
					expect(places).toEqual(places.toSorted((a, b) => a - b));
				}
			})
		);
	});

	it('stays where it stood: of several alike, what was put in between is what is left', () => {
		const of = (...list: number[]) => Float64Array.from(list);
		expect(withoutSame(of(1, 2, 3), of(1, 9, 2, 3))).toEqual({ before: [], after: [1] });
		expect(withoutSame(of(1, 9, 2), of(1, 2))).toEqual({ before: [1], after: [] });
	});
});
