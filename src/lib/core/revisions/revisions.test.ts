import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	EXAMPLE_SCHEMES,
	checkScheme,
	compare,
	DEFAULT_SCHEME as S,
	exampleOf,
	type RevisionScheme,
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

describe('a scheme', () => {
	it.each(EXAMPLE_SCHEMES)('to begin from, $label, can be used', ({ scheme }) => {
		expect(checkScheme(scheme)).toBeNull();
		const labels = exampleOf(scheme);
		expect(new Set(labels).size).toBe(labels.length);
		for (const { prefix } of scheme.sequences) expect(labels.some((l) => l.startsWith(prefix))).toBe(true);
	});

	it('is refused with a sentence when it cannot be used', () => {
		const broken = (change: (s: RevisionScheme) => void, used: string[] = []) => {
			const scheme = structuredClone(S);
			change(scheme);
			return checkScheme(scheme, used);
		};
		expect(broken(() => {})).toBeNull();
		expect(broken((s) => (s.sequences = []))).toContain('at least one');
		expect(broken((s) => (s.sequences[0]!.prefix = 'p1'))).toContain('capital letters');
		expect(broken((s) => (s.sequences[1]!.prefix = 'P'))).toContain('twice');
		expect(broken((s) => (s.sequences[0]!.digits = 9))).toContain('digits');
		expect(broken((s) => (s.demands.comment = 'Q'))).toContain('demands Q');
		expect(broken(() => {}, ['P01.2', 'C03'])).toBeNull();
		expect(broken((s) => (s.sequences[0]!.digits = 3), ['P01'])).toContain('wear P01');
		expect(broken(() => {}, ['X01'])).toContain('wear X01');
	});
	it('shows labels that it can read again, in rising order', () => {
		const labels = exampleOf(S);
		expect(labels.slice(0, 4)).toEqual(['P01.1', 'P01', 'P02.1', 'P02']);
		const read = labels.map((text) => parse(S, text)!);
		expect([...read].sort((a, b) => compare(S, a, b))).toEqual(read);
	});
});
