import { mondayOf, plusDays } from '../time/days';
import { dueOf, type Line } from './list';

/** So many weeks to come are looked at, and so many gone by tell what was managed. */
const WEEKS_AHEAD = 12;
const WEEKS_BACK = 8;

/** What falls due in each of the weeks to come, and how many stages were met in a week lately. */
export interface Load {
	/** The first holds what is overdue too. Weeks are named by their Mondays. */
	weeks: { week: string; due: number }[];
	managed: number;
}

/** What is to be done week by week, against what was managed. @param stage one only; null for all */
export function loadOf(lines: readonly Line[], stage: string | null, today: string): Load {
	const first = mondayOf(today);
	const weeks = Array.from({ length: WEEKS_AHEAD }, (_, i) => ({ week: plusDays(first, 7 * i), due: 0 }));
	const ends = weeks.map(({ week }) => plusDays(week, 7));
	const since = plusDays(first, -7 * WEEKS_BACK);
	let met = 0;
	for (const { at } of lines)
		for (const one of at) {
			if (stage !== null && one.stage !== stage) continue;
			if (one.actual !== null && one.actual >= since && one.actual < first) met++;
			const due = dueOf(one);
			const week = due === null ? -1 : ends.findIndex((end) => due < end);
			if (week >= 0) weeks[week]!.due++;
		}
	return { weeks, managed: Math.round((10 * met) / WEEKS_BACK) / 10 };
}
