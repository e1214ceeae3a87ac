import * as Y from 'yjs';
import { copyOf } from '../../../core/live/shared-copy';
import type { RoomMode } from '../../../core/live/live';
import {
	barredLayer,
	beforeOf,
	changesOf,
	follow,
	itemsOf,
	layersOf,
	ownersOf,
	readBase,
	touchedBy,
	type Base,
	type Before
} from '../../../core/drawing/shared';
import type { Trial, Who } from './trial';

/** Tries changes of a drawing on a copy before they reach the others: that nobody edits another department's layer. */
export class DrawingTrial implements Trial {
	private copy = new Y.Doc();
	private base!: Base;
	private before!: Before;
	private readonly follow: (update: Uint8Array) => void;

	constructor(private readonly doc: Y.Doc) {
		this.begin();
		this.follow = (update) => void this.apply(update);
		doc.on('update', this.follow);
	}

	private begin(): void {
		this.copy = copyOf(this.doc, { gc: true });
		this.base = readBase(this.copy);
		this.before = beforeOf(this.copy);
	}

	/** Applies a change to the copy; gives the layers it touched and what cannot be. */
	private apply(update: Uint8Array) {
		const [changes, items, layers] = [changesOf(this.copy), itemsOf(this.copy), layersOf(this.copy)];
		const touched = { changes: new Set<string>(), items: new Set<string>(), layers: new Set<string>() };
		let strange = false;
		const observe = (transaction: Y.Transaction) => {
			for (const [type, keys] of transaction.changed) {
				const within = (map: unknown, found: Set<string>): boolean => {
					if (type === map) keys.forEach((key) => key !== null && found.add(key));
					else if (type.parent === map) found.add(type._item!.parentSub!);
					else return false;
					return true;
				};
				if (
					!within(changes, touched.changes) &&
					!within(items, touched.items) &&
					!within(layers, touched.layers)
				)
					strange = true;
			}
		};
		this.copy.on('afterTransaction', observe);
		Y.applyUpdate(this.copy, update);
		this.copy.off('afterTransaction', observe);
		const said = touchedBy(this.base, this.before, this.copy, touched);
		follow(this.before, this.copy, touched);
		if (strange) this.base = readBase(this.copy);
		return { ...said, strange };
	}

	try(update: Uint8Array, who: Who, mode: RoomMode): string | null {
		const { layers, fault, strange } = this.apply(update);
		const barred = barredLayer(layers, ownersOf(this.copy), who);
		const why = strange
			? 'Only the server changes this of a drawing.'
			: mode !== 'write'
				? 'You look on here.'
				: (fault ?? (barred ? `The layer ${barred} belongs to another department.` : null));
		// The copy is spoilt by what was refused.
		if (why) this.begin();
		return why;
	}

	close(): void {
		this.doc.off('update', this.follow);
	}
}
