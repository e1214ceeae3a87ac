import { asc, eq } from 'drizzle-orm';
import type { Mark, Scale } from '../../core/markup/mark';
import { marksOf, readMark, scalesOf } from '../../core/markup/shared';
import { nameOf } from '../live/rooms/names';
import type { Rooms } from '../live/rooms/rooms';
import type { Querier } from '../platform/db';
import { department } from '../platform/db/schema';
import type { GivenMarks } from './marked';

/** The marks in a room, and the scales of its pages. */
export function readMarks(
	rooms: Rooms,
	room: string
): Promise<{ marks: Mark[]; scales: Record<string, Scale> }> {
	return rooms.read(room, (doc) => ({
		marks: [...marksOf(doc)].flatMap(([markId, kept]) => readMark(markId, kept) ?? []),
		scales: scalesOf(doc).toJSON() as Record<string, Scale>
	}));
}

/** The marks on a version as they are burned in, in the same order whoever reads them; null where there are none. */
export async function marksOn(
	db: Querier,
	rooms: Rooms,
	projectId: string,
	at: { document: string; label: string }
): Promise<GivenMarks | null> {
	const { marks, scales } = await readMarks(rooms, nameOf({ kind: 'marks', ...at }));
	if (!marks.length) return null;
	const codes = await db
		.select({ code: department.code })
		.from(department)
		.where(eq(department.projectId, projectId))
		.orderBy(asc(department.code));
	return {
		marks: marks.sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1)),
		scales,
		codes: codes.map((d) => d.code)
	};
}
