import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from './days';
import {
	nextWorkingDay,
	ORDINARY_WEEK,
	plusWorkingDays,
	restOn,
	WEEKDAYS,
	workingDaysBetween,
	workingDaysWords,
	type WorkCalendar
} from './working-days';

const VENNHOLM: WorkCalendar = {
	weekend: ['Sat', 'Sun'],
	holidays: [
		{ day: '2026-12-24', name: 'Christmas Eve' },
		{ day: '2026-12-25', name: 'Christmas Day' },
		{ day: '2027-01-01', name: 'New Year' }
	]
};

describe('working days', () => {
	it('leave out weekends and holidays, and say which', () => {
		expect(restOn('2026-11-27', VENNHOLM)).toBeNull();
		expect(restOn('2026-11-28', VENNHOLM)).toBe('weekend');
		expect(restOn('2026-12-25', VENNHOLM)).toBe('Christmas Day');
		expect(nextWorkingDay('2026-12-24', VENNHOLM)).toBe('2026-12-28');
	});

	it('are said as people count them', () => {
		const words = (to: string) => workingDaysWords('2026-12-22', to, VENNHOLM);
		expect(words('2026-12-22')).toBe('today');
		expect(words('2026-12-23')).toBe('in 1 working day');
		expect(words('2027-01-05')).toBe('in 7 working days');
		expect(words('2026-12-21')).toBe('1 working day ago');
		expect(words('2026-12-25')).toBe('in 1 working day; nobody works then (Christmas Day)');
		expect(words('2026-12-26')).toBe('in 1 working day; nobody works then (weekend)');
	});

	it('are counted as an office counts them', () => {
		expect(plusWorkingDays('2026-11-27', 1, VENNHOLM)).toBe('2026-11-30');
		expect(plusWorkingDays('2026-12-23', 2, VENNHOLM)).toBe('2026-12-29');
		expect(plusWorkingDays('2026-12-28', -1, VENNHOLM)).toBe('2026-12-23');
		expect(plusWorkingDays('2026-11-28', 0, VENNHOLM)).toBe('2026-11-30');
		expect(workingDaysBetween('2026-12-23', '2026-12-29', VENNHOLM)).toBe(2);
	});

	it('follow the week of the project, wherever it is', () => {
		const gulf: WorkCalendar = { weekend: ['Fri', 'Sat'], holidays: [] };
		expect(plusWorkingDays('2026-11-26', 1, gulf)).toBe('2026-11-29');
	});

	it('end a calendar on which nobody ever works, instead of looking for ever', () => {
		const never: WorkCalendar = { weekend: [...WEEKDAYS], holidays: [] };
		expect(() => nextWorkingDay('2026-11-27', never)).toThrow(RangeError);
		expect(() => plusWorkingDays('2026-11-27', 3, never)).toThrow(RangeError);
	});

	const day = fc.integer({ min: 0, max: 20_000 }).map((n) => plusDays('1990-01-01', n));
	const calendar = fc.record({
		weekend: fc.subarray([...WEEKDAYS], { maxLength: 6 }),
		holidays: fc.array(fc.record({ day, name: fc.constant('feast') }), { maxLength: 20 })
	});

	it('count back what was counted forward, whatever the calendar', () => {
		fc.assert(
			fc.property(day, fc.integer({ min: 1, max: 80 }), calendar, (from, days, cal) => {
				const to = plusWorkingDays(from, days, cal);
				expect(restOn(to, cal)).toBeNull();
				expect(workingDaysBetween(from, to, cal)).toBe(days);
				expect(workingDaysBetween(to, from, cal)).toBe(-days);
			}),
			{ numRuns: 60 }
		);
	});

	it('are all days but weekends where there are no holidays', () => {
		fc.assert(
			fc.property(day, fc.integer({ min: 1, max: 200 }), (from, weeks) => {
				const monday = nextWorkingDay(from, ORDINARY_WEEK);
				expect(plusWorkingDays(monday, weeks * 5, ORDINARY_WEEK)).toBe(plusDays(monday, weeks * 7));
			}),
			{ numRuns: 40 }
		);
	});
});
