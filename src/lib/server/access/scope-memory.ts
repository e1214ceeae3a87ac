import { and, eq } from 'drizzle-orm';
import { decide, type Entry, type Step, type Subject } from '../../core/access/decide';
import type { Level } from '../../core/access/levels';
import type { Querier } from '../platform/db';
import { grant, place, project } from '../platform/db/schema';
import { ID_LENGTH } from '../../core/acts/ids';

/** A scope with the scopes above it, itself first. */
interface Way {
	id: string;
	through: { id: string; closed: boolean; desk: boolean }[];
}

/** The levels one subject holds, right from when they were decided until the first of its entries ends. */
interface Decided {
	levels: ReadonlyMap<string, Level>;
	since: number;
	until: number;
}

interface Known {
	version: number;
	ways: Way[];
	/** Scopes that are somebody’s desk. */
	desks: ReadonlySet<string>;
	/** Every entry of the project by its place. */
	entries: ReadonlyMap<string, Entry[]>;
	decided: Map<string, Decided>;
}

/** Most projects, and most subjects of each, that are kept at a time. */
const MOST_PROJECTS = 50;
const MOST_SUBJECTS = 500;

/**
 * Scopes and entries by project, as of one state of its access. The database gives every state a number of its own
 * (`project.access_version`), so something here is either exactly right or not used.
 */
const memory = new Map<string, Known>();

function keep<V>(map: Map<string, V>, key: string, value: V, most: number): void {
	map.delete(key);
	map.set(key, value);
	if (map.size > most) map.delete(map.keys().next().value!);
}

/** The version that access is at, as this querier sees it. */
async function versionNow(db: Querier, projectId: string): Promise<number> {
	const [row] = await db
		.select({ version: project.accessVersion })
		.from(project)
		.where(eq(project.id, projectId));
	return row?.version ?? 0;
}

async function read(db: Querier, projectId: string, version: number): Promise<Known> {
	for (let at = version; ;) {
		const [scopes, grants] = await Promise.all([
			db
				.select({ id: place.id, path: place.path, closed: place.closed, deskOf: place.deskOf })
				.from(place)
				.where(and(eq(place.projectId, projectId), eq(place.scope, place.id))),
			db
				.select({
					placeId: grant.placeId,
					subjectKind: grant.subjectKind,
					subjectId: grant.subjectId,
					level: grant.level,
					exactly: grant.exactly,
					endsAt: grant.endsAt
				})
				.from(grant)
				.innerJoin(place, eq(place.id, grant.placeId))
				.where(eq(place.projectId, projectId))
		]);
		const after = await versionNow(db, projectId);
		if (after !== at) {
			at = after;
			continue;
		}
		const known = new Map(scopes.map((s) => [s.id, { closed: s.closed, desk: s.deskOf !== null }]));
		const entries = new Map<string, Entry[]>();
		for (const { placeId, endsAt, ...entry } of grants) {
			const list = entries.get(placeId) ?? [];
			list.push({ ...entry, endsAt: endsAt?.getTime() ?? null });
			entries.set(placeId, list);
		}
		const ways = scopes.map((s) => ({ id: s.id, through: wayUp(s.path, known) }));
		const desks = new Set(scopes.filter((s) => s.deskOf !== null).map((s) => s.id));
		return { version: at, ways, desks, entries, decided: new Map() };
	}
}

/** The scopes on the way up from a path, nearest first. */
function wayUp(path: string, known: ReadonlyMap<string, { closed: boolean; desk: boolean }>): Way['through'] {
	const way: Way['through'] = [];
	for (let at = path.length - ID_LENGTH; at >= 0; at -= ID_LENGTH) {
		const id = path.slice(at, at + ID_LENGTH);
		const here = known.get(id);
		if (here) way.push({ id, ...here });
	}
	return way;
}

/** Only the entries that name a subject matter to it, and most places have none of those. */
function entriesOf(subject: Subject, all: ReadonlyMap<string, Entry[]>): Map<string, Entry[]> {
	const named: Record<Entry['subjectKind'], ReadonlySet<string>> = {
		person: new Set([subject.personId]),
		department: new Set(subject.departments),
		leads: new Set(subject.leads),
		group: new Set(subject.groups),
		everyone: new Set(subject.outside ? [] : [subject.projectId])
	};
	const own = new Map<string, Entry[]>();
	for (const [at, list] of all) {
		const fitting = list.filter((e) => named[e.subjectKind].has(e.subjectId));
		if (fitting.length) own.set(at, fitting);
	}
	return own;
}

function decideAll(subject: Subject, known: Known, now: number): Decided {
	const entries = entriesOf(subject, known.entries);
	const levels = new Map<string, Level>();
	for (const { id, through } of known.ways) {
		const way: Step[] = through.map(({ id: at, ...s }) => ({ ...s, entries: entries.get(at) ?? [] }));
		const level = decide(subject, way, now);
		if (level !== null) levels.set(id, level);
	}
	let until = Infinity;
	for (const list of entries.values())
		for (const { endsAt } of list) if (endsAt !== null && endsAt > now) until = Math.min(until, endsAt);
	return { levels, since: now, until };
}

/**
 * The level of a subject in every scope of its project, before freezes; scopes without access are left out. With it,
 * which scopes are desks.
 * @param version the project's access version, read before or together with the subject
 * @param now in milliseconds
 */
export async function levelsIn(
	db: Querier,
	subject: Subject,
	version: number,
	now: number
): Promise<{ levels: ReadonlyMap<string, Level>; desks: ReadonlySet<string> }> {
	const { projectId } = subject;
	let known = memory.get(projectId);
	if (known?.version !== version) {
		known = await read(db, projectId, version);
		keep(memory, projectId, known, MOST_PROJECTS);
	}
	const key = JSON.stringify(subject);
	const before = known.decided.get(key);
	const { desks } = known;
	if (before && before.until > now && before.since <= now) return { levels: before.levels, desks };
	const decided = decideAll(subject, known, now);
	keep(known.decided, key, decided, MOST_SUBJECTS);
	return { levels: decided.levels, desks };
}
