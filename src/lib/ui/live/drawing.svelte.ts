import { SvelteSet } from 'svelte/reactivity';
import * as Y from 'yjs';
import { draftOf, POINTS, type DrawTool } from '../../core/drawing/draft';
import { byEntity, liesWithin, textAt, type Shapes } from '../../core/drawing/pick';
import {
	attributesOf,
	editedEntity,
	entityOf,
	firstPoint,
	hasWords,
	layerOf,
	movable,
	wordsOf
} from '../../core/drawing/edited';
import {
	NO_EDITS,
	type Change,
	type Edits,
	type Item,
	type ItemFields,
	type XY
} from '../../core/drawing/item';
import {
	addItem,
	asInFile,
	baseOf,
	changeEntity,
	changeItem,
	changesOf,
	itemsOf,
	keyOf,
	layersOf,
	mayEditLayer,
	ownersOf,
	readBase,
	readEdits
} from '../../core/drawing/shared';
import { salvage } from '../../core/drawing/salvage';
import { flattenSome } from '../../core/dxf/flatten';
import type { Drawing, Entity } from '../../core/dxf/read';
import { SnapIndex, type Snap } from '../../core/dxf/snap';
import type { Present } from '../../core/live/live';
import { DrawnSheet } from '../viewers/draw-sheet';
import { readDrawing } from '../viewers/read-drawing';
import { plural } from '../platform/words';
import { LiveLine } from './line.svelte';
import { newId } from './new-id';
import { paced } from '../platform/paced';

/** Origin of changes made here, so that undoing takes back only these. */
const MINE = 'mine';
/** Numbers of what was added, where strokes name the entity they come from; files hold fewer entities. */
const ADDED = 10_000_000;
/** How often the pointer is shown to the others, in milliseconds. */
const SHOW_EVERY = 50;

/** Where somebody else is in a drawing. */
export interface Elsewhere {
	/** Number of their browser; somebody can be here twice. */
	client: number;
	user: Present;
	at: XY | null;
	chosen: string[];
}

/** Something of a drawing that was chosen: an entity of the file by its place in it, or what was added by its id. */
export interface Chosen {
	key: string;
	entity: Entity;
	layer: string;
	/** Of what was added. */
	item: Item | null;
}

/** A drawing that several edit: its file, what was done to it, what is chosen, and the line to the others. */
export class LiveDrawingState {
	readonly line: LiveLine;
	private readonly undoing: Y.UndoManager;
	private readonly abort = new AbortController();
	private drawing: Drawing | null = null;
	private baseIndex: SnapIndex | null = null;
	private baseShapes = new Map<number, Shapes>();

	base = $state.raw<DrawnSheet | null>(null);
	edits = $state.raw<Edits>(NO_EDITS);
	owners = $state.raw<ReadonlyMap<string, string>>(new Map());
	/** What was changed and added, as it is now, over the file. */
	over = $state.raw<{ drawn: DrawnSheet; index: SnapIndex; shapes: Map<number, Shapes> } | null>(null);
	fault = $state('');
	readonly chosen = new SvelteSet<string>();
	/** Layers that one does not want to see, by name in capitals. */
	readonly unseen = new SvelteSet<string>();
	tool = $state<DrawTool>('choose');
	/** Points of what is being drawn. */
	points = $state.raw<XY[]>([]);
	/** Where the pointer is, held on to what is near. */
	at = $state.raw<(Omit<Snap, 'kind'> & { kind: Snap['kind'] | 'free' }) | null>(null);
	/** How far what is chosen is being dragged. */
	drag = $state.raw<XY | null>(null);
	/** Layer, words and so on of what is drawn next. */
	layer = $state('0');
	words = $state('');
	height = $state(2.5);
	block = $state('');
	scale = $state(1);
	turn = $state(0);
	others = $state.raw<Elsewhere[]>([]);
	canUndo = $state(false);
	canRedo = $state(false);

	/**
	 * @param file address of a version's file, by its label
	 * @param departments ids of the departments one works for
	 */
	constructor(
		room: string,
		me: Present,
		private readonly file: (label: string) => string,
		readonly departments: readonly string[],
		readonly mayWrite: () => boolean
	) {
		this.line = new LiveLine(room, me);
		const { doc, awareness } = this.line;
		const take = () => this.take();
		itemsOf(doc).observeDeep(take);
		changesOf(doc).observe(take);
		layersOf(doc).observe(take);
		ownersOf(doc).observe(take);
		this.undoing = new Y.UndoManager([changesOf(doc), itemsOf(doc), layersOf(doc)] as never, {
			trackedOrigins: new Set([MINE]),
			captureTimeout: 0
		});
		const undoable = () => {
			this.canUndo = this.undoing.canUndo();
			this.canRedo = this.undoing.canRedo();
		};
		this.undoing.on('stack-item-added', undoable);
		this.undoing.on('stack-item-popped', undoable);
		awareness.on('change', () => {
			this.others = [...awareness.getStates()].flatMap(([client, state]) =>
				client === doc.clientID || !state.user
					? []
					: [{ chosen: [], at: null, ...state, client } as unknown as Elsewhere]
			);
		});
		void this.open();
	}

