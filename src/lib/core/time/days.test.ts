import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, dayWords, dayWordsOf, lastMomentOf, momentOf, plusDays, timeOf } from './days';

const ZONES = ['UTC', 'Europe/Copenhagen', 'America/St_Johns', 'Pacific/Auckland', 'Pacific/Kiritimati'];

describe('days of a project', () => {
	it('are those of its own clock, not of the server’s', () => {
		const late = '2026-11-27T23:30:00Z';
		expect(dayOf(late, 'Europe/Copenhagen')).toBe('2026-11-28');
		expect(dayOf(late, 'America/St_Johns')).toBe('2026-11-27');
		expect(plusDays('2026-12-31', 1)).toBe('2027-01-01');
	});
	it.each(ZONES)('given as days are those days in %s', (zone) => {
		expect(dayOf('2026-12-05', zone)).toBe('2026-12-05');
		expect(dayWordsOf('2026-12-05', zone, new Date('2026-12-01T12:00:00Z'))).toBe('5 Dec');
	});
	it('end when the clock says so, also when it is put forward or back', () => {
		expect(lastMomentOf('2026-03-29', 'Europe/Copenhagen').toISOString()).toBe('2026-03-29T21:59:59.999Z');
		expect(lastMomentOf('2026-10-25', 'Europe/Copenhagen').toISOString()).toBe('2026-10-25T22:59:59.999Z');
		fc.assert(
			fc.property(
				fc.date({ min: new Date('2000-01-01'), max: new Date('2060-01-01'), noInvalidDate: true }),
				fc.constantFrom(...ZONES),
				(at, zone) => {
					const day = dayOf(at, zone);
					const end = lastMomentOf(day, zone);
					expect(end.getTime()).toBeGreaterThanOrEqual(at.getTime());
					expect(dayOf(end, zone)).toBe(day);
					expect(dayOf(new Date(end.getTime() + 1), zone)).toBe(plusDays(day, 1));
				}
			)
		);
	});
	it('and a time make the moment that is meant there, also where the clocks skip it', () => {
		expect(momentOf('2026-11-27', '17:00', 'Europe/Copenhagen').toISOString()).toBe(
			'2026-11-27T16:00:00.000Z'
		);
		expect(momentOf('2026-03-29', '02:30', 'Europe/Copenhagen').toISOString()).toBe(
			'2026-03-29T01:30:00.000Z'
		);
		fc.assert(
			fc.property(
				fc.date({ min: new Date('2000-01-01'), max: new Date('2060-01-01'), noInvalidDate: true }),
				fc.constantFrom(...ZONES),
				(at, zone) => {
					const back = momentOf(dayOf(at, zone), timeOf(at, zone), zone);
					// The minute comes back, but for the hour that clocks show twice.
					expect(Math.abs(back.getTime() - at.getTime())).toBeLessThanOrEqual(3_660_000);
				}
			)
		);
	});
	it('read as people write them, with the year where it is another', () => {
		expect(dayWords('2026-11-07', '2026-01-01')).toBe('7 Nov');
		expect(dayWords('2027-01-07', '2026-11-01')).toBe('7 Jan 2027');
		expect(dayWordsOf('2026-12-31T23:30:00Z', 'Europe/Copenhagen', new Date('2026-11-01'))).toBe(
			'1 Jan 2027'
		);
	});
});
