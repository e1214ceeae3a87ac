import * as Y from 'yjs';
import type { Item } from './item';
import {
	addItem,
	baseOf,
	changeItem,
	changesOf,
	entityIn,
	itemsOf,
	keyOf,
	layerKept,
	layersOf,
	mayEditLayer,
	ownersOf,
	readBase,
	readItem
} from './shared';

/** What a drawing holds that another does not: keys of its maps. */
interface Own {
	changes: Set<string>;
	items: Set<string>;
	/** Of the items, those that were added and not only changed. */
	added: Set<string>;
	layers: Set<string>;
}

/** The things that were changed in one copy of a shared drawing and that another copy knows nothing of. */
function ownOf(held: Y.Doc, doc: Y.Doc): Own {
	const own: Own = { changes: new Set(), items: new Set(), added: new Set(), layers: new Set() };
	const [changes, items, layers] = [changesOf(held), itemsOf(held), layersOf(held)];
	const note = (struct: Y.Item | Y.GC) => {
		if (!(struct instanceof Y.Item)) return;
		const { parent, parentSub } = struct;
		const within = (parent as Y.AbstractType<unknown>)._item;
		if (parentSub === null) return;
		if (parent === changes) own.changes.add(parentSub);
		else if (parent === layers) own.layers.add(parentSub);
		else if (parent === items) {
			own.items.add(parentSub);
			if (!struct.deleted) own.added.add(parentSub);
		} else if (within?.parent === items) own.items.add(within.parentSub!);
	};
	const each = (
		of: Y.Doc,
		client: number,
		clock: number,
		length: number,
		see: (s: Y.Item | Y.GC) => void
	) => {
		const structs = of.store.clients.get(client) ?? [];
		const end = Math.min(clock + length, Y.getState(of.store, client));
		if (clock >= end) return;
		for (let i = Y.findIndexSS(structs, clock); i < structs.length && structs[i]!.id.clock < end; i++)
			see(structs[i]!);
	};
	const missing = Y.diffUpdate(Y.encodeStateAsUpdate(held), Y.encodeStateVector(doc));
	const { structs, ds } = Y.decodeUpdate(missing);
	for (const { id, length } of structs) each(held, id.client, id.clock, length, note);
	// What was taken out is told of the whole past; only what the other copy still has is news.
	for (const [client, ranges] of ds.clients)
		for (const { clock, len } of ranges)
			each(held, client, clock, len, (struct) => {
				let news = false;
				each(doc, client, struct.id.clock, struct.length, (there) => (news ||= !there.deleted));
				if (news) note(struct);
			});
	return own;
}

const fieldsOf = ({ id: _, ...fields }: Item): Partial<Item> => fields;

/** What came of {@link salvage}. */
export interface Salvaged {
	/** Entities, things that were added, and layers that were put in. */
	put: number;
	/** Layers of what could not be put in, each once. */
	barred: string[];
	/** The drawing has another file behind it by now, so that nothing could be put in. */
	otherFile: boolean;
}

/**
 * Puts in what somebody may still change of a copy that the server refused as a whole, such as what was drawn through a
 * lost line while one of its layers went to another department.
 * @param doc the drawing as everybody has it
 * @param update state of the refused copy, as Yjs encodes it
 */
export function salvage(
	doc: Y.Doc,
	update: Uint8Array,
	who: { departments: readonly string[] },
	origin?: unknown
): Salvaged {
	const held = new Y.Doc();
	Y.applyUpdate(held, update);
	const own = ownOf(held, doc);
	const said: Salvaged = { put: 0, barred: [], otherFile: false };
	if (baseOf(held).get('hash') !== baseOf(doc).get('hash')) return { ...said, otherFile: true };
	const base = readBase(doc);
	const barred = new Set<string>();
	const owners = ownersOf(doc);
	const put = (layers: (string | undefined)[], doing: () => void) => {
		const not = layers.find((l) => l !== undefined && !mayEditLayer(owners.get(keyOf(l)), who));
		if (not !== undefined) return void barred.add(not);
		doing();
		said.put++;
	};
	const entities = new Map<number, string[]>();
	for (const key of own.changes) {
		const at = entityIn(key);
		if (at !== null && base.layers[at] !== undefined) entities.set(at, [...(entities.get(at) ?? []), key]);
	}
	doc.transact(() => {
		for (const [at, keys] of entities) {
			const lies = base.names[base.layers[at]!]!;
			put([layerKept(doc, at) ?? lies, layerKept(held, at) ?? lies], () => {
				for (const key of keys) {
					const value = changesOf(held).get(key);
					if (value === undefined) changesOf(doc).delete(key);
					else changesOf(doc).set(key, value);
				}
			});
		}
		for (const id of own.items) {
			const now = readItem(id, itemsOf(doc).get(id));
			const mine = readItem(id, itemsOf(held).get(id));
			// What others took out meanwhile stays out.
			if (!now && !own.added.has(id)) continue;
			if (!now && !mine) continue;
			put([now?.layer, mine?.layer], () => {
				if (!mine) itemsOf(doc).delete(id);
				else if (now) changeItem(doc, id, fieldsOf(mine));
				else addItem(doc, mine);
			});
		}
		for (const name of own.layers)
			put([name], () => {
				const off = layersOf(held).get(name);
				if (off === undefined) layersOf(doc).delete(name);
				else layersOf(doc).set(name, off);
			});
	}, origin);
	return { ...said, barred: [...barred] };
}
