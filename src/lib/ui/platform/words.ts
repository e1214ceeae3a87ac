import type { EventRow } from '../../core/documents/rows';
import { eventText as textOf } from '../../core/events';
import { dayOf, dayWords, dayWordsOf, plusDays, timeOf } from '../../core/time/days';
import { projectZone } from './project-day';

export { sizeText } from '../../core/files/sizes';
export { plural } from '../../core/words/sentences';

/** A day as `23 Nov`, with the year when it is another one; by the project's clock unless a zone is given. */
export function dayText(at: string | Date, timeZone = projectZone()): string {
	return dayWordsOf(at, timeZone, new Date());
}

/** A time of day as `09:12`. */
export function timeText(at: string | Date, timeZone = projectZone()): string {
	return timeOf(at, timeZone);
}

/** A moment as people say it: `today 09:12`, `yesterday 16:20`, else `19 Nov`. */
export function whenText(at: string | Date, timeZone = projectZone(), now = new Date()): string {
	const [day, today] = [dayOf(at, timeZone), dayOf(now, timeZone)];
	if (day === today) return `today ${timeText(at, timeZone)}`;
	if (day === plusDays(today, -1)) return `yesterday ${timeText(at, timeZone)}`;
	return dayWords(day, today);
}

/** How long ago, for less than a day; the day after that. */
export function agoText(at: string | Date, now = Date.now()): string {
	const minutes = Math.floor((now - new Date(at).getTime()) / 60_000);
	if (minutes < 1) return 'now';
	if (minutes < 60) return `${minutes} min`;
	if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h`;
	return dayText(at);
}

/** What people call a place: a desk is a shelf with one entry, and nobody calls it that. */
export function placeWord({ kind, onDesk }: { kind: string; onDesk: boolean }): string {
	return kind === 'shelf' && onDesk ? 'desk' : kind;
}

/** First name, for narrow places. */
export function firstName(name: string | null): string {
	return name?.split(' ')[0] ?? '';
}

export function initials(name: string): string {
	const words = name.split(/\s+/).filter(Boolean);
	return ((words[0]?.[0] ?? '') + (words.length > 1 ? words.at(-1)![0]! : '')).toUpperCase();
}

/** What an event says, after the name of who did it, by the project's clock. */
export function eventText(event: Pick<EventRow, 'kind' | 'details'>): string {
	return textOf(event, { day: dayText, moment: whenText });
}

/** Words by which activity can be filtered, by the first part of an event's kind. */
export const EVENT_KINDS: Record<string, string> = {
	openings: 'Openings and downloads',
	all: 'Changes, openings and downloads',
	document: 'Documents added, changed, issued',
	version: 'Versions handed in',
	lock: 'Locks',
	live: 'Working live',
	remark: 'Remarks',
	marks: 'Markup',
	folder: 'Folders',
	access: 'Access given and ended',
	place: 'Removed, restored, closed, frozen',
	release: 'Releases',
	register: 'Register',
	pass: 'Passes',
	receipt: 'Receipts',
	verdict: 'Verdicts',
	person: 'People',
	group: 'Groups',
	hatch: 'Hatches',
	shelf: 'Shelves'
};

/** When, where and by what a photograph was taken, from what its camera wrote. */
export function takenText(written: {
	Make?: string;
	Model?: string;
	DateTimeOriginal?: Date;
	latitude?: number;
	longitude?: number;
}): string {
	const { Make, Model, DateTimeOriginal: at, latitude, longitude } = written;
	const camera = [Make, Model].filter(Boolean).join(' ');
	const side = (degrees: number, positive: string, negative: string) =>
		`${Math.abs(degrees).toFixed(5)}° ${degrees < 0 ? negative : positive}`;
	return [
		at && `taken ${whenText(at.toISOString())}`,
		latitude !== undefined &&
			longitude !== undefined &&
			`at ${side(latitude, 'N', 'S')}, ${side(longitude, 'E', 'W')}`,
		camera && `with ${camera}`
	]
		.filter(Boolean)
		.join(' ');
}

/** How long something still takes, from seconds. */
export function timeLeft(seconds: number): string {
	if (seconds < 60) return `${Math.max(1, Math.round(seconds))} s left`;
	if (seconds < 3600) return `${Math.round(seconds / 60)} min left`;
	return `${(seconds / 3600).toFixed(1)} h left`;
}
