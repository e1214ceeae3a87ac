import { nanoid } from 'nanoid';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import * as Y from 'yjs';
import type { Present, RoomMode } from '../../core/live/live';
import type { Brought } from '../../core/markup/annotations';
import {
	FEWEST,
	POINT_BY_POINT,
	WITH_WORDS,
	type Mark,
	type MarkFields,
	type MarkKind,
	type Point,
	type Scale
} from '../../core/markup/mark';
import { changeMark, marksOf, readMark, scalesOf, writeMark } from '../../core/markup/shared';
import { lengthOf, simplified } from '../../core/markup/shape';
import { paced } from '../platform/paced';
import type { MarkLine } from './line';

/** What the pointer does on a sheet: choose marks, draw one, or say how long something really is. */
export type Tool = 'choose' | 'scale' | MarkKind;

/** Origin of changes made here, so that undoing takes back only these. */
const MINE = 'mine';
/** How often a drag is shown to the others, in milliseconds. */
const SHOW_EVERY = 33;

/** Where somebody else's pointer is, and what they drag. */
export interface Elsewhere {
	/** Number of their browser; somebody can be here twice. */
	client: number;
	user: Present;
	pointer: { page: number; x: number; y: number } | null;
	drag: { ids: string[]; dx: number; dy: number } | null;
}

/** Lowest first; equal places by id, so that everybody sees the same. */
const byOrder = (a: Mark, b: Mark) => a.order - b.order || (a.id < b.id ? -1 : 1);

/** Names for groups of marks that come in anew: what was one group is one again, and none that is here already. */
function newGroups(): (group: string | null) => string | null {
	const names = new Map<string, string>();
	return (group) => {
		if (group === null) return null;
		if (!names.has(group)) names.set(group, nanoid(10));
		return names.get(group)!;
	};
}

/** The marks on one version: what is there, what is chosen, the tool in hand, and where they are kept. */
export class Markup {
	readonly marks = new SvelteMap<string, Mark>();
	readonly scales = new SvelteMap<number, Scale>();
	readonly chosen = new SvelteSet<string>();
	/** Layers that are not shown, by department. */
	readonly hidden = new SvelteSet<string>();
	tool = $state<Tool>('choose');
	/** The mark that is being drawn, in lasting coordinates. */
	draft = $state.raw<Mark | null>(null);
	/** The words for the next text, callout or stamp. */
	words = $state('');
	/** Shift of the chosen marks while they are dragged, in lasting coordinates. */
	drag = $state.raw<{ dx: number; dy: number } | null>(null);
	others = $state.raw<Elsewhere[]>([]);
	canUndo = $state(false);
	canRedo = $state(false);
	private readonly undoing: Y.UndoManager;
	private copied: MarkFields[] = [];

	/**
	 * @param layer code of the department whose layer one draws on
	 * @param mode whether one may change nothing, one's own marks, or all
	 */
	constructor(
		readonly line: MarkLine,
		readonly me: Present,
		readonly layer: string,
		readonly mode: RoomMode
	) {
		const { doc, awareness } = line;
		const marks = marksOf(doc);
		const take = (id: string) => {
			const mark = readMark(id, marks.get(id));
			if (mark) this.marks.set(id, mark);
			else {
				this.marks.delete(id);
				this.chosen.delete(id);
			}
		};
		marks.observeDeep((events) => {
			const ids = new Set<string>();
			for (const event of events)
				if (event.target === (marks as unknown)) event.keys.forEach((_, key) => ids.add(key));
				else ids.add(String(event.path[0]));
			ids.forEach(take);
		});
		const scales = scalesOf(doc);
		scales.observe(() => {
			this.scales.clear();
			for (const [page, scale] of scales) this.scales.set(Number(page), scale);
		});
		this.undoing = new Y.UndoManager([marks, scales] as never, { trackedOrigins: new Set([MINE]) });
		const undoable = () => {
			this.canUndo = this.undoing.canUndo();
			this.canRedo = this.undoing.canRedo();
		};
		this.undoing.on('stack-item-added', undoable);
		this.undoing.on('stack-item-popped', undoable);
		awareness.on('change', () => {
			this.others = [...awareness.getStates()].flatMap(([client, state]) =>
				client === doc.clientID || !state.user ? [] : [{ ...state, client } as unknown as Elsewhere]
			);
		});
	}

