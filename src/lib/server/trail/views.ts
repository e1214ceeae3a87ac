import { and, desc, eq, gte, inArray, lt, notInArray, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/trail';
import type { EventRow } from '../../core/documents/rows';
import { kindsAbout, OPENINGS, placesNamed, readableDetails } from '../../core/events';
import type { Reach } from '../access/reach';
import { answers } from '../platform/runner/act';
import { among, type Querier } from '../platform/db';
import { event, place, release } from '../platform/db/schema';
import { visibleEvents } from './write';

/** Events with what they tell of as a reader may know it, newest first. */
async function eventRows(db: Querier, reach: Reach, where: SQL, limit: number): Promise<EventRow[]> {
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
			removalId: place.removalId,
			release: release.number
		})
		.from(event)
		.leftJoin(place, eq(place.id, event.placeId))
		.leftJoin(release, eq(release.id, event.releaseId))
		.where(where)
		.orderBy(desc(event.seq))
		.limit(limit);
	const named = new Set(rows.flatMap((row) => placesNamed(row.kind, row.details)));
	const seen = named.size
		? await db
				.select({ id: place.id })
				.from(place)
				.where(and(among(place.id, named), reach.sees(place.scope)))
		: [];
	const sees = new Set(seen.map((s) => s.id));
	return rows.map(({ placeId, placeKind, removalId, ...row }) => ({
		...row,
		details: readableDetails(row.kind, row.details, (id) => sees.has(id)),
		at: row.at.toISOString(),
		place: placeId && placeKind ? { id: placeId, kind: placeKind, removed: removalId !== null } : null
	}));
}

/** Changes only, unless openings and downloads are asked for (V5). */
function ofKind(kind: string | undefined): SQL | undefined {
	if (kind === 'all') return undefined;
	if (kind === 'openings') return inArray(event.kind, OPENINGS);
	return and(
		notInArray(event.kind, OPENINGS),
		kind === undefined ? undefined : inArray(event.kind, kindsAbout(kind))
	);
}

const above = alias(place, 'above');

export const activity = answers(contract.activity, {
	async run({ db, project, reach }, input) {
		const where = and(
			eq(event.projectId, project.id),
			visibleEvents(reach),
			input.before ? lt(event.seq, input.before) : undefined,
			input.actor ? eq(event.actor, input.actor) : undefined,
			ofKind(input.kind),
			// Beneath a place that one may look at; the ids of others lead nowhere (A10).
			input.place
				? sql`exists (select 1 from ${place} above where above.id = ${input.place} and ${reach.sees(above.scope)}
					and ${place.path} collate "C" like above.path || '%')`
				: undefined,
			input.from
				? gte(event.at, sql`(${input.from}::date)::timestamp at time zone ${project.timeZone}`)
				: undefined,
			input.to
				? lt(event.at, sql`(${input.to}::date + 1)::timestamp at time zone ${project.timeZone}`)
				: undefined
		)!;
		return { events: await eventRows(db, reach, where, input.limit) };
	}
});

/** A page of what happened to one thing, newest first, as far as the reader may know of it. */
const trailOf = async (
	{ db, project, reach }: { db: Querier; project: { id: string }; reach: Reach },
	{ kind, before, limit }: { kind?: 'all' | undefined; before?: number | undefined; limit: number },
	about: SQL
) => {
	const where = and(
		eq(event.projectId, project.id),
		about,
		visibleEvents(reach),
		ofKind(kind),
		before ? lt(event.seq, before) : undefined
	)!;
	return { events: await eventRows(db, reach, where, limit) };
};

export const trail = answers(contract.trail, {
	run: (context, input) => trailOf(context, input, eq(event.placeId, context.place.id))
});

export const releaseTrail = answers(contract.releaseTrail, {
	run: (context, input) => trailOf(context, input, eq(event.releaseId, context.release.id))
});
