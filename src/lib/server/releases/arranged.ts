import { eq } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { arranged, groupings, type Arrangement } from '../../core/releases';
import type { Querier } from '../platform/db';
import { project, release } from '../platform/db/schema';
import type { Project } from '../platform/runner/act';

/** An arrangement that somebody asks for. Raises `invalid` where the numbers of the project have no such part. */
export function checkedArrangement(
	{ settings: { numbering } }: Pick<Project, 'settings'>,
	wanted: Arrangement
): Arrangement {
	if (wanted.group === null || groupings(numbering).some((one) => one.key === wanted.group)) return wanted;
	throw new Problem('invalid', 'The numbers of the project have no such part to group by.', {
		field: 'arrangement'
	});
}

/** The documents of a release, which come as they were added, as it lists them, each with its heading. */
export async function inArrangement<Item extends Parameters<typeof arranged>[0][number]>(
	db: Querier,
	releaseId: string,
	items: readonly Item[]
): Promise<(Item & { heading: string })[]> {
	const [how] = await db
		.select({ arrangement: release.arrangement, settings: project.settings })
		.from(release)
		.innerJoin(project, eq(project.id, release.projectId))
		.where(eq(release.id, releaseId));
	return how ? arranged(items, how.arrangement, how.settings.numbering) : [];
}
