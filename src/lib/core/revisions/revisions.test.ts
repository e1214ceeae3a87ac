import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	compare,
	DEFAULT_SCHEME as S,
	label,
	nextIssue,
	nextSave,
	parse,
	type Purpose,
	type Revision
} from './revisions';

const read = (text: string) => parse(S, text)!;

describe('revision labels', () => {
	it('count working saves under the revision being prepared', () => {
		expect(label(S, nextSave(S, null))).toBe('P01.1');
		expect(label(S, nextSave(S, read('P03.1')))).toBe('P03.2');
		expect(label(S, nextSave(S, read('P03')))).toBe('P04.1');
		expect(label(S, nextSave(S, read('C01')))).toBe('C02.1');
	});

	it('issue what the purpose demands', () => {
		expect(label(S, nextIssue(S, read('P03.2'), 'approval'))).toBe('P03');
		expect(label(S, nextIssue(S, read('P04'), 'construction'))).toBe('C01');
		expect(label(S, nextIssue(S, read('P04.2'), 'construction'))).toBe('C01');
		expect(label(S, nextIssue(S, read('C01.3'), 'comment'))).toBe('C01');
		expect(label(S, nextIssue(S, read('P05'), 'comment'))).toBe('P05');
	});

	it.each(['', 'P', 'P00', 'X01', 'P01.', 'P01.0', 'P01.1.1', 'P-1', 'p01'])('refuses %j', (text) => {
		expect(parse(S, text)).toBeNull();
	});

	it('never repeat or go back through any history of saves and issues', () => {
		const purposes = Object.keys(S.demands) as Purpose[];
		fc.assert(
			fc.property(fc.array(fc.constantFrom('save' as const, ...purposes), { maxLength: 40 }), (steps) => {
				let current: Revision = nextSave(S, null);
				const seen = new Set([label(S, current)]);
				for (const step of steps) {
					const next = step === 'save' ? nextSave(S, current) : nextIssue(S, current, step);
					if (label(S, next) === label(S, current)) continue;
					expect(seen.has(label(S, next))).toBe(false);
					expect(compare(S, next, current)).toBeGreaterThan(0);
					expect(parse(S, label(S, next))).toEqual(next);
					seen.add(label(S, next));
					current = next;
				}
			})
		);
	});
});
