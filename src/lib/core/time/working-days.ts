import { parseDate } from '@internationalized/date';
import { plural } from '../words/sentences';
import { plusDays } from './days';

/** The days of the week, from Monday as in ISO 8601. */
export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

/** The days that a project works on (rule G7), as plain data. */
export interface WorkCalendar {
	/** Days of the week on which nobody works. */
	weekend: Weekday[];
	/** Single days on which nobody works, each as `2026-12-25` with what it is called. */
	holidays: { day: string; name: string }[];
}

/** What a project begins with. */
export const ORDINARY_WEEK: WorkCalendar = { weekend: ['Sat', 'Sun'], holidays: [] };

/** The days that a project works on: as it says, or an ordinary week where it never said. */
export const calendarOf = ({ workCalendar }: { workCalendar?: WorkCalendar }): WorkCalendar =>
	workCalendar ?? ORDINARY_WEEK;

/** Longest way that is looked for a working day: no project rests longer, but a calendar could say so. */
const LONGEST_REST = 366;

/** The day of the week. */
export function weekdayOf(day: string): Weekday {
	// 1 January 1970 was a Thursday.
	const since = parseDate(day).compare(parseDate('1970-01-01'));
	return WEEKDAYS[(((since + 3) % 7) + 7) % 7]!;
}

/** Why nobody works on a day: the name of the holiday, or `weekend`; null for a working day. */
export function restOn(day: string, calendar: WorkCalendar): string | null {
	const holiday = calendar.holidays.find((one) => one.day === day);
	return holiday?.name ?? (calendar.weekend.includes(weekdayOf(day)) ? 'weekend' : null);
}

/** The day itself when it is a working day, else the next one. Raises RangeError for a calendar that never works. */
export function nextWorkingDay(day: string, calendar: WorkCalendar): string {
	let found = day;
	for (let tried = 0; restOn(found, calendar) !== null; tried++) {
		if (tried > LONGEST_REST) throw new RangeError('This calendar has no working day within a year.');
		found = plusDays(found, 1);
	}
	return found;
}

/**
 * The day so many working days after another, or before it when negative. The day itself is not counted, and with 0
 * it is that day, or the next working day when nobody works then.
 */
export function plusWorkingDays(day: string, days: number, calendar: WorkCalendar): string {
	if (days === 0) return nextWorkingDay(day, calendar);
	const step = Math.sign(days);
	let [found, left, rested] = [day, Math.abs(days), 0];
	while (left > 0) {
		found = plusDays(found, step);
		if (restOn(found, calendar) === null) [left, rested] = [left - 1, 0];
		else if (++rested > LONGEST_REST) throw new RangeError('This calendar has no working day within a year.');
	}
	return found;
}

/** How many working days lie after one day up to and with another; negative when the other is earlier, and 0 has no sign. */
export function workingDaysBetween(from: string, to: string, calendar: WorkCalendar): number {
	const [first, last, step] = from <= to ? [from, to, 1] : [to, from, -1];
	let count = 0;
	for (let day = first; day < last;) {
		day = plusDays(day, 1);
		if (restOn(day, calendar) === null) count += step;
	}
	return count;
}

/** How far a day is from another in working days, in words, and why nobody works then. */
export function workingDaysWords(from: string, to: string, calendar: WorkCalendar): string {
	const days = workingDaysBetween(from, to, calendar);
	const far =
		to === from
			? 'today'
			: to > from
				? `in ${plural(days, 'working day')}`
				: `${plural(-days, 'working day')} ago`;
	const rest = restOn(to, calendar);
	return rest === null ? far : `${far}; nobody works then (${rest})`;
}
