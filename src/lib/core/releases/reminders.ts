import { plusWorkingDays, type WorkCalendar } from '../time/working-days';

/** When those who got a release are reminded, in working days of the project (T13). Days are YYYY-MM-DD. */
export interface ReminderRhythm {
	/** Days after the issue on which a receipt that was not confirmed is asked for. */
	receipt: number[];
	/** Days before the reply is due on which it is reminded of. */
	before: number[];
	/** Days after it was due. */
	after: number[];
}

/** The rhythm of a project that never said another. */
export const USUAL_RHYTHM: ReminderRhythm = { receipt: [3], before: [2], after: [1, 5, 10] };

/** Most days, and the farthest of them, that a rhythm has on one side. */
export const MOST_REMINDERS = 10;
export const FARTHEST_REMINDER = 60;

/** What is reminded of: a receipt, a reply that is soon due, or one that is overdue. */
export type Reminder = 'receipt' | 'soon' | 'overdue';

/** What a reminder depends on. */
export interface Asked {
	/** Day of the issue. */
	issued: string;
	/** Day by which a reply is asked; null for none. */
	replyBy: string | null;
	received: boolean;
	/** Whether every document has its signed verdict. */
	answered: boolean;
}

/** Every day on which somebody is reminded as things stand, in order, with what of. */
export function reminderDays(
	asked: Asked,
	rhythm: ReminderRhythm,
	calendar: WorkCalendar
): { day: string; of: Reminder }[] {
	if (asked.answered) return [];
	const days: { day: string; of: Reminder }[] = [];
	if (!asked.received)
		for (const n of rhythm.receipt)
			days.push({ day: plusWorkingDays(asked.issued, n, calendar), of: 'receipt' });
	if (asked.replyBy !== null) {
		for (const n of rhythm.before) {
			const day = plusWorkingDays(asked.replyBy, -n, calendar);
			// Nobody is reminded on the day the release came, or before.
			if (day > asked.issued) days.push({ day, of: 'soon' });
		}
		for (const n of rhythm.after)
			days.push({ day: plusWorkingDays(asked.replyBy, n, calendar), of: 'overdue' });
	}
	return days.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
}

/**
 * What somebody is to be reminded of today: the last of the days that came since they were reminded. A day that was
 * missed, because nothing ran, is made good once; there is never more than one a day, and none after the answer.
 *
 * @param last day of the last reminder; null for none yet
 */
export function reminderDue(
	asked: Asked,
	rhythm: ReminderRhythm,
	calendar: WorkCalendar,
	today: string,
	last: string | null
): Reminder | null {
	const come = reminderDays(asked, rhythm, calendar).filter(
		({ day }) => day <= today && day > (last ?? asked.issued)
	);
	const of = come.at(-1)?.of ?? null;
	return of === 'soon' && today > asked.replyBy! ? 'overdue' : of;
}
