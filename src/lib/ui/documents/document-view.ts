import type { RoomMode, LiveKind } from '../../core/live/live';
import type { DocumentRow, SideRow, VersionRow } from '../../core/documents/rows';

/** A document as the API's documentView answers it. */
export interface DocumentView {
	row: DocumentRow;
	level: string;
	levelLabel: string;
	mayWork: boolean;
	mayDownload: boolean;
	mayOrganise: boolean;
	mayManage: boolean;
	mine: boolean;
	way: { id: string; name: string; kind: string; code: string | null }[];
	versions: VersionRow[];
	sides: SideRow[];
	/** What the reader may do with marks on its sheets. */
	marksMode: RoomMode;
	/** Labels of the versions that somebody has marked up. */
	marked: string[];
	/** Where it is worked on live, and how the reader may; null for a plain file. */
	room: { name: string; kind: LiveKind; mode: RoomMode } | null;
	/** A lock of the reader that was broken and that they have not answered yet. */
	broken: { at: string; by: string; reason: string } | null;
	/** Who asked for the lock, and whether the reader waits for it. */
	waiting: { asked: { name: string; note: string }[]; mine: 'asked' | 'told' | null };
}