	private async open(): Promise<void> {
		const { doc } = this.line;
		await this.line.ready();
		if (!baseOf(doc).has('hash'))
			await new Promise<void>((done) => baseOf(doc).observe(() => baseOf(doc).has('hash') && done()));
		try {
			const { label, hash } = readBase(doc);
			const response = await fetch(this.file(label), { signal: this.abort.signal });
			if (!response.ok) throw new Error('The drawing could not be fetched.');
			const { model, drawing } = await readDrawing(await response.arrayBuffer(), this.abort.signal, true);
			this.drawing = drawing;
			// Layers on which nothing lies can be drawn on too.
			for (const { name, visible } of drawing!.layers.values())
				if (!model.layers.some((l) => keyOf(l.name) === keyOf(name)))
					model.layers.push({ name, visible, items: 0 });
			this.baseIndex = new SnapIndex(model);
			this.baseShapes = byEntity(model);
			this.base = new DrawnSheet(model);
			const editable = this.layers.filter((l) => this.mayEdit(l.name));
			this.layer = (editable.find((l) => l.owner !== null) ?? editable[0])?.name ?? '0';
			this.block = this.blocks[0] ?? '';
			const [left, bottom, right, top] = model.box;
			this.height = Number((Math.hypot(right - left, top - bottom) / 200).toPrecision(2));
			// Whoever restores an earlier version may bring back another file.
			baseOf(doc).observe(() => baseOf(doc).get('hash') !== hash && location.reload());
			this.take();
		} catch (error) {
			if (!this.abort.signal.aborted) this.fault = (error as Error).message;
		}
	}

	private readonly tell = paced<XY>(SHOW_EVERY, (at) => this.line.awareness.setLocalStateField('at', at));

	close(): void {
		this.tell.stop();
		this.abort.abort();
		this.line.close();
	}

	private take(): void {
		const { drawing, base } = this;
		const { doc } = this.line;
		this.edits = readEdits(doc);
		this.owners = new Map(ownersOf(doc));
		if (!drawing || !base) return;
		const { changes, items } = this.edits;
		const edited = [...changes].flatMap(([of, change]) => {
			const entity = drawing.entities[of] && editedEntity(drawing.entities[of], change);
			return entity ? [{ entity, of }] : [];
		});
		const added = items.flatMap((item, i) => {
			const entity = entityOf(drawing, item);
			return entity ? [{ entity, of: ADDED + i }] : [];
		});
		const sheet = flattenSome(drawing, [...edited, ...added], base.sheet.layers);
		base.hide(new Set(changes.keys()));
		this.over = {
			drawn: new DrawnSheet(sheet, base.sheet.box),
			index: new SnapIndex(sheet),
			shapes: byEntity(sheet)
		};
		for (const key of this.chosen) if (!this.find(key)) this.chosen.delete(key);
	}

	/** Layers of the drawing, with how they stand. */
	readonly layers = $derived.by(() => {
		const sheet = this.over?.drawn.sheet ?? this.base?.sheet;
		return (sheet?.layers ?? []).map(({ name, visible }) => {
			const key = keyOf(name);
			const off = this.edits.layers.get(key)?.off ?? !visible;
			return { name, key, off, owner: this.owners.get(key) ?? null, seen: !off && !this.unseen.has(key) };
		});
	});
	readonly on = $derived(this.layers.map((l) => l.seen));
	/** Blocks that can be inserted. */
	get blocks(): string[] {
		return [...(this.drawing?.blocks.values() ?? [])]
			.map((b) => b.name)
			.filter((name) => !/^[*_]/.test(name));
	}
	mayEdit(layer: string): boolean {
		return this.mayWrite() && mayEditLayer(this.owners.get(keyOf(layer)), this);
	}

