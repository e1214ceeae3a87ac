import type { Purpose } from '../revisions/revisions';
import { plusWorkingDays, type WorkCalendar } from '../time/working-days';
import { plural } from '../words/sentences';

/** The route of a release (rules T3, T10): who must approve it, in which order, and who has. */

export const APPROVER_KINDS = ['person', 'department', 'group'] as const;

/** Whom a step names: for a department each of its leads speaks, for a group each of its people inside. */
export interface Approver {
	kind: (typeof APPROVER_KINDS)[number];
	id: string;
}

/** One step of a route. */
export interface Step {
	name: string;
	of: Approver[];
	/** How many of those named must approve: all, any one, or so many. */
	needs: 'all' | 'any' | number;
	/** Working days that they have, counted from when it is their turn; null where no day is set. */
	days: number | null;
}
export type Route = Step[];

export const MOST_STEPS = 8;
export const MOST_APPROVERS = 20;
export const MOST_STEP_DAYS = 60;
export const MOST_ROUTES = 30;

/** A route that a project keeps for releases of a purpose, or of any. */
export interface RouteTemplate {
	name: string;
	purpose: Purpose | null;
	steps: Route;
}

/** What somebody decided on a step. Decisions stand in the order in which they were made. */
export interface Decision {
	step: number;
	says: 'approved' | 'sent-back';
	/** The person who decided, and for whom of the step. */
	by: string;
	of: Approver;
	/** SHA-256 of the build that was looked at. */
	digest: string;
}

/** So many must approve a step. */
export const needed = ({ needs, of }: Step): number =>
	needs === 'all' ? of.length : needs === 'any' ? 1 : needs;

export const sameApprover = (a: Approver, b: Approver): boolean => a.kind === b.kind && a.id === b.id;

/** The shortest route: one person approves. */
export const oneStep = (person: string): Step[] => [
	{ name: 'Approval', of: [{ kind: 'person', id: person }], needs: 'all', days: null }
];

/** What is wrong with a route, in a sentence; null where nothing is. */
export function checkRoute(route: Route): string | null {
	if (!route.length) return 'A route has at least one step.';
	for (const [at, step] of route.entries()) {
		const name = step.name || `Step ${at + 1}`;
		if (!step.of.length) return `${name}: name somebody who approves.`;
		if (step.of.some((one, i) => step.of.slice(i + 1).some((other) => sameApprover(one, other))))
			return `${name} names somebody twice.`;
		if (needed(step) > step.of.length)
			return `${name} asks for ${needed(step)} approvals and names ${step.of.length}.`;
	}
	return null;
}

/** How a step stands: `now` is the one whose turn it is. */
export interface StepStanding<D extends Decision = Decision> {
	state: 'done' | 'now' | 'later';
	needed: number;
	/** The approvals that count, each of another person for another of those named. */
	given: D[];
}

/**
 * How each step of a route stands. An approval counts for the very build that was looked at, so every change asks each
 * step again (T10); who sends a release back takes the approvals of that step with it, and those before it stand.
 * @param decisions in the order in which they were made
 * @param digest of the build as it is now
 */
export function standing<D extends Decision>(
	route: Route,
	decisions: readonly D[],
	digest: string
): StepStanding<D>[] {
	let turn = true;
	return route.map((step, at) => {
		const since = decisions.findLastIndex((one) => one.says === 'sent-back' && one.step <= at) + 1;
		const given: D[] = [];
		for (const one of decisions.slice(since))
			if (
				one.says === 'approved' &&
				one.step === at &&
				one.digest === digest &&
				step.of.some((named) => sameApprover(named, one.of)) &&
				!given.some((other) => other.by === one.by || sameApprover(other.of, one.of))
			)
				given.push(one);
		const done = given.length >= needed(step);
		const state = !turn ? 'later' : done ? 'done' : 'now';
		turn &&= done;
		return { state, needed: needed(step), given };
	});
}

/** Whether every step of a route has approved the build as it is. */
export const isApproved = (route: Route, decisions: readonly Decision[], digest: string): boolean =>
	standing(route, decisions, digest).every((step) => step.state === 'done');

