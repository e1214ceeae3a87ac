import * as Y from 'yjs';
import { markSchema, type Mark, type MarkFields, type Scale } from './mark';

/** Most marks on one version. */
export const MOST_MARKS = 20_000;

/** The marks of a shared document, by id. Every field is kept on its own, so that a move and new words both survive. */
export function marksOf(doc: Y.Doc): Y.Map<Y.Map<unknown>> {
	return doc.getMap('marks');
}

/** The scales of its pages, by number. */
export function scalesOf(doc: Y.Doc): Y.Map<Scale> {
	return doc.getMap('scales');
}

/** A mark as it is kept, or null when what is kept is no mark. */
export function readMark(id: string, kept: Y.Map<unknown> | undefined): Mark | null {
	if (!(kept instanceof Y.Map)) return null;
	const found = markSchema.safeParse(kept.toJSON());
	return found.success ? { id, ...found.data } : null;
}

export function writeMark(doc: Y.Doc, id: string, fields: MarkFields): void {
	marksOf(doc).set(id, new Y.Map(Object.entries(fields)));
}

/** Changes what is named of a mark, leaving the rest to whoever changes that. */
export function changeMark(doc: Y.Doc, id: string, fields: Partial<MarkFields>): void {
	const kept = marksOf(doc).get(id);
	if (kept) for (const [name, value] of Object.entries(fields)) kept.set(name, value);
}

/** How far somebody may go with marks: their own, or everybody's. */
export type MarkReach = 'own' | 'all';

/**
 * Whether somebody may make a change to one mark.
 * @param before and after: the mark as it is kept, undefined where there is none
 * @returns what is wrong, or null
 */
export function markFault(
	before: Mark | undefined,
	after: Mark | null | undefined,
	person: string,
	reach: MarkReach
): string | null {
	if (after === null) return 'This is no mark.';
	if (!before)
		return !after || (after.by === person && after.from === undefined)
			? null
			: 'A mark carries the name of who makes it.';
	if (reach === 'own' && before.by !== person) return 'Marks of others are changed by somebody with Work.';
	if (after && (after.by !== before.by || after.from !== before.from || after.at !== before.at))
		return 'Who made a mark stays with it.';
	return null;
}