	private numberOf(key: string): number {
		const item = this.edits.items.findIndex((i) => i.id === key);
		return item >= 0 ? ADDED + item : Number(key);
	}
	private keyFor(of: number): string {
		return of >= ADDED ? (this.edits.items[of - ADDED]?.id ?? '') : String(of);
	}
	/** What stands behind a key, or null when it is not there any more. */
	find(key: string): Chosen | null {
		const { drawing } = this;
		if (!drawing) return null;
		const item = this.edits.items.find((i) => i.id === key) ?? null;
		const file = item ? undefined : drawing.entities[Number(key)];
		const entity = item
			? entityOf(drawing, item)
			: file && editedEntity(file, this.edits.changes.get(Number(key)) ?? {});
		return entity ? { key, entity, layer: layerOf(entity), item } : null;
	}
	get things(): Chosen[] {
		return [...this.chosen].flatMap((key) => this.find(key) ?? []);
	}
	shapesOf(key: string): Shapes | undefined {
		const of = this.numberOf(key);
		return this.over?.shapes.get(of) ?? this.baseShapes.get(of);
	}

	private shown = (layer: number, of: number): boolean =>
		this.on[layer] === true && !this.edits.changes.has(of);
	/** What the pointer holds on to near a place, in drawing units. */
	snap(x: number, y: number, reach: number): void {
		const from = this.points.at(-1);
		const start = from ? { x: from[0], y: from[1] } : null;
		const over = this.over?.index.nearest(x, y, reach, (layer) => this.on[layer] === true, start);
		const base = this.baseIndex?.nearest(x, y, reach, this.shown, start);
		this.at = over ?? base ?? { x, y, kind: 'free' };
		this.tell([x, y]);
	}
	/** The key of what lies at a place, or null. */
	pick(x: number, y: number, reach: number): string | null {
		const over = this.over?.index.entityAt(x, y, reach, (layer) => this.on[layer] === true);
		const base = this.baseIndex?.entityAt(x, y, reach, this.shown);
		const near = over && (!base || over.distance <= base.distance) ? over : base;
		if (near) return this.keyFor(near.of);
		const text =
			textAt(this.over?.drawn.sheet.texts ?? [], [x, y], reach, (layer) => this.on[layer] === true) ??
			textAt(this.base?.sheet.texts ?? [], [x, y], reach, this.shown);
		return text ? this.keyFor(text.of) : null;
	}
	/** Chooses everything that lies wholly within a box of the drawing. */
	chooseWithin(a: XY, b: XY): void {
		const inside = (shapes: Shapes) => liesWithin(shapes, a, b, this.on);
		for (const [of, shapes] of this.over?.shapes ?? []) if (inside(shapes)) this.chosen.add(this.keyFor(of));
		for (const [of, shapes] of this.baseShapes)
			if (!this.edits.changes.has(of) && inside(shapes)) this.chosen.add(String(of));
		this.tellChosen();
	}
	choose(key: string | null, also = false): void {
		if (!also) this.chosen.clear();
		if (key !== null && !(also && this.chosen.delete(key))) this.chosen.add(key);
		this.tellChosen();
	}
	private tellChosen(): void {
		this.line.awareness.setLocalStateField('chosen', [...this.chosen].slice(0, 50));
	}

	private change(doing: (doc: Y.Doc) => void): void {
		if (!this.mayWrite()) return;
		this.line.doc.transact(() => doing(this.line.doc), MINE);
	}
	undo(): void {
		this.undoing.undo();
	}
	redo(): void {
		this.undoing.redo();
	}

	/** Puts what one may still change of a refused copy in; says what came of it, and whether that was all. */
	putIn(held: Uint8Array): { said: string; whole: boolean } {
		const { put, barred, otherFile } = salvage(this.line.doc, held, this, MINE);
		if (otherFile)
			return {
				said: 'The drawing has another file behind it by now; nothing of the copy fits it.',
				whole: false
			};
		const left = barred.length
			? ` What lies on ${barred.join(', ')} stays out: ${barred.length === 1 ? 'it belongs' : 'they belong'} to another department now.`
			: '';
		const said = `${put ? `${plural(put, 'change')} put in.` : 'Nothing was put in.'}${left}`;
		return { said, whole: !barred.length };
	}

