import { allows, type Level } from './access/levels';

/** What a document is: a stored file, or something that is edited live by several at once. */
export type DocumentKind = 'file' | 'text';

/** What somebody may do in a live document now. */
export type RoomMode = 'read' | 'suggest' | 'write';

/**
 * What somebody may do in a live text (L9): Work writes, Remark suggests, and while somebody has it in hand everybody
 * else reads.
 * @param level the level held there, freezes and archive already in it
 */
export function roomMode(level: Level, inHandByAnother: boolean): RoomMode {
	if (inHandByAnother) return 'read';
	return marksMode(level);
}

/** What somebody may do with the marks on a sheet: Work changes all of them, Remark one's own. A lock does not bar it. */
export function marksMode(level: Level): RoomMode {
	return allows(level, 'work') ? 'write' : allows(level, 'remark') ? 'suggest' : 'read';
}

/** Somebody who is in a live document, as the others see them. */
export interface Present {
	id: string;
	name: string;
}
