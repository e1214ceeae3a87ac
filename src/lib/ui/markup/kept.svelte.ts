import { Awareness } from 'y-protocols/awareness';
import * as Y from 'yjs';
import { CallError } from '../../client/call';
import type { Mark, MarkFields } from '../../core/markup/mark';
import { changeMark, marksOf, readMark, writeMark } from '../../core/markup/shared';
import type { MarkLine } from './line';

/** Origin of what comes from where the marks are kept. */
const KEPT = 'kept';
/** How long what is done in one go is gathered, in milliseconds, and how long the line is left alone when it is down. */
const GATHERED = 250;
const LEFT_ALONE = 3_000;
/** Most marks that are sent at once. */
const AT_ONCE = 100;

/** Marks as they are from now on, and ids of those that are gone. */
export interface MarkChanges {
	drawn: Mark[];
	gone: string[];
}

/** The fields that are not as they were. */
const differing = (before: Record<string, unknown>, fields: MarkFields): Partial<MarkFields> =>
	Object.fromEntries(
		Object.entries(fields).filter(([name, value]) => JSON.stringify(before[name]) !== JSON.stringify(value))
	);

/** Marks that no room shares: each is brought from where it is kept, and what is changed here is taken there. */
export class KeptMarks implements MarkLine {
	/** `waiting`: the line is down and what was done is tried again; `refused`: it was not taken, and `why` says why. */
	state = $state<'kept' | 'keeping' | 'waiting' | 'refused'>('kept');
	why = $state('');
	readonly doc = new Y.Doc();
	readonly awareness = new Awareness(this.doc);
	/** Ids of what was changed here and is not kept yet, and of what is just being taken there. */
	private readonly changed = new Set<string>();
	private underWay: string[] = [];
	private timer: ReturnType<typeof setTimeout> | undefined;

	/** @param keep takes changes to where the marks are kept, or raises a {@link CallError}; null where they only show */
	constructor(private readonly keep: ((changes: MarkChanges) => Promise<unknown>) | null) {
		marksOf(this.doc).observeDeep((events, { origin }) => {
			if (origin === KEPT || !this.keep) return;
			for (const event of events)
				if (event.path.length) this.changed.add(String(event.path[0]));
				else for (const id of event.keys.keys()) this.changed.add(id);
			this.state = 'keeping';
			this.soon(GATHERED);
		});
	}

	/** Shows the marks as they are kept by now, apart from those that were changed here meanwhile. */
	follow(kept: readonly Mark[]): void {
		const marks = marksOf(this.doc);
		const mine = new Set([...this.changed, ...this.underWay]);
		const there = new Set(kept.map((mark) => mark.id));
		this.doc.transact(() => {
			for (const id of marks.keys()) if (!there.has(id) && !mine.has(id)) marks.delete(id);
			for (const mark of kept) {
				const { id, ...fields } = mark;
				if (mine.has(id)) continue;
				const before = readMark(id, marks.get(id)) as Record<string, unknown> | null;
				// Field by field, so that what one did here can still be undone.
				if (before) changeMark(this.doc, id, differing(before, fields));
				else writeMark(this.doc, id, fields);
			}
		}, KEPT);
	}

	private soon(after: number): void {
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.send(), after);
	}

	private async send(): Promise<void> {
		if (this.underWay.length || !this.changed.size) return;
		const ids = (this.underWay = [...this.changed].slice(0, AT_ONCE));
		for (const id of ids) this.changed.delete(id);
		const marks = marksOf(this.doc);
		const drawn = ids.flatMap((id) => readMark(id, marks.get(id)) ?? []);
		const still = new Set(drawn.map((mark) => mark.id));
		try {
			await this.keep!({ drawn, gone: ids.filter((id) => !still.has(id)) });
			this.underWay = [];
			if (this.changed.size) return await this.send();
			this.state = 'kept';
		} catch (error) {
			// Nothing of it is kept, so that all of it is taken there with the next change.
			for (const id of ids) this.changed.add(id);
			this.underWay = [];
			const refused = error instanceof CallError && error.code !== 'busy';
			this.state = refused ? 'refused' : 'waiting';
			this.why = refused ? error.message : '';
			if (!refused) this.soon(LEFT_ALONE);
		}
	}

	/** What was done last is still taken there. */
	close(): void {
		clearTimeout(this.timer);
		if (this.state !== 'refused') void this.send();
		this.awareness.destroy();
	}
}