/** Who speaks for those whom a route names, on one day. */
export interface Speakers {
	/** The leads of a department, and the people inside of a group. */
	leads: ReadonlyMap<string, readonly string[]>;
	groups: ReadonlyMap<string, readonly string[]>;
	/** Who is away, and who decides for them. */
	standIns: readonly { away: string; standIn: string }[];
}

/** Those who are named, as people. */
const ownOf = (of: Approver, { leads, groups }: Pick<Speakers, 'leads' | 'groups'>): readonly string[] =>
	of.kind === 'person' ? [of.id] : ((of.kind === 'department' ? leads : groups).get(of.id) ?? []);

/** Whether somebody speaks for one of those named: null where not, else for whom they stand in, if for anybody. */
export function speaksFor(
	person: string,
	of: Approver,
	{ leads, groups, standIns }: Speakers
): { standsFor: string | null } | null {
	const own = of.kind === 'person' ? [of.id] : ((of.kind === 'department' ? leads : groups).get(of.id) ?? []);
	if (own.includes(person)) return { standsFor: null };
	const away = standIns.find((one) => one.standIn === person && own.includes(one.away));
	return away ? { standsFor: away.away } : null;
}

/** Everybody who can decide for one of those named. */
export function decidersOf(of: Approver, { leads, groups, standIns }: Speakers): string[] {
	const own = ownOf(of, { leads, groups });
	const standing = standIns.filter((one) => own.includes(one.away)).map((one) => one.standIn);
	return [...new Set([...own, ...standing])];
}

/**
 * The first step that can never be met, since too few of those it names have anybody who may decide; undefined where
 * each can.
 * @param hands who had a hand in the build, and so decides on none of it (T3)
 */
export const unmeetable = (route: Route, speakers: Speakers, hands: ReadonlySet<string>): Step | undefined =>
	route.find(
		(step) =>
			step.of.filter((one) => decidersOf(one, speakers).some((person) => !hands.has(person))).length <
			needed(step)
	);

/** Whether it is somebody's turn on a step, and for whom they would decide. */
export type Turn =
	| { may: true; of: Approver; standsFor: string | null }
	| { may: false; why: 'decided' | 'spoken' | 'not-named' };

/**
 * Whether somebody can decide on a step now: for themselves first, then for a department or group of theirs, then for
 * somebody who is away. Each decides once on a step, for one of those named.
 */
export function turnOf(person: string, step: Step, { given }: StepStanding, speakers: Speakers): Turn {
	if (given.some((one) => one.by === person)) return { may: false, why: 'decided' };
	const could = step.of.flatMap((of) => {
		const how = speaksFor(person, of, speakers);
		return how ? [{ of, ...how }] : [];
	});
	if (!could.length) return { may: false, why: 'not-named' };
	const open = could.filter(({ of }) => !given.some((one) => sameApprover(one.of, of)));
	const rank = (one: (typeof could)[number]) =>
		one.standsFor !== null ? 2 : one.of.kind === 'person' ? 0 : 1;
	const [first] = open.toSorted((a, b) => rank(a) - rank(b));
	return first ? { may: true, ...first } : { may: false, why: 'spoken' };
}

/** The day by which a step is due, when it is its turn since a day; null where it sets none. Days are YYYY-MM-DD. */
export const stepDue = ({ days }: Step, since: string, calendar: WorkCalendar): string | null =>
	days === null ? null : plusWorkingDays(since, days, calendar);

/** A step in words: "Lead approval: 2 of Halla Brandt, Tomas Verrin, Oke Lindvar, within 3 working days". */
export function stepWords(step: Step, nameOf: (one: Approver) => string): string {
	return `${step.name}: ${whoWords(step)}${step.of.map(nameOf).join(', ')}${step.days === null ? '' : `, within ${plural(step.days, 'working day')}`}`;
}

/** What comes before the names of a step: "all of ", "any of ", "2 of "; nothing where one is named. */
export const whoWords = (step: Pick<Step, 'of' | 'needs'>): string =>
	step.of.length === 1 ? '' : `${step.needs} of `;
