import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allows, cap, higher, levelLabel, LEVELS, rank } from './levels';

const level = fc.constantFrom(...LEVELS);
const held = fc.option(level, { nil: null });

describe('levels', () => {
	it('stand in one order, each with a word', () => {
		expect(LEVELS.map(rank)).toEqual([0, 1, 2, 3, 4, 5, 6]);
		expect(new Set(LEVELS.map(levelLabel)).size).toBe(LEVELS.length);
	});
	it('include those below, but for Drop, which sees nothing and which nobody needs more for', () => {
		for (const needed of LEVELS) {
			expect(allows(null, needed), needed).toBe(false);
			expect(allows('manage', needed), needed).toBe(true);
			expect(allows('drop', needed), needed).toBe(needed === 'drop');
		}
		fc.assert(
			fc.property(level, level, (a, b) => {
				fc.pre(a !== 'drop');
				expect(allows(a, b)).toBe(rank(a) >= rank(b));
			})
		);
	});
	it('of two the higher is one of them, whichever comes first; nothing is lower than any', () => {
		fc.assert(
			fc.property(held, held, held, (a, b, c) => {
				expect(higher(a, b)).toBe(higher(b, a));
				expect([a, b]).toContain(higher(a, b));
				expect(higher(a, higher(b, c))).toBe(higher(higher(a, b), c));
				expect(higher(a, null)).toBe(a);
			})
		);
	});
	it('under a ceiling never rise, never pass it, and are not lowered twice', () => {
		fc.assert(
			fc.property(held, level, (a, ceiling) => {
				const under = cap(a, ceiling);
				expect(under === null).toBe(a === null);
				if (a && under) expect(rank(under)).toBe(Math.min(rank(a), rank(ceiling)));
				expect(cap(under, ceiling)).toBe(under);
			})
		);
	});
});
