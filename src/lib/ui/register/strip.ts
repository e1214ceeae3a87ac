import { daysBetween, fullDayWords, plusDays } from '../../core/time/days';

/** The part of time that the strip of a register shows, both days included. */
export interface Window {
	from: string;
	to: string;
}

/** How much of time the strip shows. */
export const ZOOMS = [
	{ value: 'all', label: 'the whole plan', days: null },
	{ value: 'year', label: 'a year', days: 365 },
	{ value: 'quarter', label: 'three months', days: 91 },
	{ value: 'month', label: 'a month', days: 31 },
	{ value: 'fortnight', label: 'two weeks', days: 14 }
] as const;
export type Zoom = (typeof ZOOMS)[number]['value'];

/** Least span of a strip, so that a few days do not fill it. */
const LEAST = 14;

/**
 * What of time is shown: everything with some air around it, or so much of it with today a third from its beginning.
 * @param moved by how many spans it was moved on
 */
export function windowOf(span: Window | null, zoom: Zoom, today: string, moved: number): Window {
	const days = ZOOMS.find((one) => one.value === zoom)!.days;
	if (days !== null) {
		const from = plusDays(today, Math.round(-days / 3 + (moved * days) / 2));
		return { from, to: plusDays(from, days) };
	}
	const [from, to] = [
		span && span.from < today ? span.from : today,
		span && span.to > today ? span.to : today
	];
	const air = Math.max(3, Math.round(daysBetween(from, to) * 0.03));
	const wide = { from: plusDays(from, -air), to: plusDays(to, air) };
	const short = LEAST - daysBetween(wide.from, wide.to);
	return short > 0 ? { ...wide, to: plusDays(wide.to, short) } : wide;
}

/** Where a day stands in a window, from 0 to 1; outside of that it is not in it. */
export const shareOf = (day: string, { from, to }: Window): number =>
	daysBetween(from, day) / daysBetween(from, to);

/** The day at a share of a window. */
export const dayAt = (share: number, { from, to }: Window): string =>
	plusDays(from, Math.round(share * daysBetween(from, to)));

/** A word on the scale of a strip. */
export interface Tick {
	day: string;
	word: string;
}

/** Most words that stand on a scale. */
const MOST_TICKS = 8;

/** The days that the scale of a window names: months, or days where it is short, or years where it is long. */
export function ticksOf(window: Window): Tick[] {
	const long = daysBetween(window.from, window.to);
	const ticks: Tick[] = [];
	if (long <= 45) {
		const step = Math.max(1, Math.ceil(long / 7));
		for (let day = window.from; day <= window.to; day = plusDays(day, step))
			ticks.push({ day, word: fullDayWords(day).split(' ').slice(0, 2).join(' ') });
		return ticks;
	}
	const months = Math.ceil(long / 30 / MOST_TICKS);
	const step = months <= 1 ? 1 : months <= 3 ? 3 : months <= 6 ? 6 : 12 * Math.ceil(months / 12);
	let [year, month] = window.from.split('-').map(Number) as [number, number];
	for (;;) {
		const day = `${year}-${String(month).padStart(2, '0')}-01`;
		if (day > window.to) return ticks;
		if (day >= window.from && (month - 1) % Math.min(step, 12) === 0)
			ticks.push({
				day,
				word: step >= 12 || month === 1 ? String(year) : fullDayWords(day).split(' ')[1]!
			});
		month += 1;
		if (month > 12) [year, month] = [year + 1, 1];
	}
}
