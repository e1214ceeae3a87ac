import { narrowedReleases, releasesTable, type ReleasesShown } from '../../core/releases';
import { dayOf } from '../../core/time/days';
import { listResponse } from '../formats/lists/give-list';
import { projectFrame } from '../places/views';
import type { Actor } from '../platform/runner/actor';
import { readView } from '../platform/runner/run';
import type { Services } from '../platform/services';
import { releases } from './views';

/** The releases of a project as a download, narrowed as on screen, as far as whoever asks knows of them. */
export async function releasesListResponse(
	services: Services,
	actor: Actor,
	format: 'xlsx' | 'csv',
	{ project: key, ...shown }: ReleasesShown & { project: string }
): Promise<Response> {
	const { project } = await readView(services, projectFrame, actor, { project: key });
	const { releases: all } = await readView(services, releases, actor, { project: key });
	const now = new Date();
	const today = dayOf(now, project.timeZone);
	const rows = narrowedReleases(all, shown, today);
	const name = `${project.code} releases ${today}`;
	return listResponse(services, format, releasesTable(project, rows, now), name);
}
