import * as Y from 'yjs';
import { copyOf } from '../../../core/live/shared-copy';
import type { RoomMode } from '../../../core/live/live';
import type { Mark } from '../../../core/markup/mark';
import { markFault, marksOf, MOST_MARKS, readMark } from '../../../core/markup/shared';
import type { Trial, Who } from './trial';

/** Tries changes of marks on a copy before they reach the others: whose marks they are, and that they are marks. */
export class MarkTrial implements Trial {
	private copy = new Y.Doc();
	private readonly kept = new Map<string, Mark | null>();
	/** Marks that were taken away, as they were: whoever takes that back brings them back in the name of who made them. */
	private readonly gone = new Map<string, Mark>();
	private readonly follow: (update: Uint8Array) => void;

	constructor(private readonly doc: Y.Doc) {
		this.begin();
		this.follow = (update) => void this.apply(update);
		doc.on('update', this.follow);
	}

	private begin(): void {
		this.copy = copyOf(this.doc, { gc: true });
		this.kept.clear();
		for (const [id, kept] of marksOf(this.copy)) this.kept.set(id, readMark(id, kept));
	}

	/** Applies a change to the copy; gives what it made of each mark, and whether it touched anything else. */
	private apply(update: Uint8Array): {
		changed: [Mark | undefined, Mark | null | undefined][];
		strange: boolean;
	} {
		const marks = marksOf(this.copy);
		const ids = new Set<string>();
		let strange = false;
		const observe = (transaction: Y.Transaction) => {
			for (const [type, keys] of transaction.changed) {
				if (type === (marks as unknown)) keys.forEach((key) => key && ids.add(key));
				else if (type.parent === (marks as unknown)) ids.add(type._item!.parentSub!);
				else if (type !== (this.copy.share.get('scales') as unknown)) strange = true;
			}
		};
		this.copy.on('afterTransaction', observe);
		Y.applyUpdate(this.copy, update);
		this.copy.off('afterTransaction', observe);
		const changed = [...ids].map((id): [Mark | undefined, Mark | null | undefined] => {
			const there = marks.has(id);
			const before = this.kept.get(id) ?? (there ? this.gone.get(id) : undefined);
			if (!there && before) this.gone.set(id, before);
			const after = there ? readMark(id, marks.get(id)) : undefined;
			if (there) this.kept.set(id, after ?? null);
			else this.kept.delete(id);
			return [before, after];
		});
		return { changed, strange };
	}

	try(update: Uint8Array, who: Who, mode: RoomMode): string | null {
		const { changed, strange } = this.apply(update);
		const reach = mode === 'write' ? 'all' : 'own';
		const fault = strange
			? 'There is nothing here but marks.'
			: marksOf(this.copy).size > MOST_MARKS
				? `A version holds at most ${MOST_MARKS} marks.`
				: (changed
						.map(([before, after]) => markFault(before, after, who.id, reach))
						.find((f) => f !== null) ?? null);
		// The copy is spoilt by what was refused.
		if (fault) this.begin();
		return fault;
	}

	close(): void {
		this.doc.off('update', this.follow);
	}
}
