import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { groupedBy } from '../../core/lists/group';
import type { AccessModel, Grant, Member, Scope } from '../../core/access/model';
import { idsOf, subjectOf } from './reach';
import type { Querier } from '../platform/db';
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
} from '../platform/db/schema';

/** Loads the access of a whole project as plain data, for saying who reaches a place and what a change would do. */
export async function loadModel(db: Querier, projectId: string): Promise<AccessModel> {
	const giver = alias(person, 'giver');
	const [[about], scopeRows, grantRows, memberRows, departmentRows, groupRows, frozenRows] =
		await Promise.all([
			db.select({ settings: project.settings }).from(project).where(eq(project.id, projectId)),
			db
				.select({ id: place.id, path: place.path, closed: place.closed, deskOf: place.deskOf })
				.from(place)
				.where(and(eq(place.projectId, projectId), sql`${place.scope} = ${place.id}`)),
			db
				.select({ grant, by: giver.name })
				.from(grant)
				.innerJoin(place, eq(place.id, grant.placeId))
				.leftJoin(giver, eq(giver.id, grant.grantedBy))
				.where(eq(place.projectId, projectId))
				.orderBy(grant.createdAt, grant.id),
			db
				.select({
					personId: member.personId,
					projectId: member.projectId,
					controller: member.controller,
					outside: member.outside,
					blockedAt: member.blockedAt,
					twoStep: person.twoFactorEnabled,
					name: person.name,
					email: person.email
				})
				.from(member)
				.innerJoin(person, eq(person.id, member.personId))
				.where(and(eq(member.projectId, projectId), isNull(member.leftAt))),
			db
				.select({
					personId: departmentMember.personId,
					id: departmentMember.departmentId,
					lead: departmentMember.lead
				})
				.from(departmentMember)
				.innerJoin(department, eq(department.id, departmentMember.departmentId))
				.where(eq(department.projectId, projectId)),
			db
				.select({ personId: groupMember.personId, id: groupMember.groupId })
				.from(groupMember)
				.innerJoin(group, eq(group.id, groupMember.groupId))
				.where(eq(group.projectId, projectId)),
			db
				.select({ path: place.path })
				.from(place)
				.where(and(eq(place.projectId, projectId), isNotNull(place.frozenAt)))
		]);
	const gather = <T extends { personId: string }>(rows: T[]) => groupedBy(rows, (row) => row.personId);
	const [departments, groups] = [gather(departmentRows), gather(groupRows)];
	const grants = new Map<string, Grant[]>();
	for (const { grant: g, by } of grantRows) {
		const list = grants.get(g.placeId) ?? [];
		list.push(grantOf(g, by));
		grants.set(g.placeId, list);
	}
	return {
		scopes: new Map(
			scopeRows.map((r): [string, Scope] => [
				r.id,
				{ id: r.id, path: idsOf(r.path), closed: r.closed, desk: r.deskOf !== null }
			])
		),
		grants,
		members: new Map(
			memberRows.map((r): [string, Member] => [
				r.personId,
				{
					name: r.name,
					email: r.email,
					subject: subjectOf(about!.settings, r, {
						departments: (departments.get(r.personId) ?? []).map((d) => d.id),
						leads: (departments.get(r.personId) ?? []).filter((d) => d.lead).map((d) => d.id),
						groups: (groups.get(r.personId) ?? []).map((g) => g.id)
					})
				}
			])
		),
		frozen: frozenRows.map((r) => idsOf(r.path))
	};
}

/** A stored grant as the rules see one. */
export function grantOf(g: typeof grant.$inferSelect, by: string | null): Grant {
	return {
		id: g.id,
		placeId: g.placeId,
		subjectKind: g.subjectKind,
		subjectId: g.subjectId,
		level: g.level,
		exactly: g.exactly,
		endsAt: g.endsAt?.getTime() ?? null,
		by,
		byId: g.grantedBy,
		at: g.createdAt.getTime(),
		underId: g.underId,
		bringCount: g.bringCount,
		bringLevel: g.bringLevel
	};
}
