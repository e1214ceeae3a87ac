import { cap, higher, rank, type Level } from './levels';

/** Whom an entry names. `leads` stands for the leads of a department, `everyone` for all inside the project. */
export const SUBJECT_KINDS = ['person', 'department', 'leads', 'group', 'everyone'] as const;
export type SubjectKind = (typeof SUBJECT_KINDS)[number];

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
	/** Document controllers have Manage everywhere (A5). */
	controller: boolean;
	departments: readonly string[];
	leads: readonly string[];
	groups: readonly string[];
	/** People of another company: `everyone` does not mean them, and the project sets how far they may go at most. */
	outside: boolean;
	/** Kept out of the project for a time: what was given stays, and gives nothing meanwhile. */
	blocked?: boolean;
	/** Most that this person may hold whatever is given: the project's limit for outsiders, or Organise without two steps. */
	ceiling: Level | null;
}

/** One place on the way up, nearest first, with the entries that stand at it. */
export interface Step<E extends Entry = Entry> {
	entries: readonly E[];
	/** A closed place: what stands above it stops reaching it, apart from bars and Manage (A3). */
	closed: boolean;
	/** Somebody’s desk: document controllers reach it by what was given to them, as everybody does (A5). */
	desk?: boolean;
}

/** What lowers levels at a place (A6). */
export interface Caps {
	frozen: boolean;
	archived: boolean;
	/** Somebody else has it in hand. */
	inHand: boolean;
}

export type Cap = keyof Caps;
/** What acts pass that decide access or lift a cap: they follow the level itself (A6). */
export const EVERY_CAP: readonly Cap[] = ['frozen', 'archived', 'inHand'];

/** Whether an entry is about a person, by themselves or by what they belong to. */
export function names(entry: Entry, who: Subject): boolean {
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
			return !who.outside && entry.subjectId === who.projectId;
	}
}

/** An entry that counts for a person, and how many places up from the one asked about it stands. */
export interface Found<E extends Entry = Entry> {
	entry: E;
	distance: number;
}

/**
 * For every subject that has entries on a way, its nearest unexpired one: of a person the first half of A2, over the
 * whole way; of nobody in particular, all. Plain loops, here and below: these run for each entry of every decision.
 */
export function nearestOf<E extends Entry>(
	way: readonly Step<E>[],
	now: number,
	who: Subject | null = null
): Found<E>[] {
	const found: Found<E>[] = [];
	for (let distance = 0; distance < way.length; distance++) {
		const { entries } = way[distance]!;
		for (let i = 0; i < entries.length; i++) {
			const entry = entries[i]!;
			if (entry.endsAt !== null && entry.endsAt <= now) continue;
			if (who && !names(entry, who)) continue;
			if (!isFound(found, entry)) found.push({ entry, distance });
		}
	}
	return found;
}

/** Whether a nearer entry of the same subject was found. */
function isFound(found: readonly Found[], entry: Entry): boolean {
	for (let i = 0; i < found.length; i++) if (sameSubject(found[i]!.entry, entry)) return true;
	return false;
}

/**
 * What of the nearest entries still counts when places on the way are closed: of those that stand above a closed
 * place, only bars and Manage (A3). What stands at the closed place itself counts.
 */
export function reaching<E extends Entry>(
	found: readonly Found<E>[],
	way: readonly Step<E>[]
): readonly Found<E>[] {
	let closed = 0;
	while (closed < way.length && !way[closed]!.closed) closed++;
	if (closed >= way.length - 1) return found;
	return found.filter(
		({ entry, distance }) => distance <= closed || entry.level === null || entry.level === 'manage'
	);
}

/** Whether two entries are about the same subject. */
export function sameSubject(
	a: Pick<Entry, 'subjectKind' | 'subjectId'>,
	b: Pick<Entry, 'subjectKind' | 'subjectId'>
): boolean {
	return a.subjectId === b.subjectId && a.subjectKind === b.subjectKind;
}

/** What of the found entries decides: one of them alone, or the highest; a bar gives null as level. */
export interface Verdict<E extends Entry = Entry> {
	level: Level | null;
	decisive: Found<E> | null;
	why: 'personal-bar' | 'bar' | 'exactly' | 'highest' | 'nothing';
}

/** Second half of A2: weighs the nearest entries of a person against one another. */
export function weigh<E extends Entry>(found: readonly Found<E>[]): Verdict<E> {
	let personal: Found<E> | null = null;
	let bar: Found<E> | null = null;
	let best: Found<E> | null = null;
	for (let i = 0; i < found.length; i++) {
		const one = found[i]!;
		const { level, subjectKind } = one.entry;
		if (subjectKind === 'person') personal = one;
		else if (level === null) bar ??= one;
		if (level !== null && (best === null || rank(level) > rank(best.entry.level!))) best = one;
	}
	if (personal?.entry.level === null) return { level: null, decisive: personal, why: 'personal-bar' };
	// A bar nearer than what was given to the person themselves; of several, the nearest is first.
	if (bar && !(personal && personal.distance <= bar.distance))
		return { level: null, decisive: bar, why: 'bar' };
	if (personal?.entry.exactly) return { level: personal.entry.level, decisive: personal, why: 'exactly' };
	return { level: best?.entry.level ?? null, decisive: best, why: best ? 'highest' : 'nothing' };
}

/** How somebody's level at a place came about: what was found, what of it counts, and what decided. */
export interface Weighed<E extends Entry = Entry> {
	found: readonly Found<E>[];
	counting: readonly Found<E>[];
	verdict: Verdict<E>;
	/** A closed place would have given more than there was before it was closed; then what was holds (A3). */
	heldDown: boolean;
}

/**
 * Weighs everything on the way to a place for one person: A2 over the whole way, then A3. Closing never gives more: an
 * entry that held somebody down from above a closed place (a lower grant that was given exactly) goes on holding.
 */
export function weighAll<E extends Entry>(who: Subject, way: readonly Step<E>[], now: number): Weighed<E> {
	const found = nearestOf(way, now, who);
	const counting = reaching(found, way);
	const open = weigh(found);
	const verdict = counting.length === found.length ? open : weigh(counting);
	const heldDown = !lower(verdict.level, open.level);
	return { found, counting, verdict: heldDown ? open : verdict, heldDown };
}

/** Whether the first of two levels is no higher than the second; holding nothing is lowest. */
function lower(a: Level | null, b: Level | null): boolean {
	return higher(a, b) === b;
}

/** Whether a person holds Manage at a place as a document controller: everywhere, apart from desks (A5). */
export function runsAsController(who: Subject, way: readonly Step[]): boolean {
	return who.controller && !way.at(-1)?.desk;
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
	return limited(who, runsAsController(who, way) ? 'manage' : weighAll(who, way, now).verdict.level);
}

/** Lowers a level to what the person may hold at most; outsiders of a project that gives them nothing hold nothing. */
export function limited(who: Subject, level: Level | null): Level | null {
	if (who.blocked) return null;
	if (who.ceiling === null) return who.outside ? null : level;
	return cap(level, who.ceiling);
}

/**
 * Lowers a decided level by what stands at the place (A6). Manage is capped by an archive and by a lock of another.
 * @param past caps that do not count for what is asked
 */
export function capped(level: Level | null, caps: Caps, past: readonly Cap[] = []): Level | null {
	const counts = (one: Cap) => caps[one] && !past.includes(one);
	let held = level;
	if (counts('frozen') && held !== 'manage') held = cap(held, 'remark');
	if (counts('inHand')) held = cap(held, 'remark');
	if (counts('archived')) held = cap(held, 'download');
	return held;
}
