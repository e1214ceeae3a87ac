import { and, desc, eq, gte, like, lt, sql, type SQL } from 'drizzle-orm';
import { z } from 'zod';
import type { EventRow } from '../../core/rows';
import { defineView } from '../acts/act';
import { day, id, projectKey } from '../acts/fields';
import type { Querier } from '../db';
import { event, place, release } from '../db/schema';
import { visibleEvents } from '../trail';

/** Events with what they tell of, newest first. */
export async function eventRows(db: Querier, where: SQL, limit: number): Promise<EventRow[]> {
	const rows = await db
		.select({
			seq: event.seq,
			at: event.at,
			actor: event.actorName,
			kind: event.kind,
			document: event.documentId,
			details: event.details,
			placeId: event.placeId,
			placeKind: place.kind,
			placePath: place.path,
			removalId: place.removalId,
			release: release.number
		})
		.from(event)
		.leftJoin(place, eq(place.id, event.placeId))
		.leftJoin(release, eq(release.id, event.releaseId))
		.where(where)
		.orderBy(desc(event.seq))
		.limit(limit);
	return rows.map(({ placeId, placeKind, placePath, removalId, ...row }) => ({
		...row,
		at: row.at.toISOString(),
		place:
			placeId && placeKind
				? { id: placeId, kind: placeKind, path: placePath!, removed: removalId !== null }
				: null
	}));
}

const page = {
	before: z.coerce.number().int().positive().optional(),
	limit: z.coerce.number().int().min(1).max(200).default(80)
};

export const activity = defineView({
	name: 'activity',
	summary: 'What happened in the project, newest first, as far as you may know of it',
	path: '/projects/{project}/activity',
	input: z.object({
		project: projectKey,
		...page,
		actor: z.string().max(60).optional(),
		kind: z.string().max(60).optional(),
		place: id.optional(),
		from: day.optional(),
		to: day.optional()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach }, input) {
		const where = and(
			eq(event.projectId, project.id),
			visibleEvents(reach),
			input.before ? lt(event.seq, input.before) : undefined,
			input.actor ? eq(event.actor, input.actor) : undefined,
			input.kind ? like(event.kind, `${input.kind}.%`) : undefined,
			input.place ? sql`${place.path} like ${'%' + input.place + '%'}` : undefined,
			input.from
				? gte(event.at, sql`(${input.from}::date)::timestamp at time zone ${project.timeZone}`)
				: undefined,
			input.to
				? lt(event.at, sql`(${input.to}::date + 1)::timestamp at time zone ${project.timeZone}`)
				: undefined
		)!;
		return { events: await eventRows(db, where, input.limit) };
	}
});

export const trail = defineView({
	name: 'trail',
	summary: 'What happened to one document or folder',
	path: '/places/{place}/trail',
	input: z.object({ place: id, ...page }),
	at: { kind: 'place', id: (i) => i.place, level: 'look' },
	async run({ db, project, place: here, reach }, input) {
		const where = and(
			eq(event.projectId, project.id),
			eq(event.placeId, here.id),
			visibleEvents(reach),
			input.before ? lt(event.seq, input.before) : undefined
		)!;
		return { events: await eventRows(db, where, input.limit) };
	}
});
