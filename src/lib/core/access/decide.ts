import { cap, higher, type Level } from './levels';

/** Whom an entry names. `leads` stands for the leads of a department, `everyone` for all in the project. */
export type SubjectKind = 'person' | 'department' | 'leads' | 'group' | 'everyone';

/** One grant or bar as it stands at a place (rule A1). */
export interface Entry {
	subjectKind: SubjectKind;
	/** Id of the person, department or group; the project's id for `everyone`. */
	subjectId: string;
	/** The level given; null is a bar. */
	level: Level | null;
	/** A personal grant that decides alone. */
	exactly: boolean;
	/** Milliseconds since 1970, or null for no end. */
	endsAt: number | null;
}

/** A person as the rules see one. */
export interface Subject {
	personId: string;
	projectId: string;
	/** Document controllers have Run everywhere (A5). */
	controller: boolean;
	departments: readonly string[];
	leads: readonly string[];
	groups: readonly string[];
}

/** One place on the way up, nearest first, with the entries that stand at it. */
export interface Step {
	entries: readonly Entry[];
	/** A closed place: what stands above it stops reaching it, apart from Run (A3). */
	closed: boolean;
}

/** What lowers everybody's level at a place (A6). */
export interface Caps {
	frozen: boolean;
	archived: boolean;
}

function names(entry: Entry, who: Subject): boolean {
	switch (entry.subjectKind) {
		case 'person':
			return entry.subjectId === who.personId;
		case 'department':
			return who.departments.includes(entry.subjectId);
		case 'leads':
			return who.leads.includes(entry.subjectId);
		case 'group':
			return who.groups.includes(entry.subjectId);
		case 'everyone':
			return entry.subjectId === who.projectId;
	}
}

interface Found {
	entry: Entry;
	distance: number;
}

/** For every subject of the person, its nearest unexpired entry (first half of A2). */
function nearest(who: Subject, way: readonly Step[], now: number): Found[] {
	const found = new Map<string, Found>();
	let aboveClosed = false;
	way.forEach((step, distance) => {
		for (const entry of step.entries) {
			if (entry.endsAt !== null && entry.endsAt <= now) continue;
			if (aboveClosed && entry.level !== 'run') continue;
			if (!names(entry, who)) continue;
			const key = `${entry.subjectKind}:${entry.subjectId}`;
			if (!found.has(key)) found.set(key, { entry, distance });
		}
		if (step.closed) aboveClosed = true;
	});
	return [...found.values()];
}

/**
 * Decides a person's level at a place by rule A2, with A3 and A5.
 *
 * @param who the person and what they belong to
 * @param way the places from the one asked about up to its shelf, nearest first
 * @param now milliseconds since 1970; entries that ended by then count for nothing
 * @returns the level, or null for no access
 */
export function decide(who: Subject, way: readonly Step[], now: number): Level | null {
	if (who.controller) return 'run';
	const found = nearest(who, way, now);
	const personal = found.find((f) => f.entry.subjectKind === 'person');
	if (personal?.entry.level === null) return null;
	const barred = found.some(
		(f) =>
			f.entry.level === null &&
			!(personal && personal.entry.level !== null && personal.distance <= f.distance)
	);
	if (barred) return null;
	if (personal?.entry.exactly) return personal.entry.level;
	return found.reduce<Level | null>((best, f) => higher(best, f.entry.level), null);
}

/** Lowers a decided level by what stands at the place (A6). Run is capped by an archive only. */
export function capped(level: Level | null, caps: Caps): Level | null {
	let held = level;
	if (caps.frozen && held !== 'run') held = cap(held, 'remark');
	if (caps.archived) held = cap(held, 'take');
	return held;
}
