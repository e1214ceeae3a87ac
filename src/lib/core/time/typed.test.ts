import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayWords, plusDays } from './days';
import { dayTyped, timeTyped } from './typed';

const TODAY = '2026-11-27';

describe('a day as people type it', () => {
	it.each([
		['27 Nov', '2026-11-27'],
		['3 dec', '2026-12-03'],
		['27 November 2027', '2027-11-27'],
		['Nov 27', '2026-11-27'],
		['27.11.', '2026-11-27'],
		['1.2.2027', '2027-02-01'],
		['1/2/27', '2027-02-01'],
		['2027-6-3', '2027-06-03'],
		['today', TODAY],
		['tomorrow', '2026-11-28']
	])('is read: %s', (typed, day) => {
		expect(dayTyped(typed, TODAY)).toBe(day);
	});

	it.each(['', 'soon', '31 Nov', '29.2.2027', '2026-13-01', '27 Foo', '2026', '0 Jan'])(
		'is none: “%s”',
		(typed) => {
			expect(dayTyped(typed, TODAY)).toBeNull();
		}
	);

	it('comes back from how days are written, and from how programs exchange them', () => {
		fc.assert(
			fc.property(fc.integer({ min: -9_000, max: 9_000 }), (ahead) => {
				const day = plusDays(TODAY, ahead);
				expect(dayTyped(dayWords(day, TODAY), TODAY)).toBe(day);
				expect(dayTyped(day, TODAY)).toBe(day);
			})
		);
	});

	it('never fails, whatever is typed', () => {
		fc.assert(
			fc.property(fc.string({ maxLength: 20 }), (text) => {
				const day = dayTyped(text, TODAY);
				if (day !== null) expect(day).toMatch(/^\d{4}-\d{2}-\d{2}$/);
			})
		);
	});
});

describe('a day that is still to come', () => {
	it.each([
		['27 Nov', '2026-11-27'],
		['31 Dec', '2026-12-31'],
		['1 Jan', '2027-01-01'],
		['1.1.', '2027-01-01'],
		['Jan 1', '2027-01-01'],
		['31.12.2025', '2025-12-31'],
		['29 Feb', null],
		['soon', null]
	])('%s', (text, day) => {
		expect(dayTyped(text, '2026-11-27', true)).toBe(day);
	});
});

describe('a time of day as people type it', () => {
	it('is read to the minute, and refused where there is none', () => {
		expect(['9', '17:30', '9.15', '0730', '7h05'].map(timeTyped)).toEqual([
			'09:00',
			'17:30',
			'09:15',
			'07:30',
			'07:05'
		]);
		expect(['', '24:00', '12:60', 'noon', '123456'].map(timeTyped)).toEqual([null, null, null, null, null]);
	});
});
