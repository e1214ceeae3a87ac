import type { DocumentRow, VersionRow } from '../core/rows';

/** A document as the API's documentView answers it. */
export interface DocumentView {
	row: DocumentRow;
	level: string;
	levelLabel: string;
	mayWork: boolean;
	mayTake: boolean;
	mayTidy: boolean;
	mayRun: boolean;
	mine: boolean;
	way: { id: string; name: string; kind: string; code: string | null }[];
	versions: VersionRow[];
}
