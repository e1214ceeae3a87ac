import { eq } from 'drizzle-orm';
import type { Database } from '../../platform/db';
import { document, person } from '../../platform/db/schema';
import { writeEvents } from '../../trail/write';
import type { RoomName } from './names';

/**
 * Tells in the trail that somebody writes in a live text, or marks up a version (V1). Once a connection: every letter
 * has its writer in the live record, and what comes of it is a version.
 */
export async function tellWriting(
	{ db }: Database,
	room: RoomName,
	projectId: string,
	personId: string
): Promise<void> {
	const [about] = await db
		.select({ number: document.number })
		.from(document)
		.where(eq(document.id, room.document));
	const [who] = await db.select({ name: person.name }).from(person).where(eq(person.id, personId));
	if (!about || !who) return;
	const marks = room.kind === 'marks';
	await db.transaction((tx) =>
		writeEvents(tx, projectId, new Date(), { id: personId, name: who.name }, [
			{
				kind: marks ? 'marks.drawn' : 'live.written',
				placeId: room.document,
				documentId: room.document,
				details: { number: about.number, ...(marks ? { label: room.label } : {}) }
			}
		])
	);
}
