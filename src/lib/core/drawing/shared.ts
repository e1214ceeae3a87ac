import * as Y from 'yjs';
import { rewriteMaps, type Kept } from '../schedule/shared';
import { changeSchema, itemSchema, layerName, type Change, type Edits, type Item } from './item';

/*
 * A shared drawing is its base, a stored DXF file that never changes, and what was done to it since:
 * - `base`: which file it is, and on which layer each of its entities lies. Only the server writes here.
 * - `owners`: the id of the department of each layer that has one, by its name in capitals. Only the server writes here.
 * - `changes`: a map for each entity of the file that was changed, one key a property (attributes one key each), so
 *   that a move and new words made at the same time both stay.
 * - `items`: a map for each thing that was added.
 * - `layers`: layers that were switched on or off.
 */

export const baseOf = (doc: Y.Doc): Y.Map<unknown> => doc.getMap('base');
export const ownersOf = (doc: Y.Doc): Y.Map<string> => doc.getMap('owners');
export const changesOf = (doc: Y.Doc): Y.Map<Kept> => doc.getMap('changes');
export const itemsOf = (doc: Y.Doc): Y.Map<Kept> => doc.getMap('items');
export const layersOf = (doc: Y.Doc): Y.Map<boolean> => doc.getMap('layers');

/** Most things that are added to, and entities that are changed in, one drawing. */
export const MOST_EDITS = 20_000;

/** The stored file behind a shared drawing. */
export interface Base {
	hash: string;
	/** The version it is. */
	label: string;
	/** Names of the layers on which entities lie. */
	names: string[];
	/** For each entity of the file, the layer it lies on, by its place in `names`. */
	layers: number[];
}

/** Layers of entities as text: each followed by how often it is repeated. */
const packed = (layers: readonly number[]): string => {
	const runs: string[] = [];
	for (let i = 0; i < layers.length;) {
		let end = i + 1;
		while (layers[end] === layers[i]) end++;
		runs.push(end - i > 1 ? `${layers[i]}x${end - i}` : String(layers[i]));
		i = end;
	}
	return runs.join(' ');
};
const unpacked = (text: string): number[] =>
	text === ''
		? []
		: text.split(' ').flatMap((run) => {
				const [layer, times] = run.split('x').map(Number);
				return Array<number>(times ?? 1).fill(layer!);
			});

export function writeBase(doc: Y.Doc, { hash, label, names, layers }: Base): void {
	doc.transact(() => {
		const base = baseOf(doc);
		base.set('hash', hash);
		base.set('label', label);
		base.set('names', names);
		base.set('layers', packed(layers));
	});
}

/** The base of a shared drawing. Raises an Error for a document that is none. */
export function readBase(doc: Y.Doc): Base {
	const { hash, label, names, layers } = baseOf(doc).toJSON() as Record<string, unknown>;
	if (typeof hash !== 'string' || typeof layers !== 'string') throw new Error('This is no shared drawing.');
	return { hash, label: String(label), names: names as string[], layers: unpacked(layers) };
}

const KEY = /^\d{1,7}$/;

/** A change as it is kept, or null for what is none. */
export function readChange(kept: unknown): Change | null {
	if (!(kept instanceof Y.Map)) return null;
	const said: Record<string, unknown> = {};
	const attributes: Record<string, unknown> = {};
	for (const [key, value] of kept)
		if (key.startsWith('attribute:')) attributes[key.slice('attribute:'.length)] = value;
		else said[key] = value;
	const read = changeSchema.safeParse({ ...said, ...(Object.keys(attributes).length ? { attributes } : {}) });
	return read.success ? read.data : null;
}

/** Something that was added as it is kept, or null for what is none. */
export function readItem(id: string, kept: unknown): Item | null {
	if (!(kept instanceof Y.Map)) return null;
	const read = itemSchema.safeParse(kept.toJSON());
	return read.success ? { ...read.data, id } : null;
}

/** Everything that was done to a shared drawing; what does not fit is passed over. */
export function readEdits(doc: Y.Doc): Edits {
	const changes = new Map<number, Change>();
	for (const [key, kept] of changesOf(doc)) {
		const change = KEY.test(key) ? readChange(kept) : null;
		if (change) changes.set(Number(key), change);
	}
	const items = [...itemsOf(doc)]
		.flatMap(([id, kept]) => readItem(id, kept) ?? [])
		.sort((a, b) => (a.id < b.id ? -1 : 1));
	const layers = new Map<string, { off: boolean }>();
	for (const [name, off] of layersOf(doc)) if (typeof off === 'boolean') layers.set(name, { off });
	return { changes, items, layers };
}

