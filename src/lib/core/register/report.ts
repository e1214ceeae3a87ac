import { plusDays } from '../time/days';
import { WEEKDAYS, weekdayOf, type Weekday } from '../time/working-days';

/** When the register goes out as a report, and to whom. */
export interface ReportPlan {
	/** Null for never. */
	weekday: Weekday | null;
	/** Mail addresses. */
	to: string[];
}

/** Most addresses that a report goes to. */
export const MOST_REPORTED = 60;

/**
 * Whether the weekly report goes out today. A week whose day was missed, because nothing ran, is made good once.
 * @param last day on which it went out last; null for never, then it begins on its weekday
 */
export function reportDue(weekday: Weekday, today: string, last: string | null): boolean {
	const since = (WEEKDAYS.indexOf(weekdayOf(today)) - WEEKDAYS.indexOf(weekday) + 7) % 7;
	return last === null ? since === 0 : last < plusDays(today, -since);
}
