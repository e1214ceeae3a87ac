import { and, asc, eq, isNull, ne, or, sql } from 'drizzle-orm';
import type { Querier } from '../platform/db';
import { member, person, project } from '../platform/db/schema';

/**
 * The projects besides one that somebody controls now: what is known of their people may be told to them.
 * @returns ids and codes, by code
 */
export async function othersControlled(
	db: Querier,
	by: string,
	besides: string
): Promise<{ id: string; code: string }[]> {
	return db
		.select({ id: project.id, code: project.code })
		.from(member)
		.innerJoin(project, eq(project.id, member.projectId))
		.innerJoin(person, eq(person.id, member.personId))
		.where(
			and(
				eq(member.personId, by),
				eq(member.controller, true),
				isNull(member.leftAt),
				isNull(member.blockedAt),
				ne(project.id, besides),
				// Where Manage needs two-step sign-in, who has not set it up does not control (A6a).
				or(
					sql`not coalesce((${project.settings}->>'manageNeedsTwoStep')::boolean, false)`,
					eq(person.twoFactorEnabled, true)
				)
			)
		)
		.orderBy(asc(project.code));
}
