import { and, eq, inArray, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { capped, decide, type Entry, type Step, type Subject } from '../core/access/decide';
import { allows, type Level } from '../core/access/levels';
import type { Querier } from './db';
import {
	department,
	departmentMember,
	grant,
	group,
	groupMember,
	member,
	person,
	place,
	project
} from './db/schema';
import { ID_LENGTH } from './ids';

/** Ids on the way down to a place, shelf first, itself last. */
export function idsOf(path: string): string[] {
	return Array.from({ length: path.length / ID_LENGTH }, (_, i) =>
		path.slice(i * ID_LENGTH, (i + 1) * ID_LENGTH)
	);
}

/** What the rules need to know of a member, from the rows that tell it. */
export function subjectOf(
	settings: { outsideLevel: Level | null; runNeedsTwoStep: boolean },
	row: { personId: string; projectId: string; controller: boolean; outside: boolean; twoStep: boolean },
	belongs: Pick<Subject, 'departments' | 'leads' | 'groups'>
): Subject {
	const mayNotRun = settings.runNeedsTwoStep && !row.twoStep;
	return {
		personId: row.personId,
		projectId: row.projectId,
		controller: row.controller && !mayNotRun,
		...belongs,
		outside: row.outside,
		ceiling: row.outside ? settings.outsideLevel : mayNotRun ? 'tidy' : null
	};
}

/** A person as access sees one, or null when they are not in the project, or not any more. */
export async function loadSubject(db: Querier, projectId: string, personId: string): Promise<Subject | null> {
	const [[row], departments, groups] = await Promise.all([
		db
			.select({
				personId: member.personId,
				projectId: member.projectId,
				controller: member.controller,
				outside: member.outside,
				twoStep: person.twoFactorEnabled,
				settings: project.settings
			})
			.from(member)
			.innerJoin(project, eq(project.id, member.projectId))
			.innerJoin(person, eq(person.id, member.personId))
			.where(and(eq(member.projectId, projectId), eq(member.personId, personId), isNull(member.leftAt))),
		db
			.select({ id: departmentMember.departmentId, lead: departmentMember.lead })
			.from(departmentMember)
			.innerJoin(department, eq(department.id, departmentMember.departmentId))
			.where(and(eq(department.projectId, projectId), eq(departmentMember.personId, personId))),
		db
			.select({ id: groupMember.groupId })
			.from(groupMember)
			.innerJoin(group, eq(group.id, groupMember.groupId))
			.where(and(eq(group.projectId, projectId), eq(groupMember.personId, personId)))
	]);
	if (!row) return null;
	return subjectOf(row.settings, row, {
		departments: departments.map((d) => d.id),
		leads: departments.filter((d) => d.lead).map((d) => d.id),
		groups: groups.map((g) => g.id)
	});
}

/** A freeze as it stands at a place, reaching everything beneath. */
export interface Freeze {
	path: string;
	at: Date;
	by: string;
	reason: string;
}

/** What a person may do in a project: the level of every scope they reach, and the freezes that cap it. */
export class Reach {
	constructor(
		readonly subject: Subject,
		/** Scope id → level before freezes; scopes without access are left out. */
		readonly levels: ReadonlyMap<string, Level>,
		readonly freezes: readonly Freeze[]
	) {}

	/** Level in a scope, before what stands at single places. */
	level(scope: string): Level | null {
		return this.levels.get(scope) ?? null;
	}

	/** The nearest freeze that reaches a path. */
	freezeAt(path: string): Freeze | null {
		return this.freezes.reduce<Freeze | null>(
			(best, f) => (path.startsWith(f.path) && f.path.length > (best?.path.length ?? 0) ? f : best),
			null
		);
	}

	/** Level at a place with its freezes. */
	held(at: { scope: string; path: string }): Level | null {
		return capped(this.level(at.scope), { frozen: this.freezeAt(at.path) !== null, archived: false });
	}

	/** Ids of the scopes where the person holds at least `needed`. */
	scopes(needed: Level = 'look'): string[] {
		return [...this.levels].filter(([, level]) => allows(level, needed)).map(([scope]) => scope);
	}

	/**
	 * The same as {@link sees} for what is found by its folder: written so that PostgreSQL walks the folder in order
	 * and does not gather everything in sight first.
	 */
	seesInFolder(): SQL {
		if (this.subject.controller) return eq(place.projectId, this.subject.projectId);
		const scopes = this.scopes();
		return scopes.length ? sql`(${place.scope} || '') in ${scopes}` : sql`false`;
	}

	/** The SQL condition that lets through only what the person may look at (A10). */
	sees(column: typeof place.scope): SQL {
		if (this.subject.controller) return eq(place.projectId, this.subject.projectId);
		const scopes = this.scopes();
		return scopes.length ? inArray(column, scopes) : sql`false`;
	}
}

/** Decides every scope of a project for a person. Only shelves and places with entries of their own are scopes. */
export async function loadReach(db: Querier, subject: Subject, now: Date): Promise<Reach> {
	const scopePlace = alias(place, 'scope_place');
	const [rows, entries, freezes] = await Promise.all([
		db
			.select({ id: scopePlace.id, path: scopePlace.path, closed: scopePlace.closed })
			.from(scopePlace)
			.where(and(eq(scopePlace.projectId, subject.projectId), eq(scopePlace.scope, scopePlace.id))),
		subject.controller ? new Map<string, Entry[]>() : entriesFor(db, subject),
		loadFreezes(db, subject.projectId)
	]);
	const known = new Map(rows.map((r) => [r.id, r]));
	const levels = new Map<string, Level>();
	for (const row of rows) {
		const level = decide(subject, wayThrough(row.path, known, entries), now.getTime());
		if (level !== null) levels.set(row.id, level);
	}
	return new Reach(subject, levels, freezes);
}

function wayThrough(
	path: string,
	scopes: ReadonlyMap<string, { closed: boolean }>,
	entries: ReadonlyMap<string, Entry[]>
): Step[] {
	const way: Step[] = [];
	for (let at = path.length - ID_LENGTH; at >= 0; at -= ID_LENGTH) {
		const id = path.slice(at, at + ID_LENGTH);
		const scope = scopes.get(id);
		if (scope) way.push({ closed: scope.closed, entries: entries.get(id) ?? [] });
	}
	return way;
}

/** What a controller would hold at a place without being one; tells whether their power was used (A5). */
export async function ordinaryLevel(
	db: Querier,
	subject: Subject,
	path: string,
	now: Date
): Promise<Level | null> {
	const ordinary = { ...subject, controller: false };
	const ids = idsOf(path);
	const [rows, entries] = await Promise.all([
		db.select({ id: place.id, closed: place.closed }).from(place).where(inArray(place.id, ids)),
		entriesFor(db, ordinary, ids)
	]);
	return decide(ordinary, wayThrough(path, new Map(rows.map((r) => [r.id, r])), entries), now.getTime());
}

async function loadFreezes(db: Querier, projectId: string): Promise<Freeze[]> {
	const rows = await db
		.select({ path: place.path, at: place.frozenAt, by: person.name, reason: place.frozenReason })
		.from(place)
		.innerJoin(person, eq(person.id, place.frozenBy))
		.where(and(eq(place.projectId, projectId), isNotNull(place.frozenAt)));
	return rows.map((r) => ({ path: r.path, at: r.at!, by: r.by, reason: r.reason ?? '' }));
}

async function entriesFor(db: Querier, who: Subject, at?: string[]): Promise<Map<string, Entry[]>> {
	const named = (kind: Entry['subjectKind'], ids: readonly string[]) =>
		ids.length ? and(eq(grant.subjectKind, kind), inArray(grant.subjectId, [...ids])) : undefined;
	const rows = await db
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
		.where(
			and(
				eq(place.projectId, who.projectId),
				at ? inArray(place.id, at) : undefined,
				or(
					named('person', [who.personId]),
					named('department', who.departments),
					named('leads', who.leads),
					named('group', who.groups),
					named('everyone', who.outside ? [] : [who.projectId])
				)
			)
		);
	const byPlace = new Map<string, Entry[]>();
	for (const { placeId, endsAt, ...entry } of rows) {
		const list = byPlace.get(placeId) ?? [];
		list.push({ ...entry, endsAt: endsAt?.getTime() ?? null });
		byPlace.set(placeId, list);
	}
	return byPlace;
}

/** Condition for a place that has not been removed, or has been. */
export function live(removed = false): SQL {
	return removed ? isNotNull(place.removalId) : isNull(place.removalId);
}

/** Condition for everything beneath a path, itself included. Ids never hold % or _. */
export function beneath(path: string): SQL {
	return sql`${place.path} collate "C" like ${path + '%'}`;
}
