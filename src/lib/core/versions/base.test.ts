import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { baseOf, baseSentence, type OnLine } from './base';

const line = (...by: string[]): OnLine[] =>
	by.map((byId, i) => ({ label: `P01.${i + 1}`, byId, by: byId, at: '2026-11-01T09:00:00.000Z' }));

describe('what a file was made from', () => {
	it('is the newest version that its sender had', () => {
		expect(baseOf(line('oke', 'oke'), new Set(), 'oke')).toEqual({ label: 'P01.2', since: [] });
		expect(baseOf(line('oke', 'oke'), new Set(['P01.2']), 'rhosyn').since).toEqual([]);
		const behind = baseOf(line('oke', 'ines', 'oke', 'ines'), new Set(['P01.2']), 'rhosyn');
		expect([behind.label, behind.since.map((v) => v.label)]).toEqual(['P01.2', ['P01.3', 'P01.4']]);
		expect(baseSentence(behind)).toBe(
			'Since P01.2, the last version that you are known to have had, oke and ines stored P01.3 to P01.4.'
		);
	});
	it('is not known of who never had one', () => {
		const unknown = baseOf(line('oke'), new Set(['P00.9']), 'rhosyn');
		expect(unknown).toMatchObject({ label: null, since: [{ label: 'P01.1' }] });
		expect(baseSentence(unknown)).toBe(
			'Cupboard does not know which version your file was made from. oke stored P01.1.'
		);
	});
	it('never lets pass what another stored after it, and never speaks of one’s own', () => {
		const people = ['a', 'b', 'c'];
		fc.assert(
			fc.property(
				fc.array(fc.constantFrom(...people), { minLength: 1, maxLength: 12 }),
				fc.array(fc.integer({ min: 1, max: 12 }), { maxLength: 4 }),
				fc.constantFrom(...people),
				(by, had, me) => {
					const versions = line(...by);
					const { label, since } = baseOf(versions, new Set(had.map((n) => `P01.${n}`)), me);
					expect(since.every((v) => v.byId !== me)).toBe(true);
					// Said again from the end: from the newest backwards, all that is not mine until one that I had.
					const buried: string[] = [];
					let known: string | null = null;
					for (const v of [...versions].reverse()) {
						if (v.byId === me || had.includes(Number(v.label.split('.')[1]))) {
							known = v.label;
							break;
						}
						buried.unshift(v.label);
					}
					expect([label, since.map((v) => v.label)]).toEqual([known, buried]);
				}
			)
		);
	});
});
