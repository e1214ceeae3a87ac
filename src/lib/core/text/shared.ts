import type { Node } from 'prosemirror-model';
import { prosemirrorToYXmlFragment, updateYFragment, yXmlFragmentToProseMirrorRootNode } from 'y-prosemirror';
import * as Y from 'yjs';
import { copyOf } from '../live/shared-copy';
import { textSchema } from './schema';

/** Where the text lies in a shared document. */
const TEXT_FIELD = 'text';

/** The text of a shared document, as a fragment that editors bind to. */
export function fragmentOf(doc: Y.Doc): Y.XmlFragment {
	return doc.getXmlFragment(TEXT_FIELD);
}

/** An empty text: one paragraph with nothing in it. */
export function emptyText(): Node {
	return textSchema.topNodeType.createAndFill()!;
}

/**
 * What a shared document says, as every editor shows it: what does not fit the schema (two people changed it against
 * one another) is left out. Works on a copy, since reading takes such things out of the document.
 */
export function readText(doc: Y.Doc): Node {
	const root = yXmlFragmentToProseMirrorRootNode(fragmentOf(copyOf(doc)), textSchema);
	return root.childCount ? root : emptyText();
}

/** Writes a text into an empty shared document. */
export function seedText(doc: Y.Doc, text: Node): void {
	prosemirrorToYXmlFragment(text, fragmentOf(doc));
}

/** Changes a shared document to say something else, touching only what differs. */
export function rewriteText(doc: Y.Doc, text: Node): void {
	doc.transact(() => {
		updateYFragment(doc, fragmentOf(doc), text, { mapping: new Map(), isOMark: new Map() });
	});
}

/**
 * Reads a text from JSON as it came over the wire.
 * Raises RangeError for anything that the schema does not know or that stands where it may not.
 */
export function textFromJson(json: unknown): Node {
	const text = textSchema.nodeFromJSON(json);
	text.check();
	return text;
}
