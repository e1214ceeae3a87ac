import { fullDayWords } from './days';
import { dayTyped } from './typed';
import type { WorkCalendar } from './working-days';

type Holiday = WorkCalendar['holidays'][number];

/**
 * Reads a list of holidays as people write it: one a line, a day and what it is called, such as `25 Dec 2026, Christmas
 * Day`. A day without a year is the next such day.
 * @param today as `2026-11-27`
 * @returns the holidays in the order of their days, and the lines that are none, counted from 1
 */
export function readHolidays(text: string, today: string): { holidays: Holiday[]; faults: number[] } {
	const holidays = new Map<string, Holiday>();
	const faults: number[] = [];
	text.split('\n').forEach((line, i) => {
		const said = line.trim();
		if (!said) return;
		// The day is as much of the line as is one: what stands behind it is its name.
		const words = said.split(/[\s,;\t]+/);
		for (let length = Math.min(3, words.length - 1); length > 0; length--) {
			const day = dayTyped(words.slice(0, length).join(' '), today, true);
			const name = words.slice(length).join(' ');
			if (!day || !/\p{L}/u.test(name)) continue;
			holidays.set(day, { day, name });
			return;
		}
		faults.push(i + 1);
	});
	return { holidays: [...holidays.values()].sort((a, b) => a.day.localeCompare(b.day)), faults };
}

/** Holidays as a list that {@link readHolidays} reads. */
export function writeHolidays(holidays: readonly Holiday[]): string {
	return holidays.map(({ day, name }) => `${fullDayWords(day)}, ${name}`).join('\n');
}
