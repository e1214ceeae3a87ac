import { and, desc, eq, inArray, ne, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/access';
import { levelLabel } from '../../core/access/levels';
import { answers } from '../platform/runner/act';
import { department, document, grant, group, person, place } from '../platform/db/schema';
import { live } from './reach';

export const sharing = answers(contract.sharing, {
	async run({ db, project, reach, person: me, now }) {
		const { subject } = reach;
		const giver = alias(person, 'giver');
		const inside = alias(place, 'q');
		const whom = alias(person, 'whom');
		const columns = {
			id: grant.id,
			place: place.id,
			placeName: place.name,
			placeKind: place.kind,
			number: document.number,
			level: grant.level,
			kind: grant.subjectKind,
			subject: grant.subjectId,
			person: whom.name,
			department: department.name,
			group: group.name,
			by: giver.name,
			at: grant.createdAt,
			endsAt: grant.endsAt,
			seen: place.scope,
			/** Documents here that others changed since it was given, and since one looked. */
			changed: sql<number>`(select count(*)::int from place q join document d on d.id = q.id
				left join seen s on s.document_id = d.id and s.person_id = ${me.id}
				where q.project_id = ${project.id} and q.path collate "C" like ${place.path} || '%' and q.removal_id is null and ${reach.sees(inside.scope)}
					and d.changed_at > ${grant.createdAt} and (s.at is null or d.changed_at > s.at)
					and d.changed_by is distinct from ${me.id})`
		};
		const base = () =>
			db
				.select(columns)
				.from(grant)
				.innerJoin(place, eq(place.id, grant.placeId))
				.leftJoin(document, eq(document.id, place.id))
				.leftJoin(giver, eq(giver.id, grant.grantedBy))
				.leftJoin(whom, and(eq(grant.subjectKind, 'person'), eq(whom.id, grant.subjectId)))
				.leftJoin(
					department,
					and(inArray(grant.subjectKind, ['department', 'leads']), eq(department.id, grant.subjectId))
				)
				.leftJoin(group, and(eq(grant.subjectKind, 'group'), eq(group.id, grant.subjectId)));
		const named = (kind: 'person' | 'department' | 'leads' | 'group', ids: readonly string[]) =>
			ids.length ? and(eq(grant.subjectKind, kind), inArray(grant.subjectId, [...ids])) : undefined;
		const unended = sql`(${grant.endsAt} is null or ${grant.endsAt} > ${now.toISOString()})`;
		// What a department has on its own shelf was not given by anybody; it comes with being there.
		const toMe = await base()
			.where(
				and(
					eq(place.projectId, project.id),
					live(),
					reach.sees(place.scope),
					unended,
					sql`${grant.level} is not null`,
					ne(grant.grantedBy, me.id),
					or(
						named('person', [me.id]),
						named('group', subject.groups),
						and(
							or(named('department', subject.departments), named('leads', subject.leads)),
							sql`${place.departmentId} is distinct from ${grant.subjectId}`
						)
					)
				)
			)
			.orderBy(desc(grant.createdAt))
			.limit(500);
		const byMe = await base()
			.where(
				and(
					eq(place.projectId, project.id),
					live(),
					reach.sees(place.scope),
					unended,
					eq(grant.grantedBy, me.id),
					sql`(${place.departmentId} is null or ${place.departmentId} <> ${grant.subjectId})`
				)
			)
			.orderBy(desc(grant.createdAt))
			.limit(2_000);
		const row = ({
			seen: _seen,
			person: one,
			department: two,
			group: three,
			kind,
			at,
			endsAt,
			level,
			...rest
		}: (typeof toMe)[number]) => ({
			...rest,
			kind,
			level: level ? levelLabel(level) : 'Barred',
			who: one ?? (kind === 'leads' && two ? `Leads of ${two}` : two) ?? three ?? 'Everyone in the project',
			at: at.toISOString(),
			endsAt: endsAt?.toISOString() ?? null
		});
		return { toMe: toMe.map(row), byMe: byMe.map(row) };
	}
});
