import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../time/days';
import { ORDINARY_WEEK, restOn } from '../time/working-days';
import { reminderDays, reminderDue, USUAL_RHYTHM, type Asked } from './reminders';

/** A Monday. */
const MONDAY = '2026-11-23';
const asked: Asked = { issued: MONDAY, replyBy: '2026-12-04', received: false, answered: false };
const days = (more: Partial<Asked> = {}, calendar = ORDINARY_WEEK) =>
	reminderDays({ ...asked, ...more }, USUAL_RHYTHM, calendar).map(({ day, of }) => `${day} ${of}`);

describe('reminders of a release', () => {
	it('come by the rhythm, in working days', () => {
		expect(days()).toEqual([
			'2026-11-26 receipt',
			'2026-12-02 soon',
			'2026-12-07 overdue',
			'2026-12-11 overdue',
			'2026-12-18 overdue'
		]);
		// A holiday on the 26th moves the first, and nothing that does not count across it.
		expect(days({}, { ...ORDINARY_WEEK, holidays: [{ day: '2026-11-26', name: 'Harbour day' }] })[0]).toBe(
			'2026-11-27 receipt'
		);
	});

	it('stop with the receipt, and all of them with the answer', () => {
		expect(days({ received: true })[0]).toBe('2026-12-02 soon');
		expect(days({ answered: true })).toEqual([]);
		expect(days({ replyBy: null })).toEqual(['2026-11-26 receipt']);
	});

	it('are made good once when nothing ran for a while', () => {
		const due = (today: string, last: string | null) =>
			reminderDue(asked, USUAL_RHYTHM, ORDINARY_WEEK, today, last);
		expect(due('2026-11-25', null)).toBeNull();
		expect(due('2026-11-28', null)).toBe('receipt');
		expect(due('2026-12-20', null)).toBe('overdue');
		expect(due('2026-12-20', '2026-12-20')).toBeNull();
		expect(due('2026-12-21', '2026-12-18')).toBeNull();
	});

	it('never come twice on a day, after the answer, or on a day off, through any history', () => {
		fc.assert(
			fc.property(
				fc.record({
					receipt: fc.array(fc.integer({ min: 1, max: 20 }), { maxLength: 4 }),
					before: fc.array(fc.integer({ min: 1, max: 20 }), { maxLength: 4 }),
					after: fc.array(fc.integer({ min: 1, max: 20 }), { maxLength: 4 })
				}),
				fc.option(fc.integer({ min: 0, max: 60 }), { nil: null }),
				fc.integer({ min: 0, max: 90 }),
				fc.integer({ min: 0, max: 90 }),
				fc.array(fc.boolean(), { minLength: 100, maxLength: 100 }),
				(rhythm, reply, receivedOn, answeredOn, runs) => {
					const replyBy = reply === null ? null : plusDays(MONDAY, reply);
					let last: string | null = null;
					let reminded = 0;
					for (let n = 0; n < runs.length; n++) {
						if (!runs[n]) continue;
						const today = plusDays(MONDAY, n);
						const facts = { issued: MONDAY, replyBy, received: n >= receivedOn, answered: n >= answeredOn };
						for (const again of [false, true]) {
							const due = reminderDue(facts, rhythm, ORDINARY_WEEK, today, last);
							if (!due) continue;
							expect(again, 'twice on a day').toBe(false);
							expect(facts.answered).toBe(false);
							if (due === 'receipt') expect(facts.received).toBe(false);
							if (due === 'soon') expect(today <= replyBy!).toBe(true);
							if (due === 'overdue') expect(today > replyBy!).toBe(true);
							last = today;
							reminded++;
						}
					}
					expect(reminded).toBeLessThanOrEqual(
						rhythm.receipt.length + rhythm.before.length + rhythm.after.length
					);
					for (const { day, of } of reminderDays(
						{ issued: MONDAY, replyBy, received: false, answered: false },
						rhythm,
						ORDINARY_WEEK
					))
						expect(restOn(day, ORDINARY_WEEK), `${day} ${of}`).toBeNull();
				}
			)
		);
	});
});
