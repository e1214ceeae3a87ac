import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { copyOf } from '../live/shared-copy';
import type { Item } from './item';
import { salvage } from './salvage';
import {
	addItem,
	asInFile,
	barredLayer,
	beforeOf,
	changeEntity,
	changeItem,
	changesOf,
	follow,
	itemsOf,
	layersOf,
	ownersOf,
	readBase,
	readEdits,
	touchedBy,
	writeBase
} from './shared';

const NAMES = ['MW-STEEL', 'ST-GRID', '0'];
/** Eight entities in turn on the layers of Marine works, of Structures, and of nobody. */
function shared(): Y.Doc {
	const doc = new Y.Doc();
	writeBase(doc, { hash: 'h', label: 'P02.1', names: NAMES, layers: [0, 1, 2, 0, 1, 2, 0, 1] });
	ownersOf(doc).set('MW-STEEL', 'mw');
	ownersOf(doc).set('ST-GRID', 'st');
	return doc;
}
const state = (doc: Y.Doc) => Y.encodeStateAsUpdate(doc);
const line = (id: string, layer: string): Item => ({
	id,
	kind: 'line',
	layer,
	points: [
		[0, 0],
		[5, 5]
	]
});
/** Watches a drawing; gives the keys that were touched since it was last asked. */
function observed(doc: Y.Doc) {
	const fresh = () => ({ changes: new Set<string>(), items: new Set<string>(), layers: new Set<string>() });
	let touched = fresh();
	doc.on('afterTransaction', ({ changed }: Y.Transaction) => {
		for (const [type, keys] of changed)
			if (type === (changesOf(doc) as unknown)) keys.forEach((key) => touched.changes.add(key!));
			else if (type === (itemsOf(doc) as unknown)) keys.forEach((key) => touched.items.add(key!));
			else touched.items.add(type._item!.parentSub!);
	});
	return () => {
		const was = touched;
		touched = fresh();
		return was;
	};
}
const MARINE = { departments: ['mw'] };

