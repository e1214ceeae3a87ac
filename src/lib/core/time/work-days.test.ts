import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from './days';
import { WorkDays } from './work-days';
import {
	nextWorkingDay,
	plusWorkingDays,
	WEEKDAYS,
	workingDaysBetween,
	type WorkCalendar
} from './working-days';

const day = fc.integer({ min: -900, max: 900 }).map((n) => plusDays('2026-11-27', n));
const calendar: fc.Arbitrary<WorkCalendar> = fc.record({
	weekend: fc.subarray([...WEEKDAYS], { maxLength: 4 }),
	holidays: fc.uniqueArray(
		day.map((one) => ({ day: one, name: 'off' })),
		{ maxLength: 30, selector: (one) => one.day }
	)
});

describe('working days counted ahead', () => {
	it('are those that are counted one by one', () => {
		fc.assert(
			fc.property(calendar, day, day, fc.integer({ min: -60, max: 60 }), (of, a, b, n) => {
				const days = new WorkDays(of);
				expect(days.between(a, b)).toBe(workingDaysBetween(a, b, of));
				expect(days.plus(a, n)).toBe(plusWorkingDays(a, n, of));
				expect(days.next(a)).toBe(nextWorkingDay(a, of));
			}),
			{ numRuns: 150 }
		);
	});

	it('are none, without a sign, between two days of one weekend', () => {
		const of: WorkCalendar = { weekend: ['Sat', 'Sun'], holidays: [] };
		for (const between of [
			(a: string, b: string) => workingDaysBetween(a, b, of),
			(a: string, b: string) => new WorkDays(of).between(a, b)
		]) {
			expect(between('2026-11-29', '2026-11-28')).toBe(0);
			expect(between('2026-11-28', '2026-11-29')).toBe(0);
			expect(between('2026-11-30', '2026-11-27')).toBe(-1);
		}
	});

	it('reach beyond the days that are counted ahead', () => {
		const of: WorkCalendar = { weekend: ['Sat', 'Sun'], holidays: [] };
		const days = new WorkDays(of);
		for (const from of ['1989-12-30', '1990-01-01', '2099-12-30', '2150-06-01'])
			for (const n of [-7, -1, 0, 1, 7]) expect(days.plus(from, n)).toBe(plusWorkingDays(from, n, of));
		expect(days.between('2099-12-28', '2100-01-04')).toBe(workingDaysBetween('2099-12-28', '2100-01-04', of));
	});
});
