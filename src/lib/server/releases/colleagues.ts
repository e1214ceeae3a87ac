import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Querier } from '../platform/db';
import { colleague, pass } from '../platform/db/schema';

/** Colleagues of recipients, whom these asked to bring in, by the passes of the recipients; the first asked for first. */
export function colleaguesOf(db: Querier, passes: readonly string[]) {
	return passes.length
		? db
				.select()
				.from(colleague)
				.where(inArray(colleague.passId, [...passes]))
				.orderBy(asc(colleague.createdAt), asc(colleague.id))
		: Promise.resolve([]);
}

/** How many releases of a project have recipients who ask to bring in a colleague, and wait for the answer. */
export async function colleaguesWaiting(db: Querier, projectId: string): Promise<number> {
	const [row] = await db
		.select({ n: sql<number>`count(distinct ${pass.releaseId})::int` })
		.from(colleague)
		.innerJoin(pass, eq(pass.id, colleague.passId))
		.where(and(eq(pass.projectId, projectId), eq(colleague.state, 'asked')));
	return row!.n;
}
