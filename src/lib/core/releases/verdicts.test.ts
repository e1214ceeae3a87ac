import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { canConsolidate, outcomeOf, VERDICTS } from './verdicts';

describe('the verdicts on a document', () => {
	const given = fc.array(fc.option(fc.constantFrom(...VERDICTS), { nil: null }), { maxLength: 4 });

	it('come to one only where everybody who is asked gave it, in whatever order they sign', () => {
		fc.assert(
			fc.property(given, fc.nat(3), (of, turn) => {
				const outcome = outcomeOf(of);
				expect(outcomeOf([...of.slice(turn), ...of.slice(0, turn)])).toBe(outcome);
				if (outcome === 'open') expect(of.length === 0 || of.includes(null)).toBe(true);
				else if (outcome === 'differ') expect(new Set(of).size).toBeGreaterThan(1);
				else expect(new Set(of)).toEqual(new Set([outcome]));
			})
		);
	});

	it('are made one by a controller only where several were asked and did not agree', () => {
		for (const [of, may] of [
			[[], false],
			[['C'], false],
			[[null], false],
			[[null, null], false],
			[['A', 'A'], false],
			[['A', 'C'], true],
			[['A', null], true]
		] as const)
			expect(canConsolidate(of), of.join()).toBe(may);
	});
});
