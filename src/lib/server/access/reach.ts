import { and, eq, gt, isNotNull, isNull, lte, not, sql, type Placeholder, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { capped, type Cap, type Subject } from '../../core/access/decide';
import { allows, type Level } from '../../core/access/levels';
import { among, type Querier } from '../platform/db';
import { standing } from '../platform/db/standing';
import { grant, member, person, place, project } from '../platform/db/schema';
import { ID_LENGTH } from '../../core/acts/ids';
import { levelsIn } from './scope-memory';

/** Ids on the way down to a place, shelf first, itself last. */
export function idsOf(path: string): string[] {
	return Array.from({ length: path.length / ID_LENGTH }, (_, i) =>
		path.slice(i * ID_LENGTH, (i + 1) * ID_LENGTH)
	);
}

/** What the rules need to know of a member, from the rows that tell it. */
export function subjectOf(
	settings: { outsideLevel: Level | null; manageNeedsTwoStep: boolean },
	row: {
		personId: string;
		projectId: string;
		controller: boolean;
		outside: boolean;
		twoStep: boolean;
		blockedAt: Date | null;
	},
	belongs: Pick<Subject, 'departments' | 'leads' | 'groups'>
): Subject {
	const mayNotRun = settings.manageNeedsTwoStep && !row.twoStep;
	return {
		personId: row.personId,
		projectId: row.projectId,
		controller: row.controller && !mayNotRun,
		...belongs,
		outside: row.outside,
		...(row.blockedAt ? { blocked: true } : {}),
		ceiling: row.outside ? settings.outsideLevel : mayNotRun ? 'organise' : null
	};
}

/** A freeze as it stands at a place, reaching everything beneath. */
export interface Freeze {
	path: string;
	at: Date;
	by: string;
	reason: string;
}

/** What stands at a single place and caps levels there. Folders have neither. */
export interface Spot {
	archived: boolean;
	/** Id of who has the document in hand. */
	inHandOf: string | null;
}
export const OPEN_SPOT: Spot = { archived: false, inHandOf: null };

/** What a person may do in a project: the level of every scope they reach, and the freezes that cap it. */
export class Reach {
	constructor(
		readonly subject: Subject,
		/** Scope id → level before freezes; scopes without access are left out. */
		readonly levels: ReadonlyMap<string, Level>,
		readonly freezes: readonly Freeze[],
		/** The state of access in the project that this was decided from. */
		readonly version: number,
		/** Scopes of the project that are somebody’s desk. */
		readonly desks: ReadonlySet<string>
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

	/**
	 * Level at a place after what caps it there (A6): a freeze, an archive, a lock of somebody else. The only place
	 * where caps are put on a level.
	 * @param spot what stands at the place itself, beside freezes
	 * @param past caps that do not count for what is asked
	 */
	held(at: { scope: string; path: string }, spot: Spot, past: readonly Cap[] = []): Level | null {
		const caps = {
			frozen: this.freezeAt(at.path) !== null,
			archived: spot.archived,
			inHand: spot.inHandOf !== null && spot.inHandOf !== this.subject.personId
		};
		return capped(this.level(at.scope), caps, past);
	}

	/** Ids of the scopes where the person holds at least `needed`. */
	scopes(needed: Level = 'view'): string[] {
		return [...this.levels].filter(([, level]) => allows(level, needed)).map(([scope]) => scope);
	}

	/** Desks of others, which are all that a document controller does not reach (A5). */
	private shut(): string[] {
		return [...this.desks].filter((desk) => !this.levels.has(desk));
	}

	/**
	 * The same as {@link sees} for what is found by its folder. PostgreSQL takes a CASE to let half of the rows
	 * through, and so walks the folder in order; it would take a plain condition for rare, and gather and sort.
	 */
	seesInFolder(): SQL {
		if (this.subject.controller) return this.sees(place.scope);
		const scopes = this.scopes();
		return scopes.length ? sql`case when ${among(place.scope, scopes)} then true else false end` : sql`false`;
	}

	/** The SQL condition that lets through only the places that the person may look at (A10). */
	sees(column: PgColumn): SQL {
		return this.subject.controller
			? and(eq(place.projectId, this.subject.projectId), this.seesKept(column))!
			: this.seesKept(column);
	}

	/**
	 * The same for what is kept of places beside them in a row of the same project: what is found by words, counts. What
	 * has no scope was removed.
	 */
	seesKept(column: PgColumn): SQL {
		if (this.subject.controller) {
			const shut = this.shut();
			return shut.length ? not(among(column, shut)) : isNotNull(column);
		}
		const scopes = this.scopes();
		return scopes.length ? among(column, scopes) : sql`false`;
	}
}

/** Rows of the freezes of a project; they are few, and are asked for together with the person. */
const freezesOf = (projectId: Placeholder) => sql<
	{ path: string; at: string; by: string; reason: string | null }[]
>`
	coalesce((select json_agg(found) from (
		select path, frozen_at as at, freezer.name as by, frozen_reason as reason
		from place join person freezer on freezer.id = frozen_by
		where project_id = ${projectId} and frozen_at is not null) found), '[]')`;

/** Ids that a subquery gathers into one list. */
const ids = (of: SQL) => sql<string[]>`coalesce((select json_agg(id) from (${of}) as found(id)), '[]')`;

/** Who is in a project as access sees one, and what that rests on. */
const inProject = standing(['projectId', 'personId'], (db, { projectId, personId }) => {
	const inDepartments = (only: SQL) => sql`
		select m.department_id from department_member m join department d on d.id = m.department_id
		where d.project_id = ${projectId} and m.person_id = ${personId} and ${only} order by 1`;
	return db
		.select({
			personId: member.personId,
			projectId: member.projectId,
			controller: member.controller,
			outside: member.outside,
			blockedAt: member.blockedAt,
			twoStep: person.twoFactorEnabled,
			settings: project.settings,
			version: project.accessVersion,
			departments: ids(inDepartments(sql`true`)),
			leads: ids(inDepartments(sql`m.lead`)),
			groups: ids(sql`select m.group_id from group_member m join people_group g on g.id = m.group_id
				where g.project_id = ${projectId} and m.person_id = ${personId} order by 1`),
			freezes: freezesOf(projectId)
		})
		.from(member)
		.innerJoin(project, eq(project.id, member.projectId))
		.innerJoin(person, eq(person.id, member.personId))
		.where(and(eq(member.projectId, projectId), eq(member.personId, personId), isNull(member.leftAt)));
});

/**
 * A person as access sees one, with the state of access and the freezes of the project; null when they are not in it
 * (any more).
 */
async function loadSubject(db: Querier, projectId: string, personId: string) {
	const [row] = await inProject(db, { projectId, personId });
	if (!row || row.blockedAt) return null;
	const { departments, leads, groups } = row;
	return {
		version: row.version,
		subject: subjectOf(row.settings, row, { departments, leads, groups }),
		freezes: row.freezes.map((f) => ({ ...f, at: new Date(f.at), reason: f.reason ?? '' }))
	};
}

/**
 * What a person may do in a project: every scope decided, and the freezes. Null when they are not in the project, or
 * not any more.
 */
export async function loadReach(
	db: Querier,
	projectId: string,
	personId: string,
	now: Date
): Promise<Reach | null> {
	const found = await loadSubject(db, projectId, personId);
	if (!found) return null;
	const { levels, desks } = await levelsIn(db, found.subject, found.version, now.getTime());
	return new Reach(found.subject, levels, found.freezes, found.version, desks);
}

/** What a controller would hold at a place without being one; tells whether their power was used (A5). */
export async function ordinaryLevel(
	db: Querier,
	reach: Reach,
	at: { scope: string },
	now: Date
): Promise<Level | null> {
	const { subject } = reach;
	const { levels } = await levelsIn(db, { ...subject, controller: false }, reach.version, now.getTime());
	return levels.get(at.scope) ?? null;
}

/** Condition for a place that has not been removed, or has been. */
export function live(removed = false): SQL {
	return removed ? isNotNull(place.removalId) : isNull(place.removalId);
}

/** Condition for everything beneath a path, itself included. Ids never hold % or _. */
export function beneath(path: string): SQL {
	return sql`${place.path} collate "C" like ${path + '%'}`;
}

/** Projects in which an entry ended by its date between two moments. */
export async function projectsWhereAccessEnded(db: Querier, from: Date, to: Date): Promise<string[]> {
	const rows = await db
		.selectDistinct({ id: place.projectId })
		.from(grant)
		.innerJoin(place, eq(place.id, grant.placeId))
		.where(and(gt(grant.endsAt, from), lte(grant.endsAt, to)));
	return rows.map((r) => r.id);
}
