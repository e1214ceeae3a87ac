import * as Y from 'yjs';
import { rewriteMap, rewriteMaps, type Kept } from '../live/shared-maps';
import { changeSchema, itemSchema, layerName, type Change, type Edits, type Item } from './item';

/*
 * A shared drawing is its base, a stored DXF file that never changes, and what was done to it since:
 * - `base`: which file it is, and on which layer each of its entities lies. Only the server writes here.
 * - `owners`: the id of the department of each layer that has one, by its name in capitals. Only the server writes here.
 * - `changes`: what is different of entities of the file, one key a property of an entity (`12/text`), so that a move
 *   and new words made at the same time both stay. A map for each entity would not do: of two that are made at the same
 *   time one goes under.
 * - `items`: a map for each thing that was added.
 * - `layers`: layers that were switched on or off.
 */

export const baseOf = (doc: Y.Doc): Y.Map<unknown> => doc.getMap('base');
export const ownersOf = (doc: Y.Doc): Y.Map<string> => doc.getMap('owners');
export const changesOf = (doc: Y.Doc): Y.Map<unknown> => doc.getMap('changes');
export const itemsOf = (doc: Y.Doc): Y.Map<Kept> => doc.getMap('items');
export const layersOf = (doc: Y.Doc): Y.Map<boolean> => doc.getMap('layers');

/** Most things that are added to, and entities that are changed in, one drawing. */
const MOST_EDITS = 20_000;

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

/** A key of `changes`: the place of the entity in the file, and the property. */
const KEY = /^(\d{1,7})\/(removed|move|layer|text|attribute (\d{1,3}))$/;

/** The place of the entity that a key of `changes` speaks of, or null for what is none. */
export function entityIn(key: string): number | null {
	const place = KEY.exec(key)?.[1];
	return place === undefined ? null : Number(place);
}

/** Properties of an entity as `changes` keeps them; undefined for those that it may have and has not. */
const propertiesOf = (change: { [K in keyof Change]?: Change[K] | undefined }): [string, unknown][] =>
	Object.entries(change).flatMap(([key, value]): [string, unknown][] =>
		key === 'attributes'
			? Object.entries((value ?? {}) as Record<string, string>).map(([i, said]) => [`attribute ${i}`, said])
			: [[key, value]]
	);

/** The changes of entities; null for an entity of which something is kept that is no change. */
function readChanges(kept: Y.Map<unknown>): Map<number, Change | null> {
	const said = new Map<number, { attributes?: Record<string, unknown> } & Record<string, unknown>>();
	for (const [key, value] of kept) {
		const [, place, property, attribute] = KEY.exec(key) ?? [];
		if (place === undefined) continue;
		const held = said.get(Number(place)) ?? {};
		said.set(Number(place), held);
		if (attribute === undefined) held[property!] = value;
		else (held.attributes ??= {})[attribute] = value;
	}
	return new Map(
		[...said].map(([place, held]) => {
			const read = changeSchema.safeParse(held);
			return [place, read.success ? read.data : null];
		})
	);
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
	for (const [at, change] of readChanges(changesOf(doc))) if (change) changes.set(at, change);
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
		for (const [property, value] of propertiesOf(change))
			if (value === undefined) changes.delete(`${at}/${property}`);
			else changes.set(`${at}/${property}`, value);
	});
}

/** Takes every change of an entity of the file back. */
export function asInFile(doc: Y.Doc, at: number): void {
	doc.transact(() => {
		const changes = changesOf(doc);
		for (const key of [...changes.keys()]) if (entityIn(key) === at) changes.delete(key);
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
		rewriteMap(changesOf(doc), changesOf(then));
		rewriteMaps(itemsOf(doc), itemsOf(then));
		rewriteMap(layersOf(doc), layersOf(then));
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

/** Keys of the maps of a shared drawing that a change touched. */
export interface TouchedKeys {
	changes: Iterable<string>;
	items: Iterable<string>;
	layers: Iterable<string>;
}

/** Layers of what was changed and added, as they were before a change. */
export interface Before {
	/** By the place of the entity; only where it was put on another layer than in the file. */
	layers: Map<number, string>;
	/** By the id of what was added. */
	items: Map<string, string>;
}

/** The layer that an entity of the file was put on, by its place; undefined where it lies as in the file. */
export function layerKept(doc: Y.Doc, at: number): string | undefined {
	const kept = layerName.safeParse(changesOf(doc).get(`${at}/layer`));
	return kept.success ? kept.data : undefined;
}

/** How {@link touchedBy} sees a shared drawing before a change. */
export function beforeOf(doc: Y.Doc): Before {
	const before: Before = { layers: new Map(), items: new Map() };
	follow(before, doc, { changes: changesOf(doc).keys(), items: itemsOf(doc).keys(), layers: [] });
	return before;
}

/** Brings what was before a change up to after it, reading only what the change touched. */
export function follow(before: Before, doc: Y.Doc, touched: TouchedKeys): void {
	const put = <K>(map: Map<K, string>, key: K, layer: string | undefined) =>
		layer === undefined ? map.delete(key) : map.set(key, layer);
	for (const key of touched.changes) {
		const at = entityIn(key);
		if (at !== null) put(before.layers, at, layerKept(doc, at));
	}
	for (const id of touched.items) put(before.items, id, readItem(id, itemsOf(doc).get(id))?.layer);
}

/** Whether a value may stand under a key of `changes`. */
function isChange(key: string, value: unknown): boolean {
	const [, , property, attribute] = KEY.exec(key) ?? [];
	if (property === undefined) return false;
	const change = attribute === undefined ? { [property]: value } : { attributes: { [attribute]: value } };
	return changeSchema.safeParse(change).success;
}

/**
 * The layers that a change of a shared drawing touches. Reads only what was touched, however much was done before.
 * @param doc after the change
 * @param touched keys by map, as the change touched them
 */
export function touchedBy(base: Base, before: Before, doc: Y.Doc, touched: TouchedKeys): Touched {
	const layers = new Set<string>();
	const fail = (fault: string): Touched => ({ layers, fault });
	for (const key of touched.changes) {
		const at = entityIn(key);
		const place = at === null ? undefined : base.layers[at];
		if (at === null || place === undefined) return fail('There is no such entity in the drawing.');
		const value = changesOf(doc).get(key);
		if (value !== undefined && !isChange(key, value)) return fail('This is no change of an entity.');
		const own = base.names[place]!;
		layers.add(before.layers.get(at) ?? own).add(layerKept(doc, at) ?? own);
	}
	for (const id of touched.items) {
		const was = before.items.get(id);
		if (was !== undefined) layers.add(was);
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
