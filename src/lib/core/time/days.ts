import {
	fromDate,
	parseDate,
	parseTime,
	startOfWeek,
	toCalendarDate,
	toCalendarDateTime,
	toZoned
} from '@internationalized/date';

const BARE_DAY = /^\d{4}-\d\d-\d\d$/;

/** The day of a moment in a time zone, as `2026-11-27`; a day that is given as one is that day in every zone. */
export function dayOf(at: Date | string, timeZone: string): string {
	// As a moment it would be midnight in Greenwich, which west of there is the day before.
	if (typeof at === 'string' && BARE_DAY.test(at)) return at;
	return toCalendarDate(fromDate(new Date(at), timeZone)).toString();
}

/** A day that exists, as `2026-11-27`; null for the 31st of November. */
export function dayOfParts(year: number, month: number, day: number): string | null {
	const said = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
	try {
		return parseDate(said).toString() === said ? said : null;
	} catch {
		return null;
	}
}

/** The midnight with which a day begins where the program runs, for libraries that reckon with such; null for no day. */
export function localMidnightOf(day: string): Date | null {
	try {
		const { year, month, day: at } = parseDate(day);
		return new Date(year, month - 1, at);
	} catch {
		return null;
	}
}

/** The day of such a midnight. */
export function dayOfLocalMidnight(at: Date): string | null {
	return Number.isNaN(at.getTime()) ? null : dayOfParts(at.getFullYear(), at.getMonth() + 1, at.getDate());
}

/** A day so many days after another, or before it; both as `2026-11-27`. */
export function plusDays(day: string, days: number): string {
	return parseDate(day).add({ days }).toString();
}

/** The Monday of the week that a day is in (ISO 8601). */
export function mondayOf(day: string): string {
	return startOfWeek(parseDate(day), 'en-GB', 'mon').toString();
}

/** How many days lie from one day to another; negative when the other is earlier. */
export function daysBetween(from: string, to: string): number {
	return parseDate(to).compare(parseDate(from));
}

/** The last moment of a day in a time zone, also of days on which the clocks change. */
export function lastMomentOf(day: string, timeZone: string): Date {
	return new Date(
		toZoned(parseDate(day).add({ days: 1 }), timeZone)
			.toDate()
			.getTime() - 1
	);
}

/**
 * The moment of a day at a time in a time zone; of a time that the clocks skip there, the one after the gap.
 * @param day as `2026-11-27`
 * @param time as `17:00`
 */
export function momentOf(day: string, time: string, timeZone: string): Date {
	return toZoned(toCalendarDateTime(parseDate(day), parseTime(time)), timeZone).toDate();
}

/** The time of day of a moment in a time zone, as `17:00`. */
export function timeOf(at: Date | string, timeZone: string): string {
	const { hour, minute } = fromDate(new Date(at), timeZone);
	return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A day as people read it, with its year: `27 Nov 2026`. */
export function fullDayWords(day: string): string {
	const [year, month, date] = day.split('-').map(Number);
	return `${date} ${MONTHS[month! - 1]} ${year}`;
}

/** A day as people read it: `27 Nov`, with the year where it is not that of `now`. */
export function dayWords(day: string, now: string): string {
	const words = fullDayWords(day);
	return day.slice(0, 4) === now.slice(0, 4) ? words.slice(0, -5) : words;
}

/** A moment as a day that people read, in a time zone. */
export function dayWordsOf(at: Date | string, timeZone: string, now: Date): string {
	return dayWords(dayOf(at, timeZone), dayOf(now, timeZone));
}