describe('what is put in of a refused copy', () => {
	it('is everything on the layers that one may still edit', () => {
		const doc = shared();
		addItem(doc, line('old1', 'MW-STEEL'));
		const offline = copyOf(doc);
		changeEntity(offline, 0, { move: [10, 0] });
		changeEntity(offline, 2, { text: 'HAT +3.45' });
		addItem(offline, line('new1', 'MW-STEEL'));
		addItem(offline, line('new2', '0'));
		changeItem(offline, 'old1', { layer: '0' });
		layersOf(offline).set('0', true);
		// Meanwhile the steel goes to Structures, and the others draw too.
		ownersOf(doc).set('MW-STEEL', 'st');
		changeEntity(doc, 1, { text: 'GL 3' });
		expect(salvage(doc, state(offline), MARINE)).toEqual({ put: 3, barred: ['MW-STEEL'], otherFile: false });
		const { changes, items, layers } = readEdits(doc);
		expect([...changes]).toEqual([
			[1, { text: 'GL 3' }],
			[2, { text: 'HAT +3.45' }]
		]);
		expect(items.map((i) => [i.id, i.layer])).toEqual([
			['new2', '0'],
			['old1', 'MW-STEEL']
		]);
		expect([...layers]).toEqual([['0', { off: true }]]);
	});

	it('says when an entity would leave or enter a layer of others', () => {
		const doc = shared();
		const offline = copyOf(doc);
		changeEntity(offline, 2, { layer: 'ST-GRID' });
		changeEntity(offline, 1, { layer: '0' });
		expect(salvage(doc, state(offline), MARINE)).toEqual({ put: 0, barred: ['ST-GRID'], otherFile: false });
		expect(readEdits(doc).changes.size).toBe(0);
	});

	it('takes back and takes out as the copy did, but nothing that the copy did not touch', () => {
		const doc = shared();
		changeEntity(doc, 0, { text: 'first' });
		changeEntity(doc, 3, { text: 'second' });
		for (const id of ['one1', 'two2', 'tri3']) addItem(doc, line(id, '0'));
		itemsOf(doc).delete('tri3');
		const offline = copyOf(doc);
		asInFile(offline, 0);
		itemsOf(offline).delete('one1');
		changeItem(offline, 'two2', { layer: 'MW-STEEL' });
		// Others take out what was changed here; it stays out.
		itemsOf(doc).delete('two2');
		expect(salvage(doc, state(offline), MARINE)).toEqual({ put: 2, barred: [], otherFile: false });
		expect([...readEdits(doc).changes]).toEqual([[3, { text: 'second' }]]);
		expect(readEdits(doc).items).toEqual([]);
	});

	it('is nothing when another file is behind the drawing by now, or when nothing was done', () => {
		const doc = shared();
		expect(salvage(doc, state(copyOf(doc)), MARINE)).toEqual({ put: 0, barred: [], otherFile: false });
		const offline = copyOf(doc);
		changeEntity(offline, 0, { move: [1, 1] });
		writeBase(doc, { hash: 'other', label: 'P01.1', names: ['0'], layers: [0] });
		expect(salvage(doc, state(offline), MARINE).otherFile).toBe(true);
		expect(changesOf(doc).size).toBe(0);
	});

	const edit = fc.record({
		at: fc.integer({ min: 0, max: 3 }),
		what: fc.constantFrom('move', 'words', 'layer', 'back', 'add', 'take out', 'item layer'),
		layer: fc.constantFrom(...NAMES)
	});
	type Edit = typeof edit extends fc.Arbitrary<infer T> ? T : never;
	/** Does something to entities of one half, so that two who do this never touch the same. */
	function act(doc: Y.Doc, half: 0 | 1, { at, what, layer }: Edit) {
		const [entity, id] = [at * 2 + half, `${half ? 'odd' : 'even'}${at}`];
		if (what === 'move') changeEntity(doc, entity, { move: [at, half] });
		else if (what === 'words') changeEntity(doc, entity, { text: `${at} ${half}` });
		else if (what === 'layer') changeEntity(doc, entity, { layer });
		else if (what === 'back') asInFile(doc, entity);
		else if (what === 'add') addItem(doc, line(id, layer));
		else if (what === 'take out') itemsOf(doc).delete(id);
		else changeItem(doc, id, { layer });
	}

	it('is what merging gives, for whoever may edit every layer', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.constantFrom(0 as const, 1 as const), edit), { maxLength: 8 }),
				fc.array(edit, { maxLength: 8 }),
				fc.array(edit, { maxLength: 8 }),
				(before, mine, theirs) => {
					const doc = shared();
					before.forEach(([half, e]) => act(doc, half, e));
					const offline = copyOf(doc);
					mine.forEach((e) => act(offline, 0, e));
					theirs.forEach((e) => act(doc, 1, e));
					const merged = copyOf(doc);
					Y.applyUpdate(merged, state(offline));
					salvage(doc, state(offline), { departments: ['mw', 'st'] });
					expect(readEdits(doc)).toEqual(readEdits(merged));
				}
			),
			{ numRuns: 300 }
		);
	});

	it('is followed change by change to what a whole reading gives', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.constantFrom(0 as const, 1 as const), edit), { minLength: 1, maxLength: 20 }),
				(all) => {
					const doc = shared();
					const before = beforeOf(doc);
					const followed = observed(doc);
					for (const [half, e] of all) {
						act(doc, half, e);
						follow(before, doc, followed());
					}
					expect(before).toEqual(beforeOf(copyOf(doc)));
				}
			),
			{ numRuns: 300 }
		);
	});

	it('never touches a layer that the server would bar', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.constantFrom(0 as const, 1 as const), edit), { maxLength: 8 }),
				fc.array(fc.tuple(fc.constantFrom(0 as const, 1 as const), edit), { minLength: 1, maxLength: 12 }),
				(before, mine) => {
					const doc = shared();
					before.forEach(([half, e]) => act(doc, half, e));
					const offline = copyOf(doc);
					mine.forEach(([half, e]) => act(offline, half, e));
					const was = beforeOf(doc);
					const touched = observed(doc);
					salvage(doc, state(offline), MARINE);
					const { layers, fault } = touchedBy(readBase(doc), was, doc, touched());
					expect(fault).toBeNull();
					expect(barredLayer(layers, ownersOf(doc), MARINE)).toBeNull();
				}
			),
			{ numRuns: 300 }
		);
	});
});
