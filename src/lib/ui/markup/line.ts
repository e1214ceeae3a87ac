import type { Awareness } from 'y-protocols/awareness';
import type * as Y from 'yjs';

/** Where the marks of a sheet are kept, and how others who draw there are seen. */
export interface MarkLine {
	readonly doc: Y.Doc;
	readonly awareness: Awareness;
	close(): void;
}
