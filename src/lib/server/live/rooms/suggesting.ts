import type { Node } from 'prosemirror-model';
import { yXmlFragmentToProseMirrorRootNode } from 'y-prosemirror';
import * as Y from 'yjs';
import type { RoomMode } from '../../../core/live/live';
import { textSchema } from '../../../core/text/schema';
import { copyOf } from '../../../core/live/shared-copy';
import { fragmentOf } from '../../../core/text/shared';
import { notOnlySuggesting } from '../../../core/text/suggestions';
import type { Trial, Who } from './trial';

/**
 * Tries changes of people who may only suggest on a copy of the text before they reach the others. The copy follows the
 * text; only the paragraphs that a change touched are read again, so that a keystroke in a long text costs little.
 */
export class SuggestionTrial implements Trial {
	private copy: Y.Doc;
	private text: Node;
	private readonly follow: (update: Uint8Array) => void;

	constructor(private readonly doc: Y.Doc) {
		this.copy = copyOf(doc, { gc: true });
		this.text = wholeText(this.copy);
		this.follow = (update) => void this.apply(update);
		doc.on('update', this.follow);
	}

	try(update: Uint8Array, { id: author }: Who, mode: RoomMode): string | null {
		if (mode === 'write') return null;
		const before = this.text;
		const touched = this.apply(update);
		const fault = touched
			? touched
					.map((i) => notOnlySuggesting(alone(before.child(i)), alone(this.text.child(i)), author))
					.find((one) => one !== null)
			: notOnlySuggesting(before, this.text, author);
		if (!fault) return null;
		// The copy is spoilt by what was refused.
		this.copy = copyOf(this.doc, { gc: true });
		this.text = wholeText(this.copy);
		return fault;
	}

	/** Applies a change to the copy; gives the blocks that changed, or null when there are others than before. */
	private apply(update: Uint8Array): number[] | null {
		const fragment = fragmentOf(this.copy);
		const touched = new Set<Y.AbstractType<unknown>>();
		let regrouped = false;
		const observe = (events: Y.YEvent<never>[]) => {
			for (const event of events) {
				let at: Y.AbstractType<unknown> | null = event.target as Y.AbstractType<unknown>;
				if (at === (fragment as unknown)) {
					regrouped = true;
					continue;
				}
				while (at && at.parent !== (fragment as unknown)) at = at.parent as Y.AbstractType<unknown> | null;
				if (at) touched.add(at);
			}
		};
		fragment.observeDeep(observe as never);
		Y.applyUpdate(this.copy, update);
		fragment.unobserveDeep(observe as never);
		if (regrouped || fragment.length !== this.text.childCount) {
			this.text = wholeText(this.copy);
			return null;
		}
		const places: number[] = [];
		const blocks = fragment.toArray();
		let text = this.text;
		for (const one of touched) {
			const place = blocks.indexOf(one as never);
			const block = place < 0 ? null : blockOf(one as Y.XmlElement);
			if (!block) {
				this.text = wholeText(this.copy);
				return null;
			}
			places.push(place);
			text = text.copy(text.content.replaceChild(place, block));
		}
		this.text = text;
		return places;
	}

	close(): void {
		this.doc.off('update', this.follow);
	}
}

function wholeText(doc: Y.Doc): Node {
	return yXmlFragmentToProseMirrorRootNode(fragmentOf(doc), textSchema);
}

const alone = (block: Node) => textSchema.node('doc', null, [block]);

/** One block of a shared text, or null when it does not fit the schema. */
function blockOf(element: Y.XmlElement): Node | null {
	const holder = new Y.Doc();
	const fragment = fragmentOf(holder);
	fragment.insert(0, [element.clone()]);
	const read = yXmlFragmentToProseMirrorRootNode(fragment, textSchema);
	return read.childCount === 1 ? read.child(0) : null;
}
