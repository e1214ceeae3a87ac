import type { WorkDays } from '../time/work-days';
import type { Deliverable } from './deliverable';
import { stepsOf, usualOf } from './durations';
import {
	isLate,
	isSlipping,
	stageInView,
	standings,
	statusOf,
	type Standing,
	type Status,
	type Usual
} from './forecast';
import type { Stage } from './stages';

/** What a list of deliverables is narrowed to; what is not said does not narrow. All of it holds at once. */
export interface Narrowing {
	departments: readonly string[];
	zones: readonly string[];
	types: readonly string[];
	/** Only deliverables whose plan has it; lateness, days and order then are of this stage. */
	stage: string | null;
	/** Late or slipping at the stage that one looks at, or at any that is not met when none is chosen. */
	late: boolean;
	/** The stage that one looks at was met after its planned day. */
	wasLate: boolean;
	/** The stage that one looks at is met. */
	met: boolean;
	statuses: readonly Status[];
	/** A stage of its plan has no planned day. */
	undated: boolean;
	/** Numbers are missing after its own. */
	missing: boolean;
	/** Expected, or planned, from one day to another at the stage that one looks at. */
	from: string | null;
	to: string | null;
	/** Ids of people. */
	responsible: readonly string[];
	/** Stands in number, title or the name of who is responsible. */
	words: string;
}

/** What narrows nothing. */
export const EVERYTHING: Narrowing = {
	departments: [],
	zones: [],
	types: [],
	stage: null,
	late: false,
	wasLate: false,
	met: false,
	statuses: [],
	undated: false,
	missing: false,
	from: null,
	to: null,
	responsible: [],
	words: ''
};