/** Changes what is different of an entity of the file; undefined takes a property back to what the file says. */
export function changeEntity(
	doc: Y.Doc,
	at: number,
	change: { [K in keyof Change]?: Change[K] | undefined }
): void {
	doc.transact(() => {
		const changes = changesOf(doc);
		let kept = changes.get(String(at));
		if (!kept) changes.set(String(at), (kept = new Y.Map<unknown>()));
		const { attributes, ...rest } = change;
		for (const [key, value] of Object.entries(rest))
			if (value === undefined) kept.delete(key);
			else kept.set(key, value);
		for (const [i, value] of Object.entries(attributes ?? {})) kept.set(`attribute:${i}`, value);
	});
}

export function addItem(doc: Y.Doc, { id, ...fields }: Item): void {
	itemsOf(doc).set(id, new Y.Map(Object.entries(fields).filter(([, value]) => value !== undefined)));
}

/** Changes properties of something that was added. */
export function changeItem(doc: Y.Doc, id: string, fields: Partial<Item>): void {
	const kept = itemsOf(doc).get(id);
	if (!kept) return;
	doc.transact(() => Object.entries(fields).forEach(([key, value]) => kept.set(key, value)));
}

/** Brings a shared drawing back to what it was at an earlier time, on the base that it had then. */
export function rewriteDrawing(doc: Y.Doc, then: Y.Doc): void {
	doc.transact(() => {
		if (baseOf(doc).get('hash') !== baseOf(then).get('hash')) writeBase(doc, readBase(then));
		rewriteMaps(changesOf(doc), changesOf(then));
		rewriteMaps(itemsOf(doc), itemsOf(then));
		const [now, before] = [layersOf(doc), layersOf(then)];
		for (const name of [...now.keys()]) if (!before.has(name)) now.delete(name);
		for (const [name, off] of before) if (now.get(name) !== off) now.set(name, off);
	});
}

/** Whether somebody may edit a layer: nobody's layer by everybody with Work, a department's by its people. */
export function mayEditLayer(owner: string | undefined, who: { departments: readonly string[] }): boolean {
	return owner === undefined || who.departments.includes(owner);
}

/** What a change of a shared drawing touches. */
export interface Touched {
	/** Layers of everything that was changed, before and after, by name. */
	layers: Set<string>;
	/** A sentence about what cannot be, or null. */
	fault: string | null;
}

/** How a layer is named as a key: DXF does not tell capitals apart. */
export const keyOf = (name: string) => name.toUpperCase();

/**
 * What differs between a shared drawing before and after a change, of what was touched.
 * @param touched ids by map, as the change touched them
 */
export function touchedBy(
	base: Base,
	before: { changes: ReadonlyMap<string, Change | null>; items: ReadonlyMap<string, Item | null> },
	doc: Y.Doc,
	touched: { changes: Iterable<string>; items: Iterable<string>; layers: Iterable<string> }
): Touched {
	const layers = new Set<string>();
	const fail = (fault: string): Touched => ({ layers, fault });
	for (const key of touched.changes) {
		const index = KEY.test(key) ? base.layers[Number(key)] : undefined;
		if (index === undefined) return fail('There is no such entity in the drawing.');
		const own = base.names[index]!;
		layers.add(before.changes.get(key)?.layer ?? own);
		const kept = changesOf(doc).get(key);
		const change = kept ? readChange(kept) : {};
		if (!change) return fail('This is no change of an entity.');
		layers.add(change.layer ?? own);
	}
	for (const id of touched.items) {
		const was = before.items.get(id);
		if (was) layers.add(was.layer);
		const kept = itemsOf(doc).get(id);
		if (!kept) continue;
		const item = /^[a-z0-9]{4,20}$/.test(id) ? readItem(id, kept) : null;
		if (!item) return fail('This is nothing that a drawing can hold.');
		layers.add(item.layer);
	}
	for (const name of touched.layers) {
		if (!layerName.safeParse(name).success) return fail('This is no name of a layer.');
		layers.add(name);
	}
	if (changesOf(doc).size > MOST_EDITS || itemsOf(doc).size > MOST_EDITS)
		return fail(
			`At most ${MOST_EDITS.toLocaleString('en')} changes are made to one drawing; hand it in first.`
		);
	return { layers, fault: null };
}

/** The first layer of several that somebody may not edit since it is another department's, or null. */
export function barredLayer(
	layers: Iterable<string>,
	owners: ReadonlyMap<string, string> | Y.Map<string>,
	who: { departments: readonly string[] }
): string | null {
	for (const layer of layers) if (!mayEditLayer(owners.get(keyOf(layer)), who)) return layer;
	return null;
}

/** The department that a layer most likely belongs to: its code before a hyphen or underscore, as offices name layers. */
export function likelyOwner(layer: string, codes: readonly string[]): string | null {
	const [head] = layer.toUpperCase().split(/[-_]/);
	return codes.find((code) => code.toUpperCase() === head) ?? null;
}
