import fc from 'fast-check';
import { expect, it } from 'vitest';
import * as Y from 'yjs';
import { rewriteMap, rewriteMaps, type Kept } from './shared-maps';

const value = fc.oneof(
	fc.integer({ min: 0, max: 3 }),
	fc.constantFrom('a', 'b'),
	fc.array(fc.nat(3), { maxLength: 2 })
);
const flat = fc.dictionary(fc.constantFrom('k', 'l', 'm', 'n'), value);
const nested = fc.dictionary(fc.constantFrom('one', 'two', 'three'), flat);

const flatDoc = (fields: Record<string, unknown>) => {
	const doc = new Y.Doc();
	for (const [key, said] of Object.entries(fields)) doc.getMap('map').set(key, said);
	return doc;
};
const nestedDoc = (fields: Record<string, Record<string, unknown>>) => {
	const doc = new Y.Doc();
	for (const [key, said] of Object.entries(fields))
		doc.getMap<Kept>('map').set(key, new Y.Map(Object.entries(said)));
	return doc;
};

it('a shared map becomes another, and what is alike is not touched', () => {
	fc.assert(
		fc.property(flat, flat, (is, wanted) => {
			const doc = flatDoc(is);
			const touched = new Set<string>();
			doc.getMap('map').observe((event) => event.keysChanged.forEach((key) => touched.add(key as string)));
			doc.transact(() => rewriteMap(doc.getMap('map'), flatDoc(wanted).getMap('map')));
			expect(doc.getMap('map').toJSON()).toEqual(wanted);
			const differ = [...new Set([...Object.keys(is), ...Object.keys(wanted)])].filter(
				(key) => JSON.stringify(is[key]) !== JSON.stringify(wanted[key])
			);
			expect([...touched].sort()).toEqual(differ.sort());
		})
	);
});

it('a shared map of maps becomes another, and keeps the maps that stay', () => {
	fc.assert(
		fc.property(nested, nested, (is, wanted) => {
			const doc = nestedDoc(is);
			const map = doc.getMap<Kept>('map');
			const before = new Map(map.entries());
			doc.transact(() => rewriteMaps(map, nestedDoc(wanted).getMap('map')));
			expect(map.toJSON()).toEqual(wanted);
			for (const [key, kept] of before) if (key in wanted) expect(map.get(key)).toBe(kept);
		})
	);
});

it('what somebody writes at the same time into a map that stays is kept', () => {
	const doc = nestedDoc({ one: { k: 1 }, two: { k: 2 } });
	const other = new Y.Doc();
	Y.applyUpdate(other, Y.encodeStateAsUpdate(doc));
	other.getMap<Kept>('map').get('one')!.set('l', 'mine');
	rewriteMaps(doc.getMap('map'), nestedDoc({ one: { k: 7 } }).getMap('map'));
	Y.applyUpdate(doc, Y.encodeStateAsUpdate(other));
	expect(doc.getMap('map').toJSON()).toEqual({ one: { k: 7, l: 'mine' } });
});
