import { and, asc, eq, gte, isNull, lte, ne, sql } from 'drizzle-orm';
import {
	speaksFor,
	standing,
	turnOf,
	type Route,
	type Speakers,
	type StepStanding,
	type Turn
} from '../../../core/releases/route';
import { dayOf } from '../../../core/time/days';
import type { Querier } from '../db';
import {
	department,
	departmentMember,
	group,
	groupMember,
	member,
	releaseDecision,
	release,
	standIn,
	type project
} from '../db/schema';

type Release = typeof release.$inferSelect;
type Project = Pick<typeof project.$inferSelect, 'id' | 'timeZone'>;

/** Who speaks for whom in a project today: leads, people inside of groups, and who stands in for whom. */
export async function speakersOf(db: Querier, here: Project, now: Date): Promise<Speakers> {
	const today = dayOf(now, here.timeZone);
	const inside = and(
		eq(member.projectId, here.id),
		isNull(member.leftAt),
		isNull(member.blockedAt),
		eq(member.outside, false)
	);
	const [leading, grouped, standIns] = await Promise.all([
		db
			.select({ of: departmentMember.departmentId, person: departmentMember.personId })
			.from(departmentMember)
			.innerJoin(department, eq(department.id, departmentMember.departmentId))
			.innerJoin(member, eq(member.personId, departmentMember.personId))
			.where(and(eq(department.projectId, here.id), eq(departmentMember.lead, true), inside)),
		db
			.select({ of: groupMember.groupId, person: groupMember.personId })
			.from(groupMember)
			.innerJoin(group, eq(group.id, groupMember.groupId))
			.innerJoin(member, eq(member.personId, groupMember.personId))
			.where(and(eq(group.projectId, here.id), inside)),
		db
			.select({ away: standIn.personId, standIn: standIn.standInId })
			.from(standIn)
			.innerJoin(member, eq(member.personId, standIn.standInId))
			.where(
				and(eq(standIn.projectId, here.id), lte(standIn.fromDay, today), gte(standIn.untilDay, today), inside)
			)
			.orderBy(asc(standIn.createdAt))
	]);
	const lists = (rows: { of: string; person: string }[]) => {
		const by = new Map<string, string[]>();
		for (const row of rows) by.set(row.of, [...(by.get(row.of) ?? []), row.person]);
		return by;
	};
	return { leads: lists(leading), groups: lists(grouped), standIns };
}

/** What was decided on a release, in the order in which it was. */
export async function decisionsOf(db: Querier, releaseId: string) {
	const rows = await db
		.select()
		.from(releaseDecision)
		.where(eq(releaseDecision.releaseId, releaseId))
		.orderBy(asc(releaseDecision.seq));
	return rows.map(({ personId, ofKind, ofId, ...rest }) => ({
		...rest,
		by: personId,
		of: { kind: ofKind, id: ofId }
	}));
}
export type KeptDecision = Awaited<ReturnType<typeof decisionsOf>>[number];

/** The turn of somebody on a release that waits for approval: on which step, and whether they can decide. */
export async function turnIn(
	db: Querier,
	about: Release,
	here: Project,
	personId: string,
	now: Date
): Promise<{ at: number; turn: Turn; steps: StepStanding<KeptDecision>[]; speakers: Speakers } | null> {
	if (about.state !== 'in-review' || about.turn === null) return null;
	const [decisions, speakers] = await Promise.all([decisionsOf(db, about.id), speakersOf(db, here, now)]);
	const steps = standing(about.route, decisions, about.digest ?? '');
	return {
		at: about.turn,
		turn: turnOf(personId, about.route[about.turn]!, steps[about.turn]!, speakers),
		steps,
		speakers
	};
}

/** Whether somebody speaks for anybody whom a route names, at any step. */
export const onRoute = (route: Route, personId: string, speakers: Speakers): boolean =>
	route.some((step) => step.of.some((one) => speaksFor(personId, one, speakers) !== null));

/** The same as a condition on rows of `release`: whether its route names somebody, or those whom they speak for. */
export const namesOnRoute = (personId: string, now: Date) => sql`exists (
	select 1 from jsonb_array_elements(release.route) step, jsonb_array_elements(step -> 'of') named
	where named ->> 'id' in (
		with speaker as (
			select ${personId}::text as id
			union
			select s.person_id from stand_in s
			cross join (select (${now.toISOString()}::timestamptz at time zone p.time_zone)::date::text as day
				from project p where p.id = release.project_id) today
			join member m on m.project_id = s.project_id and m.person_id = s.stand_in_id
			where s.project_id = release.project_id and s.stand_in_id = ${personId}
				and s.from_day <= today.day and s.until_day >= today.day
				and m.left_at is null and m.blocked_at is null and not m.outside
		), inside as (
			select speaker.id from speaker
			join member m on m.person_id = speaker.id and m.project_id = release.project_id
			where m.left_at is null and m.blocked_at is null and not m.outside
		)
		select id from speaker
		union all select d.department_id from department_member d join inside on inside.id = d.person_id where d.lead
		union all select g.group_id from group_member g join inside on inside.id = g.person_id
	)
)`;

/** Releases that somebody on the route knows of: once they were asked for, and not while they are built. */
export const askedOf = (personId: string, now: Date) =>
	and(namesOnRoute(personId, now), ne(release.state, 'building'));

/** Whether a release is built again, of which somebody on its route was told before. */
export const builtAgainFor = (personId: string, now: Date) =>
	sql<boolean>`(release.state = 'building' and ${namesOnRoute(personId, now)} and exists (
		select 1 from notice n where n.release_id = release.id and n.person_id = ${personId}))`;
