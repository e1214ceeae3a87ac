import { and, asc, eq, gte, lte } from 'drizzle-orm';
import { dayOf } from '../../core/time/days';
import type { Querier } from '../platform/db';
import { person, standIn } from '../platform/db/schema';

/** Who of a project is away today, until which day (YYYY-MM-DD), and who decides for them. */
export async function awayNow(
	db: Querier,
	{ id, timeZone }: { id: string; timeZone: string },
	now: Date
): Promise<{ person: string; until: string; standIn: string }[]> {
	const today = dayOf(now, timeZone);
	return db
		.select({ person: standIn.personId, until: standIn.untilDay, standIn: person.name })
		.from(standIn)
		.innerJoin(person, eq(person.id, standIn.standInId))
		.where(and(eq(standIn.projectId, id), lte(standIn.fromDay, today), gte(standIn.untilDay, today)))
		.orderBy(asc(standIn.createdAt));
}