	/** What of the chosen may be changed by whoever is here. */
	get changeable(): Chosen[] {
		return this.things.filter((t) => this.mayEdit(t.layer));
	}
	get movables(): Chosen[] {
		return this.changeable.filter((t) => movable(t.entity.type));
	}
	moveBy([dx, dy]: XY): void {
		if (!dx && !dy) return;
		const things = this.movables;
		this.change((doc) => {
			for (const { key, item } of things)
				if (item) changeItem(doc, key, { points: shifted(item, dx, dy) });
				else {
					const [x, y] = this.edits.changes.get(Number(key))?.move ?? [0, 0];
					changeEntity(doc, Number(key), { move: [x + dx, y + dy] });
				}
		});
	}
	copyBy([dx, dy]: XY): void {
		const things = this.movables;
		const made: string[] = [];
		this.change((doc) => {
			for (const { key, item, layer, entity } of things) {
				const id = newId();
				made.push(id);
				if (item) addItem(doc, { ...item, id, points: shifted(item, dx, dy) });
				else {
					const change = this.edits.changes.get(Number(key)) ?? {};
					const [x, y] = change.move ?? [0, 0];
					addItem(doc, {
						id,
						kind: 'copy',
						of: Number(key),
						layer,
						points: [[x + dx, y + dy]],
						...(change.text === undefined ? {} : { text: change.text }),
						...(change.attributes ? { attributes: attributesOf(entity).map((a) => a.value) } : {})
					});
				}
			}
		});
		this.chosen.clear();
		made.forEach((id) => this.chosen.add(id));
		this.tellChosen();
	}
	remove(): void {
		const things = this.changeable;
		this.change((doc) => {
			for (const { key, item } of things)
				if (item) itemsOf(doc).delete(key);
				else changeEntity(doc, Number(key), { removed: true });
		});
		this.choose(null);
	}
	/** Puts what is chosen on another layer, when one may draw there. */
	setLayer(layer: string): void {
		if (!this.mayEdit(layer)) return;
		const things = this.changeable;
		this.change((doc) => {
			for (const { key, item } of things)
				if (item) changeItem(doc, key, { layer });
				else changeEntity(doc, Number(key), { layer });
		});
	}
	setWords(thing: Chosen, text: string): void {
		this.change((doc) =>
			thing.item ? changeItem(doc, thing.key, { text }) : changeEntity(doc, Number(thing.key), { text })
		);
	}
	setAttribute(thing: Chosen, at: number, value: string): void {
		this.change((doc) => {
			if (!thing.item) return changeEntity(doc, Number(thing.key), { attributes: { [String(at)]: value } });
			const attributes = attributesOf(thing.entity).map((a) => a.value);
			attributes[at] = value;
			changeItem(doc, thing.key, { attributes });
		});
	}
	/** Changes numbers of what was added. */
	setItem(thing: Chosen, fields: Partial<ItemFields>): void {
		this.change((doc) => changeItem(doc, thing.key, fields));
	}
	/** Takes every change of an entity of the file back. */
	asInFile(thing: Chosen): void {
		this.change((doc) => asInFile(doc, Number(thing.key)));
	}
	changed(thing: Chosen): Change | null {
		return thing.item ? null : (this.edits.changes.get(Number(thing.key)) ?? null);
	}
	switchLayer(name: string, off: boolean): void {
		this.change((doc) => layersOf(doc).set(keyOf(name), off));
	}

	/** Sets a point of what is being drawn; what is complete is added. */
	set(point: XY): void {
		if (this.tool === 'choose' || !this.mayEdit(this.layer)) return;
		this.points = [...this.points, point];
		if (this.points.length >= POINTS[this.tool]) this.finish();
	}
	finish(): void {
		const fields = this.draft(this.points);
		const { length } = this.points;
		this.points = [];
		if (!fields || (this.tool === 'polyline' && length < 2)) return;
		const id = newId();
		this.change((doc) => addItem(doc, { ...fields, id }));
	}
	/** What is being drawn with a set of points, or null when that is nothing yet. */
	draft(points: readonly XY[]): ItemFields | null {
		return draftOf(this.tool, points, this);
	}
	/** What is being drawn, with the pointer as its next point, as strokes and texts. */
	preview(): Shapes {
		const { drawing, base, at } = this;
		const fields = drawing && base && at ? this.draft([...this.points, [at.x, at.y]]) : null;
		const entity = fields && entityOf(drawing!, { ...fields, id: 'preview' });
		if (!entity) return { strokes: [], texts: [] };
		const { strokes, texts } = flattenSome(drawing!, [{ entity, of: -1 }], base!.sheet.layers);
		return { strokes, texts };
	}

	/** Where something stands, for a remark on it. */
	static place(thing: Chosen): XY {
		return firstPoint(thing.entity);
	}
	static words(thing: Chosen): string | null {
		return hasWords(thing.entity.type) ? wordsOf(thing.entity) : null;
	}
}

/** A copy's only point is how far it lies from what it is a copy of; it moves like the others. */
function shifted(item: Item, dx: number, dy: number): [number, number][] {
	return item.points.map(([x, y]) => [x + dx, y + dy]);
}
