import type { List } from '../lists/list';
import { PURPOSE_LABEL, type Purpose } from '../revisions/revisions';
import { dayOf, dayWords, fullDayWords } from '../time/days';
import { plural } from '../words/sentences';
import { releaseNumber } from './number';
import { RELEASE_STATE_LABEL, type ReleaseState } from './states';

/** A release as lists of releases show it. Moments as ISO 8601 in UTC, days as YYYY-MM-DD. */
export interface ListedRelease {
	number: number;
	title: string;
	purpose: Purpose;
	state: ReleaseState;
	to: string;
	builtBy: string;
	documents: number;
	issuedAt: string | null;
	replyBy: string | null;
	/** How many steps its route has, how many have approved, and the name of the one whose turn it is. */
	steps: number;
	approved: number;
	turn: string | null;
	recipients: number;
	received: number;
	asked: number;
	answered: number;
	differing: number;
}

/** What of the releases is looked at, by what is left to do on them. */
export const RELEASES_LEFT = ['waiting', 'late', 'differ'] as const;
export type ReleasesLeft = (typeof RELEASES_LEFT)[number];
export const RELEASES_LEFT_LABEL: Record<ReleasesLeft, string> = {
	waiting: 'Verdicts missing',
	late: 'Reply late',
	differ: 'Verdicts differ'
};

/** What of a release says whether answers are missing: on how many of its documents verdicts are `asked`, came to one (`answered`), or are all there and differ. */
type Answered = Pick<ListedRelease, 'asked' | 'answered' | 'differing' | 'replyBy'> & { state: string };

/** Whether verdicts on an issued release are missing. */
const isWaiting = ({ state, asked, answered, differing }: Answered): boolean =>
	state === 'issued' && answered + differing < asked;

/** Whether a reply to a release is overdue (T13): it was asked by a day gone by, and verdicts are missing. */
export const isReplyOverdue = (release: Answered, today: string): boolean =>
	isWaiting(release) && release.replyBy !== null && release.replyBy < today;

/** Whether something is left to do on a release. @param today in the project's zone, as YYYY-MM-DD */
export function isLeft(release: Answered, left: ReleasesLeft, today: string): boolean {
	if (left === 'differ') return release.differing > 0;
	return left === 'late' ? isReplyOverdue(release, today) : isWaiting(release);
}

/** What a list of releases is narrowed to; what is empty narrows nothing. */
export interface ReleasesShown {
	/** Words of number, title, who gets it, who built it or whose turn it is; every one must be found. */
	text: string;
	state: ReleaseState | '';
	purpose: Purpose | '';
	left: ReleasesLeft | '';
}

/** The releases that are looked at, in the order in which they come. */
export function narrowedReleases<One extends ListedRelease>(
	all: readonly One[],
	{ text, state, purpose, left }: ReleasesShown,
	today: string
): One[] {
	const words = text.toLocaleLowerCase('en').split(/\s+/).filter(Boolean);
	return all.filter((one) => {
		if ((state && one.state !== state) || (purpose && one.purpose !== purpose)) return false;
		if (left && !isLeft(one, left, today)) return false;
		const said = [releaseNumber(one.number), one.title, one.to, one.builtBy, one.turn ?? '']
			.join('\n')
			.toLocaleLowerCase('en');
		return words.every((word) => said.includes(word));
	});
}

/** How far a release is on its route, in words. */
export const routeWords = ({ turn, steps, approved }: Pick<ListedRelease, 'turn' | 'steps' | 'approved'>) =>
	turn
		? `${turn}${steps > 1 ? `, step ${approved + 1} of ${steps}` : ''}`
		: approved
			? 'done'
			: plural(steps, 'step');

/** What came back from those who got a release, in words. @param today as YYYY-MM-DD */
export function soFarWords(one: ListedRelease, today: string): string {
	if (!one.issuedAt) return one.replyBy ? `asked by ${dayWords(one.replyBy, today)}` : '';
	if (one.differing) return plural(one.differing, 'verdict differs', 'verdicts differ');
	if (one.asked && one.answered === one.asked) return 'all verdicts are in';
	if (one.answered) return `${one.answered} of ${one.asked} verdicts`;
	if (!one.received) return 'not received yet';
	return one.recipients > 1 ? `received by ${one.received} of ${one.recipients}` : 'received';
}

/** Releases as a table to take away. */
export function releasesTable(
	about: { name: string; timeZone: string },
	rows: readonly ListedRelease[],
	now: Date
): List {
	const today = dayOf(now, about.timeZone);
	return {
		title: `Releases of ${about.name}`,
		about: `as of ${fullDayWords(today)}`,
		name: 'Releases',
		columns: [
			{ head: 'Number', width: 10 },
			{ head: 'Title', width: 40 },
			{ head: 'Purpose', width: 18 },
			{ head: 'State', width: 14 },
			{ head: 'To', width: 36 },
			{ head: 'Route', width: 24 },
			{ head: 'Documents', width: 12 },
			{ head: 'Issued', width: 12 },
			{ head: 'Reply by', width: 12 },
			{ head: 'Verdicts asked', width: 12 },
			{ head: 'Verdicts given', width: 12 },
			{ head: 'So far', width: 24 },
			{ head: 'Built by', width: 18 }
		],
		rows: rows.map((one) => [
			releaseNumber(one.number),
			one.title,
			PURPOSE_LABEL[one.purpose],
			RELEASE_STATE_LABEL[one.state],
			one.to,
			routeWords(one),
			one.documents,
			one.issuedAt && { day: dayOf(one.issuedAt, about.timeZone) },
			one.replyBy && { day: one.replyBy },
			one.asked,
			one.answered,
			soFarWords(one, today),
			one.builtBy
		])
	};
}
