import type { z } from 'zod';
import { MOST_HELD, type holders as asking } from '../../contract/holders';
import { holdersList } from '../../core/releases';
import { dayOf } from '../../core/time/days';
import { listResponse } from '../formats/lists/give-list';
import { projectFrame } from '../places/views';
import type { Actor } from '../platform/runner/actor';
import { readView } from '../platform/runner/run';
import type { Services } from '../platform/services';
import { holders } from './views-holders';

/** Who holds what as a download, all of it, as far as whoever asks controls the project. */
export async function holdersListResponse(
	services: Services,
	actor: Actor,
	format: 'xlsx' | 'csv',
	asked: Omit<z.input<typeof asking.input>, 'skip' | 'limit'>
): Promise<Response> {
	const { project } = await readView(services, projectFrame, actor, { project: asked.project });
	const page = (skip: number) => readView(services, holders, actor, { ...asked, skip, limit: MOST_HELD });
	const first = await page(0);
	const rows = [...first.rows];
	while (rows.length < first.total) {
		const more = await page(rows.length);
		if (!more.rows.length) break;
		rows.push(...more.rows);
	}
	const now = new Date();
	return listResponse(
		services,
		format,
		holdersList(project, first.holders, rows, now),
		`${project.code} who holds what ${dayOf(now, project.timeZone)}`
	);
}
