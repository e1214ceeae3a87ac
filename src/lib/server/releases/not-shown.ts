import { and, eq } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { releaseNumber } from '../../core/releases';
import type { Querier } from '../platform/db';
import { notice, release } from '../platform/db/schema';
import { namesOnRoute } from '../platform/runner/on-route';

/**
 * Why a release is not shown to somebody. Who was told before that it waits for them learns that it is being built again;
 * for everybody else it does not exist (A10).
 */
export async function notShown(
	db: Querier,
	projectId: string,
	number: number,
	personId: string,
	now: Date
): Promise<Problem> {
	const [told] = await db
		.select({ id: release.id })
		.from(release)
		.innerJoin(notice, and(eq(notice.releaseId, release.id), eq(notice.personId, personId)))
		.where(
			and(
				eq(release.projectId, projectId),
				eq(release.number, number),
				eq(release.state, 'building'),
				namesOnRoute(personId, now)
			)
		)
		.limit(1);
	return told
		? new Problem(
				'not-found',
				`Release ${releaseNumber(number)} is being built again. You are asked once it is ready.`,
				{ title: 'Back with its builder' }
			)
		: new Problem('not-found', 'There is nothing here, or nothing that you may look at.');
}
