import type { Present, RoomMode } from '../../core/live/live';
import type { VersionRow } from '../../core/documents/rows';
import type { SideTab } from '../documents/side-tab.svelte';
import type { Remarks } from '../remarks/remarks.svelte';

/** What every kind of live document is shown with. */
export interface LiveDocument {
	room: string;
	mode: RoomMode;
	me: Present;
	/** Id of the document. */
	document: string;
	number: string;
	/** Code of the project, in small letters. */
	code: string;
	versions: VersionRow[];
	mayDownload: boolean;
	remarks: Remarks;
	/** What else stands beside it. */
	more: SideTab[];
}
