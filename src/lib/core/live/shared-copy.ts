import * as Y from 'yjs';

/** A copy of a shared document that can be changed or read without touching the first. */
export function copyOf(doc: Y.Doc, { gc = false } = {}): Y.Doc {
	const copy = new Y.Doc({ gc });
	Y.applyUpdate(copy, Y.encodeStateAsUpdate(doc));
	return copy;
}
