import type { Mark, Scale } from '../../core/markup/mark';
import { marksOf, readMark, scalesOf } from '../../core/markup/shared';
import type { Rooms } from '../live/rooms/rooms';

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
