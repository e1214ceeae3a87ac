import { writeMark } from '../../src/lib/core/markup/shared';
import type { TestWorld } from './world';

/** Puts a mark of words on the first page of a document's first version, as Oke does. */
export const putMark = (world: TestWorld, document: string, id: string, text: string) => {
	const by = world.people.oke!.person.id;
	return world.services.rooms.change(`marks/${document}/P01.1`, by, (shared) =>
		writeMark(shared, id, {
			kind: 'text',
			page: 1,
			points: [
				{ x: 20, y: 20 },
				{ x: 60, y: 40 }
			],
			turn: 0,
			size: 4,
			text,
			layer: 'MW',
			by,
			at: '2026-11-24T10:00:00.000Z',
			group: null,
			order: 1,
			carried: null
		})
	);
};
