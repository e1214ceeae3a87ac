import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkNumber, standardRule } from '../numbering/numbering';
import { plusDays } from '../time/days';
import { WorkDays } from '../time/work-days';
import { ORDINARY_WEEK } from '../time/working-days';
import { fromTemplate, templateOf } from './template';

const rule = standardRule('VFT', [
	{ code: 'MW', name: 'Marine works' },
	{ code: 'AR', name: 'Architecture' }
]);
const days = new WorkDays(ORDINARY_WEEK);
const working = fc.integer({ min: -200, max: 200 }).map((n) => days.next(plusDays('2026-11-27', n)));
const patterns = fc.uniqueArray(
	fc.record({
		number: fc
			.tuple(fc.constantFrom('LS', 'QW'), fc.constantFrom('DR', 'SP'), fc.integer({ min: 1, max: 300 }))
			.map(([zone, type, n]) => `VFT-MW-${zone}-00-${type}-${String(n).padStart(4, '0')}`),
		title: fc.constantFrom('Plan', 'Section', 'Hinge details'),
		weight: fc.constantFrom(0.5, 1, 3),
		planned: fc.dictionary(fc.constantFrom('comment', 'approval', 'construction'), fc.option(working), {
			noNullPrototype: true
		})
	}),
	{ selector: (one) => one.number, maxLength: 20 }
);

describe('a template of deliverables', () => {
	it('makes the same again elsewhere, as far apart in working days, with numbers that are free', () => {
		fc.assert(
			fc.property(patterns, working, (all, begins) => {
				const template = templateOf(all, rule, days);
				const used = all.map((one) => one.number);
				const taken = new Set(used);
				const made = fromTemplate(template, rule, { project: 'VFT', department: 'MW' }, begins, days, taken);
				const numbers = made.map((one) => one.number);
				expect(new Set([...numbers, ...used]).size).toBe(numbers.length + used.length);
				expect(numbers.every((number) => checkNumber(rule, number).ok)).toBe(true);
				// A template of what it made is the same template.
				const again = templateOf(made, rule, days);
				expect(again).toEqual(template);
			})
		);
	});

	it('takes what shall be other for every number', () => {
		const [line] = templateOf(
			[{ number: 'VFT-MW-LS-00-DR-0101', title: 'Plan', weight: 1, planned: { comment: '2026-11-02' } }],
			rule,
			days
		);
		expect(line!.parts).toEqual({ zone: 'LS', level: '00', type: 'DR' });
		const at = { project: 'VFT', department: 'AR', zone: 'TB' };
		expect(fromTemplate([line!], rule, at, '2027-01-04', days, new Set(['VFT-AR-TB-00-DR-0007']))).toEqual([
			{ number: 'VFT-AR-TB-00-DR-0008', title: 'Plan', weight: 1, planned: { comment: '2027-01-04' } }
		]);
	});
});
