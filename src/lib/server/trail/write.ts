import { createHash } from 'node:crypto';
import { and, eq, inArray, isNull, or, sql, type SQL } from 'drizzle-orm';
import { chainInput, GENESIS } from '../../core/trail/chain';
import type { DetailsOf, KindOfEvent } from '../../core/events';
import type { Tx } from '../platform/db';
import { standing } from '../platform/db/standing';
import type { Reach } from '../access/reach';
import { chainHead, event, place } from '../platform/db/schema';
import { namesOnRoute } from '../platform/runner/on-route';

/** An event to be written, of a kind of the catalogue with its details: what happened, where, and to what. */
export type NewEvent = {
	[K in KindOfEvent]: Where & { kind: K } & (Record<string, never> extends DetailsOf<K>
			? { details?: DetailsOf<K> }
			: { details: DetailsOf<K> });
}[KindOfEvent];

interface Where {
	placeId?: string | null;
	documentId?: string | null;
	releaseId?: string | null;
	/** Who did it, where the act itself found that out (an address proven in it). */
	by?: EventActor;
}

export interface EventActor {
	id: string | null;
	name: string;
}

/** The channel on which processes tell one another of new events. */
export const CHANNEL = 'cupboard_events';

export function sha256(text: string): string {
	return createHash('sha256').update(text).digest('hex');
}

const headForChange = standing(['projectId'], (db, { projectId }) =>
	db.select().from(chainHead).where(eq(chainHead.projectId, projectId)).for('update')
);
const moveHead = standing(['projectId', 'seq', 'hash'], (db, { projectId, seq, hash }) =>
	db
		.insert(chainHead)
		.values({ projectId, seq, hash })
		.onConflictDoUpdate({
			target: chainHead.projectId,
			set: { seq: sql`excluded.seq`, hash: sql`excluded.hash` }
		})
);

/**
 * Writes events to the end of a project's chain, inside the caller's transaction (V1, V2), and has
 * PostgreSQL tell every process when it commits. The head's row lock makes writers queue up, so call this last.
 *
 * @returns the sequence number of the last event written
 */
export async function writeEvents(
	tx: Tx,
	projectId: string,
	at: Date,
	actor: EventActor,
	told: readonly (NewEvent & { noted?: Record<string, unknown> })[]
): Promise<number> {
	const [head] = await headForChange(tx, { projectId });
	let seq = head?.seq ?? 0;
	let previous = head?.hash ?? GENESIS;
	const rows = told.map((t) => {
		seq += 1;
		const by = t.by ?? actor;
		const chained = {
			seq,
			at: at.toISOString(),
			actor: by.id,
			kind: t.kind,
			place: t.placeId ?? null,
			document: t.documentId ?? null,
			release: t.releaseId ?? null,
			// Through JSON once, so that what is hashed is exactly what the database gives back.
			details: JSON.parse(JSON.stringify({ ...t.details, ...t.noted, by: by.name })) as Record<
				string,
				unknown
			>
		};
		const hash = sha256(chainInput(previous, chained));
		const row = {
			projectId,
			seq,
			at,
			actor: by.id,
			actorName: by.name,
			kind: t.kind,
			placeId: chained.place,
			documentId: chained.document,
			releaseId: chained.release,
			details: chained.details,
			previous,
			hash
		};
		previous = hash;
		return row;
	});
	if (!rows.length) return seq;
	const first = rows[0]!.seq;
	await Promise.all([
		tx.insert(event).values(rows),
		moveHead(tx, { projectId, seq, hash: previous }),
		tx.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ projectId, from: first, to: seq })})`)
	]);
	return seq;
}

/**
 * The events a person may know of (V3): by their place, else by their release, else common to the project. What is
 * common (people, groups, the distribution list) is for those inside; of people outside each sees their places only.
 */
export function visibleEvents(reach: Reach): SQL {
	const scopes = reach.scopes();
	const bySight = scopes.length ? inArray(place.scope, scopes) : sql`false`;
	const byRoute = reach.subject.controller ? sql`true` : namesOnRoute(reach.subject.personId, new Date());
	const inside = reach.subject.outside ? sql`false` : sql`true`;
	return or(
		bySight,
		and(isNull(event.placeId), sql`${event.releaseId} is not null`, byRoute),
		and(isNull(event.placeId), isNull(event.releaseId), inside)
	)!;
}
