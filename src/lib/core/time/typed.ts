import { dayOfParts, plusDays } from './days';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const monthOf = (word: string) => MONTHS.indexOf(word.slice(0, 3)) + 1;

/**
 * A day as people type it: `27 Nov`, `27 November 2026`, `Nov 27`, `27.11.`, `27/11/26`, `2026-11-27`, `today`,
 * `tomorrow`. The day stands before the month; without a year it is this one's.
 * @param today as `2026-11-27`
 * @param ahead whether a day without a year is the next such day, from today on
 * @returns the day as `2026-11-27`, or null when it is none
 */
export function dayTyped(text: string, today: string, ahead = false): string | null {
	const said = text.trim().toLowerCase().replace(/\s+/g, ' ').replace(/,/g, '');
	if (said === 'today') return today;
	if (said === 'tomorrow') return plusDays(today, 1);
	const thisYear = Number(today.slice(0, 4));
	const on = (given: string | undefined, month: number, day: number): string | null => {
		if (given)
			return dayOfParts(
				given.length === 2 ? Math.floor(thisYear / 100) * 100 + Number(given) : Number(given),
				month,
				day
			);
		const soonest = dayOfParts(thisYear, month, day);
		return ahead && (!soonest || soonest < today) ? dayOfParts(thisYear + 1, month, day) : soonest;
	};
	const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(said);
	if (iso) return dayOfParts(Number(iso[1]), Number(iso[2]), Number(iso[3]));
	const figures = /^(\d{1,2})[./ -](\d{1,2})(?:[./ -](\d{4}|\d{2})?)?$/.exec(said);
	if (figures) return on(figures[3], Number(figures[2]), Number(figures[1]));
	const dayFirst = /^(\d{1,2})\.? ?([a-z]{3,9})\.?(?: (\d{4}|\d{2}))?$/.exec(said);
	if (dayFirst) return on(dayFirst[3], monthOf(dayFirst[2]!), Number(dayFirst[1]));
	const monthFirst = /^([a-z]{3,9})\.? (\d{1,2})(?: (\d{4}))?$/.exec(said);
	if (monthFirst) return on(monthFirst[3], monthOf(monthFirst[1]!), Number(monthFirst[2]));
	return null;
}

/** A time of day as people type it, as `09:30`; null when it is none. */
export function timeTyped(text: string): string | null {
	const said = /^(\d{1,2})(?:[:.h ]?(\d{2}))?$/.exec(text.trim());
	if (!said) return null;
	const [hour, minute] = [Number(said[1]), Number(said[2] ?? 0)];
	return hour < 24 && minute < 60
		? `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
		: null;
}
