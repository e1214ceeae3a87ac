import { and, eq, inArray, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { decide, type Entry, type Step, type Subject } from '../core/access/decide';
import { allows, type Level } from '../core/access/levels';
import type { Querier } from './db';
import { department, departmentMember, grant, member, place } from './db/schema';
import { ID_LENGTH } from './ids';

/** A person as access sees one, or null when they are not in the project. */
export async function loadSubject(db: Querier, projectId: string, personId: string): Promise<Subject | null> {
	const [[row], departments] = await Promise.all([
		db
			.select({ controller: member.controller })
			.from(member)
			.where(and(eq(member.projectId, projectId), eq(member.personId, personId))),
		db
			.select({ id: departmentMember.departmentId, lead: departmentMember.lead })
			.from(departmentMember)
			.innerJoin(department, eq(department.id, departmentMember.departmentId))
			.where(and(eq(department.projectId, projectId), eq(departmentMember.personId, personId)))
	]);
	if (!row) return null;
	return {
		personId,
		projectId,
		controller: row.controller,
		departments: departments.map((d) => d.id),
		leads: departments.filter((d) => d.lead).map((d) => d.id),
		groups: []
	};
}

/** What a person may do in a project: the level of every scope they reach. */
export class Reach {
	constructor(
		readonly subject: Subject,
		/** Scope id → level; scopes without access are left out. */
		readonly levels: ReadonlyMap<string, Level>
	) {}

	level(scope: string): Level | null {
		return this.levels.get(scope) ?? null;
	}

	/** Ids of the scopes where the person holds at least `needed`. */
	scopes(needed: Level = 'look'): string[] {
		return [...this.levels].filter(([, level]) => allows(level, needed)).map(([scope]) => scope);
	}

	/** The SQL condition that lets through only what the person may look at (A10). */
	sees(column: typeof place.scope): SQL {
		const scopes = this.scopes();
		return scopes.length ? inArray(column, scopes) : sql`false`;
	}
}

/** Decides every scope of a project for a person. Only shelves and places with entries of their own are scopes. */
export async function loadReach(db: Querier, subject: Subject, now: Date): Promise<Reach> {
	const scopePlace = alias(place, 'scope_place');
	const [rows, entries] = await Promise.all([
		db
			.select({ id: scopePlace.id, path: scopePlace.path, closed: scopePlace.closed })
			.from(scopePlace)
			.where(and(eq(scopePlace.projectId, subject.projectId), eq(scopePlace.scope, scopePlace.id))),
		subject.controller ? new Map<string, Entry[]>() : entriesFor(db, subject)
	]);
	const known = new Map(rows.map((r) => [r.id, r]));
	const levels = new Map<string, Level>();
	for (const row of rows) {
		const way: Step[] = [];
		for (let at = row.path.length - ID_LENGTH; at >= 0; at -= ID_LENGTH) {
			const id = row.path.slice(at, at + ID_LENGTH);
			const scope = known.get(id);
			if (scope) way.push({ closed: scope.closed, entries: entries.get(id) ?? [] });
		}
		const level = decide(subject, way, now.getTime());
		if (level !== null) levels.set(row.id, level);
	}
	return new Reach(subject, levels);
}

async function entriesFor(db: Querier, who: Subject): Promise<Map<string, Entry[]>> {
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
				or(
					named('person', [who.personId]),
					named('department', who.departments),
					named('leads', who.leads),
					named('group', who.groups),
					named('everyone', [who.projectId])
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
