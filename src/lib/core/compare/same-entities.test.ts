import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withoutSame } from './same-entities';

const texts = fc.array(fc.option(fc.constantFrom('a', 'b', 'c', 'd'), { nil: null, freq: 8 }), {
	maxLength: 30
});
const counted = (list: readonly (string | null)[]) => {
	const counts: Record<string, number> = {};
	for (const one of list) if (one !== null) counts[one] = (counts[one] ?? 0) + 1;
	return counts;
};

describe('what two lists of texts have in common', () => {
	it('is left out of both as often as it stands in both, wherever it does, and null never is', () => {
		fc.assert(
			fc.property(texts, texts, (before, after) => {
				const rest = withoutSame(before, after);
				const [inBefore, inAfter] = [counted(before), counted(after)];
				const left = (all: readonly (string | null)[], places: number[]) =>
					counted(places.map((at) => all[at]!));
				for (const text of ['a', 'b', 'c', 'd']) {
					const [n, m] = [inBefore[text] ?? 0, inAfter[text] ?? 0];
					expect(left(before, rest.before)[text] ?? 0).toBe(Math.max(0, n - m));
					expect(left(after, rest.after)[text] ?? 0).toBe(Math.max(0, m - n));
				}
				const nulls = (all: readonly (string | null)[]) =>
					all.flatMap((one, at) => (one === null ? [at] : []));
				expect(rest.before).toEqual(expect.arrayContaining(nulls(before)));
				expect(rest.after).toEqual(expect.arrayContaining(nulls(after)));
				expect(rest.before).toEqual(rest.before.toSorted((a, b) => a - b));
				expect(rest.after).toEqual(rest.after.toSorted((a, b) => a - b));
			})
		);
	});

	it('stays where it stood: of several alike, what was put in between is what is left', () => {
		expect(withoutSame(['a', 'b', 'c'], ['a', 'x', 'b', 'c'])).toEqual({ before: [], after: [1] });
		expect(withoutSame(['a', 'x', 'b'], ['a', 'b'])).toEqual({ before: [1], after: [] });
	});
});
