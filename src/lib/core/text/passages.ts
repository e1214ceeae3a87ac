import { fromBase64, toBase64 } from 'lib0/buffer';
import type { Node } from 'prosemirror-model';
import { EditorState } from 'prosemirror-state';
import { absolutePositionToRelativePosition, relativePositionToAbsolutePosition } from 'y-prosemirror';
import * as Y from 'yjs';
import { textSchema } from './schema';
import { fragmentOf, readText, rewriteText } from './shared';

type Mapping = Parameters<typeof absolutePositionToRelativePosition>[2];

/** A position in an editor's text as one that stays with its words while others write (Yjs, base64). */
export function lastingPosition(doc: Y.Doc, position: number, mapping: Mapping): string {
	return toBase64(
		Y.encodeRelativePosition(
			absolutePositionToRelativePosition(position, fragmentOf(doc), mapping) as Y.RelativePosition
		)
	);
}

/**
 * Marks a passage of a shared text as remarked on.
 * @param from and to: lasting positions of an editor
 * @returns the words of the passage, or null when it is not there any more
 */
export function markPassage(doc: Y.Doc, from: string, to: string, mark: string): string | null {
	const text = readText(doc);
	// Reading again with a mapping: positions are found by the shared nodes they belong to.
	const mapping: Mapping = new Map();
	mapAll(doc, text, mapping);
	const place = (encoded: string) =>
		relativePositionToAbsolutePosition(
			doc,
			fragmentOf(doc),
			Y.decodeRelativePosition(fromBase64(encoded)),
			mapping
		);
	const [start, end] = [place(from), place(to)];
	if (start === null || end === null || end <= start) return null;
	const quote = text.textBetween(start, end, ' ').trim();
	if (!quote) return null;
	const remark = textSchema.mark('remark', { id: mark });
	rewriteText(doc, EditorState.create({ doc: text }).tr.addMark(start, end, remark).doc);
	return quote.slice(0, 500);
}

/** Pairs the shared nodes with the text's own, block by block. */
function mapAll(doc: Y.Doc, text: Node, mapping: Mapping): void {
	const pair = (shared: Y.XmlFragment | Y.XmlElement, node: Node) => {
		let at = 0;
		for (const child of shared.toArray()) {
			if (child instanceof Y.XmlText) {
				// One shared text holds all the words up to the next node.
				const words: Node[] = [];
				while (at < node.childCount && node.child(at).isText) words.push(node.child(at++));
				mapping.set(child as never, words as never);
			} else if (child instanceof Y.XmlElement && at < node.childCount) {
				const own = node.child(at++);
				mapping.set(child as never, own as never);
				pair(child, own);
			}
		}
	};
	pair(fragmentOf(doc), text);
}

/** Ids of the remarks whose passages still stand in a text, each with where it begins and ends. */
export function passagesIn(text: Node): Map<string, { from: number; to: number }> {
	const found = new Map<string, { from: number; to: number }>();
	text.descendants((node, pos) => {
		for (const mark of node.marks) {
			if (mark.type.name !== 'remark') continue;
			const id = mark.attrs.id as string;
			const held = found.get(id);
			found.set(id, { from: held?.from ?? pos, to: pos + node.nodeSize });
		}
	});
	return found;
}
