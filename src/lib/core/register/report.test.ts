import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../time/days';
import { WEEKDAYS, weekdayOf } from '../time/working-days';
import { reportDue } from './report';

describe('the weekly report', () => {
	it('goes out once a week on its day, and once for a day that was missed', () => {
		const monday = '2026-11-23';
		expect(reportDue('Mon', monday, null)).toBe(true);
		expect(reportDue('Mon', plusDays(monday, 2), null)).toBe(false);
		expect(reportDue('Mon', monday, monday)).toBe(false);
		expect(reportDue('Mon', plusDays(monday, 3), plusDays(monday, -7))).toBe(true);
		expect(reportDue('Mon', plusDays(monday, 6), monday)).toBe(false);
	});

	it('goes out exactly once in every week that something runs on each day of', () => {
		fc.assert(
			fc.property(fc.constantFrom(...WEEKDAYS), fc.integer({ min: 0, max: 6 }), (weekday, from) => {
				let last: string | null = null;
				const sent: string[] = [];
				for (let n = 0; n < 70; n++) {
					const today = plusDays('2026-09-07', from + n);
					if (!reportDue(weekday, today, last)) continue;
					sent.push(today);
					last = today;
				}
				expect(sent).toHaveLength(10);
				expect(sent.every((day) => weekdayOf(day) === weekday)).toBe(true);
			})
		);
	});
});
