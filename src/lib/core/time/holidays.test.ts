import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from './days';
import { readHolidays, writeHolidays } from './holidays';

const TODAY = '2026-11-27';

describe('a list of holidays', () => {
	it('is read as people write it, one a line, in the order of the days', () => {
		const text = '25 Dec 2026, Christmas Day\n\n1 Jan New Year\n2026-12-26; Boxing Day\n24.12. Christmas Eve';
		expect(readHolidays(text, TODAY)).toEqual({
			holidays: [
				{ day: '2026-12-24', name: 'Christmas Eve' },
				{ day: '2026-12-25', name: 'Christmas Day' },
				{ day: '2026-12-26', name: 'Boxing Day' },
				{ day: '2027-01-01', name: 'New Year' }
			],
			faults: []
		});
	});

	it('says which lines are none: no day, no such day, a day without a name', () => {
		expect(
			readHolidays('Midsummer\n31 Feb 2027 Nothing\n17 May 2027 Founders\n6 Jan 2027', TODAY).faults
		).toEqual([1, 2, 4]);
	});

	it('comes back the same from what is written of it', () => {
		const holidays = fc
			.uniqueArray(fc.integer({ min: -400, max: 1_500 }), { maxLength: 12 })
			.map((days) =>
				days
					.map((n) => ({ day: plusDays(TODAY, n), name: `Day ${n}` }))
					.sort((a, b) => a.day.localeCompare(b.day))
			);
		fc.assert(
			fc.property(holidays, (list) => {
				expect(readHolidays(writeHolidays(list), TODAY)).toEqual({ holidays: list, faults: [] });
			})
		);
	});
});
