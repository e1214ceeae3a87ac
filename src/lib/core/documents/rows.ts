import type { Area } from '../events/event';
import type { Level } from '../access/levels';
import type { DocumentKind } from '../live/live';

/** Plain shapes that views answer with and lists show. Times are ISO 8601 in UTC, sizes in bytes. */

export interface LockRow {
	holder: string;
	mine: boolean;
	since: string;
	purpose: string;
	expectedEnd: string | null;
	stale: boolean;
}

export interface DocumentRow {
	id: string;
	/** The folder it lies in, when one may look at that too. */
	folder: string | null;
	scope: string;
	/** The level that the reader holds; what caps it (a freeze, a lock, the archive) is in the `level` of its view. */
	held: Level;
	frozen: { by: string; reason: string } | null;
	closed: boolean;
	number: string;
	title: string;
	kind: DocumentKind;
	tags: string[];
	state: 'wip' | 'shared' | 'published' | 'archived';
	label: string;
	issued: boolean;
	note: string;
	versions: number;
	changedAt: string;
	changedBy: string | null;
	fileName: string;
	hash: string;
	mediaType: string;
	size: number;
	preview: string | null;
	lock: LockRow | null;
	isNew: boolean;
	/** Number of the release in review that holds it, or null. */
	inRelease: number | null;
	/** Number of the issued release that its newest version went out with, or null. */
	withClient: number | null;
}

/** Content handed in without the lock, kept beside the line. */
export interface SideRow {
	number: number;
	at: string;
	by: string;
	byId: string;
	note: string;
	fileName: string;
	/** The version it was made from, when that is known. */
	base: string | null;
	hash: string;
	size: number;
	mediaType: string;
	state: 'open' | 'merged' | 'discarded';
	decidedBy: string | null;
	reason: string | null;
}

export interface VersionRow {
	label: string;
	issued: boolean;
	at: string;
	by: string | null;
	note: string;
	fileName: string;
	size: number;
	hash: string;
	mediaType: string;
	lockKept: boolean;
	/** Release it was issued in, and the client's verdict there. */
	release: number | null;
	verdict: string | null;
}

export interface EventRow {
	seq: number;
	at: string;
	actor: string;
	kind: string;
	place: { id: string; kind: string; removed: boolean } | null;
	document: string | null;
	release: number | null;
	details: Record<string, unknown>;
}

/** Words for a state of a document (ISO 19650-1, the four states). */
export const STATE_LABEL: Record<DocumentRow['state'], string> = {
	wip: 'Work in progress',
	shared: 'Shared',
	published: 'Published',
	archived: 'Archived'
};

/** A folder or document as the holder of a pass sees it. */
export interface PassPlaceView {
	project: { code: string; name: string; client: string; timeZone: string };
	holder: string;
	endsAt: string;
	kind: 'shelf' | 'folder' | 'document';
	mayDownload: boolean;
	stamped: boolean;
	newer: { label: string; at: string } | null;
	way: { id: string; name: string }[];
	folders: { id: string; name: string }[];
	documents: {
		id: string;
		number: string;
		title: string;
		label: string;
		issued: boolean;
		changedAt: string;
		mediaType: string;
		size: number;
		takeable: boolean;
	}[];
}

/** What a watching page is told: enough to know which of its parts to ask for again. */
export interface Notice {
	/** Number of the event in the trail; 0 for what is no event, such as a preview that is ready. */
	seq: number;
	/** The parts of the application that it concerns. */
	touches: readonly Area[];
	actor: string | null;
	place: string | null;
	/** The folder around the place, when one may look at it. */
	parent: string | null;
	document: string | null;
	release: string | null;
}
