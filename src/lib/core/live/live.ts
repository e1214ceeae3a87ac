import { allows, type Level } from '../access/levels';
import { FILE_KINDS } from '../files/kinds';

/** Kinds of document that several edit at once. */
export const LIVE_KINDS = ['text', 'schedule', 'drawing'] as const;
export type LiveKind = (typeof LIVE_KINDS)[number];

/** What a document is: a stored file, or something that is edited live by several at once. */
export const DOCUMENT_KINDS = ['file', ...LIVE_KINDS] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

/** Kinds of file that each can be handed in as; the first unless another is asked for. */
export const HANDED_IN_AS = {
	text: ['docx', 'odt'],
	schedule: ['xlsx', 'ods', 'csv'],
	drawing: ['dxf']
} as const satisfies Record<LiveKind, readonly [string, ...string[]]>;

/** What a file of a kind becomes when it is edited together, or null when it cannot be. */
export function liveKindOf(mediaType: string): LiveKind | null {
	return FILE_KINDS.get(mediaType)?.live ?? null;
}

/** Whether with Remark one suggests in it; elsewhere one reads (L9). */
const SUGGESTS: Record<LiveKind, boolean> = { text: true, schedule: false, drawing: false };
/** Whether it is shown over the file it began with, which those who may only look do not get. */
export const OVER_ITS_FILE: Record<LiveKind, boolean> = { text: false, schedule: false, drawing: true };

/** What somebody may do in a live document now. */
export type RoomMode = 'read' | 'suggest' | 'write';

/**
 * What somebody may do in a live document (L9): Work writes, Remark suggests in a text and reads elsewhere, and while
 * somebody has it in hand everybody else reads.
 * @param level the level held there, freezes and archive already in it
 */
export function roomMode(kind: LiveKind, level: Level, inHandByAnother: boolean): RoomMode {
	if (inHandByAnother) return 'read';
	const mode = marksMode(level);
	return mode === 'suggest' && !SUGGESTS[kind] ? 'read' : mode;
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