	get mayDraw(): boolean {
		return this.mode !== 'read';
	}
	mayChange(mark: Mark): boolean {
		return this.mode === 'write' || (this.mode === 'suggest' && mark.by === this.me.id);
	}

	/** Marks of a page that are shown, lowest first. */
	onPage(page: number): Mark[] {
		return [...this.marks.values()].filter((m) => m.page === page && !this.hidden.has(m.layer)).sort(byOrder);
	}
	get layers(): string[] {
		return [...new Set([...this.marks.values()].map((m) => m.layer))].sort();
	}

	private change(doing: () => void): void {
		// What was done in one go is taken back in one go, however quickly the next follows.
		this.undoing.stopCapturing();
		this.line.doc.transact(doing, MINE);
	}
	private get top(): number {
		return Math.max(0, ...[...this.marks.values()].map((m) => m.order)) + 1;
	}

	/** Begins a mark at a place. @param size height of letters in units of the sheet */
	begin(kind: MarkKind, page: number, at: Point, size: number): void {
		this.draft = {
			id: nanoid(10),
			kind,
			page,
			points: POINT_BY_POINT.has(kind) || FEWEST[kind] === 1 ? [at] : [at, at],
			turn: 0,
			size,
			text: WITH_WORDS.has(kind) ? this.words : '',
			layer: this.layer,
			by: this.me.id,
			at: new Date().toISOString(),
			group: null,
			order: this.top,
			carried: null
		};
	}
	/** The pointer moved on while a mark is drawn. */
	extend(at: Point): void {
		if (!this.draft) return;
		const { kind, points } = this.draft;
		this.draft = {
			...this.draft,
			points: ['freehand', 'highlight'].includes(kind) ? [...points, at] : [...points.slice(0, -1), at]
		};
	}
	/** Sets a further point of a mark that is drawn point by point. */
	addPoint(at: Point): void {
		if (this.draft) this.draft = { ...this.draft, points: [...this.draft.points, at] };
	}
	/** The mark is done; what says nothing yet is dropped. @param within how far a line by hand may be straightened */
	finish(within: number): void {
		const draft = this.draft;
		this.draft = null;
		if (!draft) return;
		const points = ['freehand', 'highlight'].includes(draft.kind)
			? simplified(draft.points, within)
			: draft.points;
		const says = FEWEST[draft.kind] === 1 || lengthOf(points) > within * 2;
		if (points.length < FEWEST[draft.kind] || !says || (WITH_WORDS.has(draft.kind) && !draft.text.trim()))
			return;
		const { id, ...fields } = { ...draft, points };
		this.change(() => writeMark(this.line.doc, id, fields));
		this.chosen.clear();
		this.chosen.add(id);
	}

	/** Chooses a mark with its group. */
	choose(mark: Mark, also: boolean): void {
		const together = mark.group ? [...this.marks.values()].filter((m) => m.group === mark.group) : [mark];
		const all = together.every((m) => this.chosen.has(m.id));
		if (!also) this.chosen.clear();
		for (const one of together)
			if (also && all) this.chosen.delete(one.id);
			else this.chosen.add(one.id);
	}
	/** The chosen marks that one may change. */
	get changeable(): Mark[] {
		return [...this.chosen].flatMap((id) => {
			const mark = this.marks.get(id);
			return mark && this.mayChange(mark) ? [mark] : [];
		});
	}

