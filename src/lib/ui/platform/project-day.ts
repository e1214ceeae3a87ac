import { page } from '$app/state';
import { dayOf, dayWords, plusDays } from '../../core/time/days';

/** The zone of the project that the page belongs to; the browser's own where there is none. */
export const projectZone = (): string =>
	(page.data as { frame?: { project: { timeZone: string } } }).frame?.project.timeZone ??
	Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Today by the project's clock, or so many days from then, as `2026-11-27`. */
export const projectDay = (ahead = 0): string => plusDays(dayOf(new Date(), projectZone()), ahead);

/** That day as people read it: `27 Dec`. */
export const projectDayWords = (ahead: number): string => dayWords(projectDay(ahead), projectDay());