export const ORDERS = ['number', 'title', 'slip', 'due'] as const;
export type RegisterOrder = (typeof ORDERS)[number];
export const GROUPINGS = ['none', 'department', 'zone', 'type', 'responsible', 'status'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** A deliverable with where it stands. */
export interface Line {
	deliverable: Deliverable;
	at: readonly Standing[];
	status: Status;
}

/** A line as one looks at it. */
export interface Seen extends Line {
	/** The stage that one looks at; null when it is not in the plan. */
	view: Standing | null;
	/** The numbers that are missing after its own, for those who are told which numbers are taken (A10). */
	missingAfter: readonly string[];
}

/** What departments usually take, as all deliverables of a project tell it. */
export const usualIn = (all: readonly Deliverable[], stages: readonly Stage[], days: WorkDays): Usual =>
	usualOf(stepsOf(all, stages, days));

/** Where each deliverable stands. @param today in the project's time zone */
export function linesOf(
	all: readonly Deliverable[],
	stages: readonly Stage[],
	usual: Usual,
	today: string,
	days: WorkDays
): Line[] {
	return all.map((deliverable) => {
		const at = standings(deliverable, stages, usual, today, days);
		return { deliverable, at, status: statusOf(deliverable, at) };
	});
}

const UNTOLD: readonly string[] = [];

/**
 * Lines as one looks at them.
 * @param stage the one that is chosen; null for the next of each
 * @param told whether one is told which numbers are taken, and so which are missing (A10)
 */
export const seenAt = (lines: readonly Line[], stage: string | null, told: boolean): Seen[] =>
	lines.map(({ deliverable, at, status }) => ({
		deliverable,
		at,
		status,
		view: stageInView(at, stage),
		missingAfter: told ? deliverable.missingAfter : UNTOLD
	}));

/** The day on which something is due at a stage: expected, else planned; null when it is met. */
export const dueOf = (one: Standing): string | null =>
	one.actual === null ? (one.forecast ?? one.planned) : null;

/** The stages that one looks at in a line: the one in view when one is chosen, else all. */
const looked = (line: Seen, stage: string | null): readonly Standing[] =>
	stage === null ? line.at : line.view ? [line.view] : [];
const isAnyLate = (line: Seen, stage: string | null, today: string) =>
	looked(line, stage).some((at) => isLate(at, today) || isSlipping(at, today));
const wasAnyLate = (line: Seen, stage: string | null) =>
	looked(line, stage).some((at) => at.actual !== null && (at.slip ?? 0) > 0);
const isAnyMet = (line: Seen, stage: string | null) => looked(line, stage).some((at) => at.actual !== null);
const isUndated = (line: Line) => line.at.some((at) => at.planned === null);

/** Says of each line whether it passes everything that a list is narrowed to. */
export function passing(to: Narrowing, today: string): (line: Seen) => boolean {
	const { stage } = to;
	const [departments, zones, types, statuses, people] = [
		to.departments,
		to.zones,
		to.types,
		to.statuses,
		to.responsible
	].map((list) => (list.length ? new Set<string>(list) : null));
	const words = to.words.trim().toLowerCase();
	const inside = (day: string | null) =>
		day !== null && (to.from === null || day >= to.from) && (to.to === null || day <= to.to);
	return (line) => {
		const { deliverable: one } = line;
		if (stage !== null && line.view === null) return false;
		if (departments && !departments.has(one.department ?? '')) return false;
		if (zones && !zones.has(one.zone)) return false;
		if (types && !types.has(one.type)) return false;
		if (statuses && !statuses.has(line.status)) return false;
		if (people && !people.has(one.responsible?.id ?? '')) return false;
		if (to.late && !isAnyLate(line, stage, today)) return false;
		if (to.wasLate && !wasAnyLate(line, stage)) return false;
		if (to.met && !isAnyMet(line, stage)) return false;
		if (to.undated && !isUndated(line)) return false;
		if (to.missing && !line.missingAfter.length) return false;
		if ((to.from !== null || to.to !== null) && !looked(line, stage).some((at) => inside(dueOf(at))))
			return false;
		return (
			!words ||
			one.number.toLowerCase().includes(words) ||
			one.title.toLowerCase().includes(words) ||
			(one.responsible?.name.toLowerCase().includes(words) ?? false)
		);
	};
}

/** Under which head a line stands in a list that is put in groups. */
export function groupOf(line: Line, by: Grouping): string {
	const { deliverable: one } = line;
	if (by === 'department') return one.department ?? '';
	if (by === 'zone') return one.zone;
	if (by === 'type') return one.type;
	if (by === 'responsible') return one.responsible?.name ?? '';
	return by === 'status' ? line.status : '';
}

const less = <T extends string | number>(a: T, b: T) => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Lines in an order, those of a group together; what is alike follows its number.
 * @param lines in the order of their numbers
 */
export function ordered(
	lines: readonly Seen[],
	by: RegisterOrder,
	down: boolean,
	group: Grouping
): readonly Seen[] {
	if (by === 'number' && !down && group === 'none') return lines;
	const sign = down ? -1 : 1;
	// What is compared is worked out once for each line, and sorting keeps the numbers' order of what is alike.
	const rank: Record<RegisterOrder, (line: Seen, i: number) => string | number> = {
		number: (_, i) => i,
		title: (line) => line.deliverable.title.toLowerCase(),
		slip: ({ view }) => view?.slip ?? -Infinity,
		due: ({ view }) => (view && dueOf(view)) ?? '9999'
	};
	const keyed = lines.map((line, i) => ({
		line,
		head: group === 'none' ? '' : groupOf(line, group),
		key: rank[by](line, i)
	}));
	keyed.sort((a, b) => less(a.head, b.head) || sign * less(a.key, b.key));
	return keyed.map((one) => one.line);
}

/** What a list counts; each figure narrows to its lines when it is chosen. */
export interface Counts {
	deliverables: number;
	/** At the chosen stage, or at any when none is chosen: met, met after the planned day, late or slipping. */
	met: number;
	wasLate: number;
	late: number;
	none: number;
	withClient: number;
	returned: number;
	done: number;
	undated: number;
	missing: number;
}

/** Counts of lines as they stand: of each figure, how many lines narrowing to it leaves. */
export function countsOf(lines: readonly Seen[], stage: string | null, today: string): Counts {
	const counts: Counts = {
		deliverables: lines.length,
		met: 0,
		wasLate: 0,
		late: 0,
		none: 0,
		withClient: 0,
		returned: 0,
		done: 0,
		undated: 0,
		missing: 0
	};
	for (const line of lines) {
		if (stage !== null && line.view === null) continue;
		if (isAnyMet(line, stage)) counts.met++;
		if (wasAnyLate(line, stage)) counts.wasLate++;
		if (isAnyLate(line, stage, today)) counts.late++;
		if (isUndated(line)) counts.undated++;
		if (line.missingAfter.length) counts.missing++;
		if (line.status === 'none') counts.none++;
		else if (line.status === 'with-client') counts.withClient++;
		else if (line.status === 'returned') counts.returned++;
		else if (line.status === 'done') counts.done++;
	}
	return counts;
}