	private changeEach(fields: (mark: Mark) => Partial<MarkFields>): void {
		this.change(() => this.changeable.forEach((m) => changeMark(this.line.doc, m.id, fields(m))));
	}
	moveBy(dx: number, dy: number): void {
		this.changeEach((m) => ({ points: m.points.map((p) => ({ x: p.x + dx, y: p.y + dy })), carried: null }));
	}
	setPoints(id: string, points: Point[]): void {
		this.change(() => changeMark(this.line.doc, id, { points, carried: null }));
	}
	turnBy(degrees: number): void {
		this.changeEach((m) => ({ turn: (m.turn + degrees) % 360 }));
	}
	resizeWords(by: number): void {
		this.changeEach((m) => ({ size: m.size * by }));
	}
	say(text: string): void {
		this.changeEach((m) => (WITH_WORDS.has(m.kind) ? { text } : {}));
	}
	toFront(): void {
		this.stack(this.top);
	}
	toBack(): void {
		const lowest = Math.min(0, ...[...this.marks.values()].map((m) => m.order));
		this.stack(lowest - this.changeable.length);
	}
	/** Puts the chosen marks at a place in the stack, among themselves as they lay. */
	private stack(from: number): void {
		const order = new Map(this.changeable.sort(byOrder).map((m, i) => [m.id, from + i]));
		this.changeEach((m) => ({ order: order.get(m.id)! }));
	}
	group(): void {
		const group = nanoid(10);
		this.changeEach(() => ({ group }));
	}
	ungroup(): void {
		this.changeEach(() => ({ group: null }));
	}
	/** What was carried over still fits: the mark no longer asks to be looked at. */
	fits(): void {
		this.changeEach(() => ({ carried: 'same' }));
	}
	remove(): void {
		this.change(() => this.changeable.forEach((m) => marksOf(this.line.doc).delete(m.id)));
	}
	copy(): void {
		const marks = [...this.chosen].flatMap((id) => this.marks.get(id) ?? []).sort(byOrder);
		// What somebody outside drew is copied as one's own.
		this.copied = marks.map(({ id: _id, from: _from, ...fields }) => fields);
	}
	/** Pastes what was copied as one's own, a little aside. */
	paste(page: number, aside: number): void {
		this.putIn(
			this.copied.map((fields) => ({
				...fields,
				page,
				points: fields.points.map((p) => ({ x: p.x + aside, y: p.y + aside }))
			}))
		);
	}
	/** Puts marks of a file in as one's own. */
	bringIn(marks: readonly Brought[]): void {
		this.putIn(marks.map((fields) => ({ ...fields, turn: 0 })));
	}
	/** Puts marks in as one's own, above all others, chosen and as one group of changes. */
	private putIn(marks: readonly (Brought & Pick<MarkFields, 'turn'>)[]): void {
		this.chosen.clear();
		const top = this.top;
		const groupOf = newGroups();
		this.change(() =>
			marks.forEach((fields, i) => {
				const id = nanoid(10);
				writeMark(this.line.doc, id, {
					...fields,
					layer: this.layer,
					by: this.me.id,
					at: new Date().toISOString(),
					group: groupOf(fields.group),
					order: top + i,
					carried: null
				});
				this.chosen.add(id);
			})
		);
	}
	/** Says how long a way on a page really is. */
	setScale(page: number, length: number, real: number, unit: string): void {
		if (length > 0 && real > 0)
			this.change(() => scalesOf(this.line.doc).set(String(page), { perUnit: length / real, unit }));
	}
	undo(): void {
		this.undoing.undo();
	}
	redo(): void {
		this.undoing.redo();
	}

	/** Shows the others where one's pointer is and what one drags; null when it has left the sheet. */
	show(pointer: Elsewhere['pointer']): void {
		if (pointer) this.tell(pointer);
		else this.tell.now(null);
	}
	private readonly tell = paced<Elsewhere['pointer']>(SHOW_EVERY, (pointer) => {
		const { awareness } = this.line;
		awareness.setLocalStateField('pointer', pointer);
		awareness.setLocalStateField('drag', this.drag ? { ids: [...this.chosen], ...this.drag } : null);
	});

	close(): void {
		this.tell.stop();
		this.undoing.destroy();
		this.line.close();
	}
}
