import { and, eq, isNull, sql } from 'drizzle-orm';
import type { HeldLock } from '../../../core/access/may';
import type { DocumentFacts } from '../../../core/documents/may';
import type { Reach } from '../../access/reach';
import type { Querier } from '../db';
import { standing } from '../db/standing';
import { content, document, lock, lockWish, person, version } from '../db/schema';

const lockOpen = standing(['documentId'], (db, { documentId }) =>
	db
		.select({ lock, holder: person.name })
		.from(lock)
		.innerJoin(person, eq(person.id, lock.holderId))
		.where(and(eq(lock.documentId, documentId), isNull(lock.endedAt)))
);

/** The open lock of a document with its holder's name, or null. */
export async function openLock(db: Querier, documentId: string) {
	const [row] = await lockOpen(db, { documentId });
	return row ? { ...row.lock, holder: row.holder } : null;
}

/** A document as an act has it: its row, its newest version, and the open lock. */
export interface Held {
	row: typeof document.$inferSelect;
	current: typeof version.$inferSelect;
	open: Awaited<ReturnType<typeof openLock>>;
}

const documentForChange = standing(['documentId'], (db, { documentId }) =>
	db.select().from(document).where(eq(document.id, documentId)).for('update')
);
const versionHere = standing(['id'], (db, { id }) => db.select().from(version).where(eq(version.id, id)));

/** Locks a document's row for a change of it or its lock, and gives it as it then stands. */
export async function holdDocument(tx: Querier, documentId: string): Promise<Held> {
	const [row] = await documentForChange(tx, { documentId });
	const [[current], open] = await Promise.all([
		versionHere(tx, { id: row!.currentVersionId }),
		openLock(tx, documentId)
	]);
	return { row: row!, current: current!, open };
}

/** A document as it stands, without holding it. */
export async function readDocument(db: Querier, documentId: string): Promise<Held> {
	const [found] = await db
		.select({ row: document, current: version })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.where(eq(document.id, documentId));
	return { ...found!, open: await openLock(db, documentId) };
}

/** A lock as the rules see it, for whoever asks. */
export function heldLock(
	open: { holder: string; holderId: string; takenAt: Date; purpose: string; expectedEnd: Date | null },
	askerId: string
): HeldLock {
	return {
		holder: open.holder,
		holderId: open.holderId,
		mine: open.holderId === askerId,
		takenAt: open.takenAt.getTime(),
		expectedEnd: open.expectedEnd?.getTime() ?? null,
		purpose: open.purpose
	};
}

/** Who asks, and about which place. */
interface Asker {
	project: { timeZone: string };
	place: { scope: string; path: string; createdBy: string | null };
	reach: Reach;
	person: { id: string };
}

/** What the rows that an act holds do not say of a document, for who asks. */
const factsHere = standing(['id', 'hash', 'asker'], (db, { id, hash, asker }) =>
	db
		.select({
			mediaType: content.mediaType,
			wish: sql<boolean | null>`(select ${lockWish.asked} from ${lockWish}
				where ${lockWish.documentId} = ${id} and ${lockWish.personId} = ${asker})`,
			broken: sql<boolean>`exists (select 1 from ${lock} where ${lock.documentId} = ${id}
				and ${lock.holderId} = ${asker} and ${lock.endedHow} = 'broken' and ${lock.answeredAt} is null)`
		})
		.from(content)
		.where(eq(content.hash, hash))
);

/** What the rules ask of a document and a person, as they stand in this transaction. */
export async function documentFacts(
	db: Querier,
	{ project, place, reach, person: asker }: Asker,
	{ row, current, open }: Held,
	now: Date
): Promise<DocumentFacts> {
	const [more] = await factsHere(db, { id: row.id, hash: current.hash, asker: asker.id });
	return {
		uncapped: reach.level(place.scope)!,
		freeze: reach.freezeAt(place.path),
		archived: row.state === 'archived',
		lock: open && heldLock(open, asker.id),
		onDesk: reach.desks.has(place.scope),
		timeZone: project.timeZone,
		now,
		number: row.number,
		kind: row.kind,
		mediaType: more!.mediaType,
		own: place.createdBy === asker.id,
		wish: more!.wish === null ? null : more!.wish ? 'asked' : 'waits',
		broken: more!.broken
	};
}
