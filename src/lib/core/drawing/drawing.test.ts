import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { copyOf } from '../live/shared-copy';
import { flatten } from '../dxf/flatten';
import { decodeDxf, readDxf, valueOf, type Entity } from '../dxf/read';
import { titleBlock } from '../dxf/title-block';
import { asksFor, attributesOf, editedEntity, firstPoint, movable, wordsOf } from './edited';
import { itemSchema, NO_EDITS, type Change, type Edits, type Item } from './item';
import {
	addItem,
	barredLayer,
	changeEntity,
	changeItem,
	changesOf,
	itemsOf,
	likelyOwner,
	ownersOf,
	readBase,
	readEdits,
	rewriteDrawing,
	touchedBy,
	writeBase
} from './shared';
import { writeEdited } from './write';

const lines = (...all: (string | number)[]) => all.join('\r\n') + '\r\n';
const section = (name: string, ...body: string[]) =>
	lines(0, 'SECTION', 2, name) + body.join('') + lines(0, 'ENDSEC');

/** A small drawing in a version of the format: a line, a text, a title block with attributes, a dimension with its picture. */
function drawing(version: string, { words = 'HAT +3.40', page = 'ANSI_1252' } = {}): string {
	const modern = version >= 'AC1015';
	const mark = (type: string) => (modern ? lines(100, 'AcDbEntity') + lines(100, type) : '');
	return (
		section(
			'HEADER',
			lines(9, '$ACADVER', 1, version),
			lines(9, '$DWGCODEPAGE', 3, page),
			lines(9, '$HANDSEED', 5, '40')
		) +
		section(
			'TABLES',
			lines(0, 'TABLE', 2, 'LAYER', 70, 2),
			lines(0, 'LAYER', 2, 'MW-STEEL', 70, 0, 62, 5, 6, 'CONTINUOUS'),
			lines(0, 'LAYER', 2, 'ST-GRID', 70, 0, 62, 3, 6, 'CONTINUOUS'),
			lines(0, 'ENDTAB'),
			modern
				? lines(0, 'TABLE', 2, 'BLOCK_RECORD', 0, 'BLOCK_RECORD', 5, '1F', 2, '*Model_Space', 0, 'ENDTAB')
				: ''
		) +
		section(
			'BLOCKS',
			lines(0, 'BLOCK', 8, 0, 2, 'TITLE', 70, 2, 10, 0, 20, 0),
			lines(0, 'ATTDEF', 8, 0, 10, 5, 20, 5, 40, 3, 1, '-', 3, 'Revision', 2, 'REV', 70, 0),
			lines(0, 'LINE', 8, 0, 10, 0, 20, 0, 11, 50, 21, 0),
			lines(0, 'ENDBLK'),
			lines(0, 'BLOCK', 8, 0, 2, '*D1', 70, 1, 10, 0, 20, 0),
			lines(0, 'LINE', 8, 'ST-GRID', 10, 0, 20, 0, 11, 100, 21, 0),
			lines(0, 'MTEXT', 8, 'ST-GRID', 10, 50, 20, 5, 40, 2.5, 1, '100'),
			lines(0, 'ENDBLK')
		) +
		section(
			'ENTITIES',
			lines(0, 'LINE', 5, '30') +
				mark('AcDbLine') +
				lines(8, 'MW-STEEL', 10, '0.0', 20, '0.0', 11, '100.0', 21, '0.0'),
			lines(999, 'a comment that stays') +
				lines(0, 'TEXT', 5, '31') +
				mark('AcDbText') +
				lines(8, 'ST-GRID', 10, 10, 20, 20, 40, 2.5, 1, words),
			lines(0, 'INSERT', 5, '32') +
				mark('AcDbBlockReference') +
				lines(8, 'MW-STEEL', 66, 1, 2, 'TITLE', 10, 200, 20, 0),
			lines(0, 'ATTRIB', 5, '33') +
				mark('AcDbText') +
				lines(8, 'MW-STEEL', 10, 205, 20, 5, 40, 3, 1, 'P02', 2, 'REV', 70, 0),
			lines(0, 'SEQEND', 5, '34', 8, 'MW-STEEL'),
			lines(0, 'DIMENSION', 5, '35') +
				mark('AcDbDimension') +
				lines(8, 'ST-GRID', 2, '*D1', 10, 0, 20, 0, 1, '<>', 70, 0),
			lines(0, 'ACAD_PROXY_ENTITY', 5, '36', 8, 0, 310, 'DEADBEEF')
		) +
		section('OBJECTS', lines(0, 'DICTIONARY', 5, 'C')) +
		lines(0, 'EOF')
	);
}
const bytesOf = (text: string) => new TextEncoder().encode(text);
const [LINE, TEXT, INSERT, DIMENSION] = [0, 1, 2, 3];
const edits = (more: Partial<Edits>): Edits => ({ ...NO_EDITS, ...more });
const changes = (...list: [number, Change][]) => edits({ changes: new Map(list) });
const written = (version: string, made: Edits, more = {}) => {
	const bytes = writeEdited(bytesOf(drawing(version, more)), made);
	return { bytes, text: new TextDecoder('latin1').decode(bytes), read: readDxf(decodeDxf(bytes)) };
};
const item = (more: Partial<Item>): Item => ({
	id: 'abcd',
	...itemSchema.parse({
		kind: 'line',
		layer: 'ST-GRID',
		points: [
			[0, 0],
			[1, 1]
		],
		...more
	})
});

describe('writing an edited drawing', () => {
	it.each(['AC1009', 'AC1015', 'AC1021', 'AC1027'])('%s: without edits every byte stays', (version) => {
		expect(written(version, NO_EDITS).text).toBe(drawing(version));
	});

	it('what is not touched stays byte for byte', () => {
		const before = drawing('AC1027');
		const { text } = written('AC1027', changes([LINE, { move: [5, -2] }]));
		expect(text).toBe(
			before.replace(
				lines(10, '0.0', 20, '0.0', 11, '100.0', 21, '0.0'),
				lines(' 10', 5, ' 20', -2, ' 11', 105, ' 21', -2)
			)
		);
	});

	it('words, attributes, layers and removals arrive', () => {
		const { read, text } = written(
			'AC1027',
			changes(
				[LINE, { removed: true }],
				[TEXT, { text: 'HAT +3.55 ± 5 mm', layer: 'MW-STEEL' }],
				[INSERT, { attributes: { '0': 'P03' }, move: [0, 10] }]
			)
		);
		expect(read.entities.map((e) => e.type)).toEqual(['TEXT', 'INSERT', 'DIMENSION', 'ACAD_PROXY_ENTITY']);
		expect(wordsOf(read.entities[0]!)).toBe('HAT +3.55 ± 5 mm');
		expect(valueOf(read.entities[0]!.groups, 8)).toBe('MW-STEEL');
		expect(attributesOf(read.entities[1]!)).toEqual([{ tag: 'REV', value: 'P03' }]);
		expect(firstPoint(read.entities[1]!.children[0]!)).toEqual([205, 15]);
		expect(titleBlock(flatten(read).attributes).revision).toBe('P03');
		expect(text).toContain(lines(310, 'DEADBEEF'));
		expect(text).toContain('a comment that stays');
	});

	it('letters beyond the old code pages are written so that every program reads them', () => {
		const { text, read } = written('AC1009', changes([TEXT, { text: 'Länge ≥ 3' }]));
		expect(text).toContain('L\\U+00E4nge \\U+2265 3');
		expect(wordsOf(read.entities[TEXT]!)).toBe('Länge ≥ 3');
		const korean = new Uint8Array(
			[...drawing('AC1009', { words: 'xxxx', page: 'ANSI_949' })].map((c) => c.charCodeAt(0))
		);
		korean.set(
			[0xc7, 0xd1, 0xb1, 0xdb],
			drawing('AC1009', { words: 'xxxx', page: 'ANSI_949' }).indexOf('xxxx')
		);
		const moved = readDxf(decodeDxf(writeEdited(korean, changes([TEXT, { move: [1, 1] }]))));
		expect(wordsOf(moved.entities[TEXT]!)).toBe('한글');
	});

	it('a dimension’s words change in its picture too', () => {
		const { read } = written('AC1027', changes([DIMENSION, { text: '102 check' }]));
		expect(wordsOf(read.entities[DIMENSION]!)).toBe('102 check');
		expect(flatten(read).texts.map((t) => t.text)).toContain('102 check');
	});

	it('what was added stands there in every version of the format, with handles of its own', () => {
		const made = edits({
			items: [
				item({
					id: 'a',
					points: [
						[0, 0],
						[10, 5]
					]
				}),
				item({
					id: 'b',
					kind: 'polyline',
					points: [
						[0, 0],
						[10, 0],
						[10, 10]
					],
					closed: true
				}),
				item({ id: 'c', kind: 'circle', points: [[5, 5]], radius: 3 }),
				item({ id: 'd', kind: 'arc', points: [[5, 5]], radius: 4, from: 0, to: 90 }),
				item({ id: 'e', kind: 'text', points: [[1, 2]], text: 'Added', height: 2.5, turn: 90 }),
				item({ id: 'f', kind: 'block', points: [[300, 0]], block: 'TITLE', attributes: ['C01'], scale: 2 }),
				item({ id: 'g', kind: 'copy', points: [[0, 50]], of: LINE })
			]
		});
		for (const version of ['AC1009', 'AC1015', 'AC1027']) {
			const { read } = written(version, made);
			expect(
				read.entities.slice(5).map((e) => e.type),
				version
			).toEqual([
				'LINE',
				version === 'AC1009' ? 'POLYLINE' : 'LWPOLYLINE',
				'CIRCLE',
				'ARC',
				'TEXT',
				'INSERT',
				'LINE'
			]);
			expect(attributesOf(read.entities[10]!)).toEqual([{ tag: 'REV', value: 'C01' }]);
			expect(firstPoint(read.entities[10]!.children[0]!)).toEqual([310, 10]);
			expect(firstPoint(read.entities[11]!)).toEqual([0, 50]);
			const handles = read.entities.flatMap((e) => [e, ...e.children]).map((e) => valueOf(e.groups, 5));
			if (version !== 'AC1009') {
				expect(handles, version).not.toContain(null);
				expect(new Set(handles).size, version).toBe(handles.length);
				expect(read.header.get('$HANDSEED')![0]![1]).not.toBe('40');
			}
		}
	});

	it('layers are switched', () => {
		const off = edits({ layers: new Map([['ST-GRID', { off: true }]]) });
		const { read } = written('AC1027', off);
		expect(read.layers.get('ST-GRID')).toMatchObject({ visible: false, colour: 3 });
		expect(read.layers.get('MW-STEEL')!.visible).toBe(true);
	});

	it('any words of one line survive writing and reading', () => {
		fc.assert(
			fc.property(
				fc.string({ unit: fc.constantFrom(...'aB3 ä≥漢{}-.,+()'), minLength: 1, maxLength: 30 }),
				fc.constantFrom('AC1009', 'AC1027'),
				(words, version) => {
					const { read } = written(version, changes([TEXT, { text: words }]));
					expect(wordsOf(read.entities[TEXT]!)).toBe(words);
				}
			),
			{ numRuns: 60 }
		);
	});

	it('a broken base is said, not written', () => {
		expect(() => writeEdited(bytesOf('no drawing'), NO_EDITS)).toThrow(/not a DXF drawing|damaged/);
		const cut = drawing('AC1027');
		expect(() => writeEdited(bytesOf(cut.slice(0, cut.indexOf('OBJECTS') - 40)), NO_EDITS)).toThrow();
	});
});

describe('edited entities', () => {
	const read = readDxf(drawing('AC1027'));
	it('are what they were where nothing was changed', () => {
		for (const entity of read.entities) {
			expect(editedEntity(entity, {})).toEqual(entity);
			expect(editedEntity(entity, { removed: true })).toBeNull();
			if (movable(entity.type))
				expect(
					editedEntity(editedEntity(entity, { move: [3, 4] })!, { move: [-3, -4] })!.children.length
				).toBe(entity.children.length);
		}
	});
	it('words of a dimension that had none stand with what is said of dimensions, before what others hung on', () => {
		const bare: Entity = {
			type: 'DIMENSION',
			groups: [
				[5, '35'],
				[100, 'AcDbEntity'],
				[100, 'AcDbDimension'],
				[2, '*D1'],
				[100, 'AcDbAlignedDimension'],
				[13, '0'],
				[1001, 'ACAD'],
				[1000, 'DSTYLE']
			],
			children: []
		};
		const said = editedEntity(bare, { text: '102', layer: 'MW-STEEL' })!;
		expect(said.groups.map(([code]) => code)).toEqual([5, 100, 8, 100, 2, 1, 100, 13, 1001, 1000]);
		const old = { ...bare, groups: bare.groups.filter(([code]) => code !== 100) };
		expect(editedEntity(old, { text: '102' })!.groups.map(([code]) => code)).toEqual([
			5, 2, 13, 1, 1001, 1000
		]);
	});
	it('hatches and dimensions stay where they are', () => {
		expect(editedEntity(read.entities[DIMENSION]!, { move: [5, 5] })).toEqual(read.entities[DIMENSION]);
	});
	it('blocks say what they ask for', () => {
		expect(asksFor(read, 'title')).toEqual([{ tag: 'REV', prompt: 'Revision', value: '-' }]);
	});
});

/** A shared drawing: five entities, on layers of Marine works and of Structures. */
function shared(): Y.Doc {
	const doc = new Y.Doc();
	writeBase(doc, { hash: 'h', label: 'P02.1', names: ['MW-STEEL', 'ST-GRID', '0'], layers: [0, 1, 0, 1, 2] });
	ownersOf(doc).set('MW-STEEL', 'mw');
	ownersOf(doc).set('ST-GRID', 'st');
	return doc;
}

describe('a shared drawing', () => {
	it('says which layers a change touches, and whose they are', () => {
		const doc = shared();
		const base = readBase(doc);
		expect(base.layers).toEqual([0, 1, 0, 1, 2]);
		const nothing = { layers: new Map(), items: new Map() };
		const touch = (changed: { changes?: string[]; items?: string[]; layers?: string[] }) =>
			touchedBy(base, nothing, doc, { changes: [], items: [], layers: [], ...changed });
		changeEntity(doc, TEXT, { layer: 'MW-STEEL' });
		expect([...touch({ changes: ['1/layer'] }).layers]).toEqual(['ST-GRID', 'MW-STEEL']);
		addItem(doc, item({ id: 'abcd', layer: 'st-grid' }));
		const { layers } = touch({ items: ['abcd'] });
		expect(barredLayer(layers, ownersOf(doc), { departments: ['mw'] })).toBe('st-grid');
		expect(barredLayer(layers, ownersOf(doc), { departments: ['mw', 'st'] })).toBeNull();
		expect(barredLayer(['0'], ownersOf(doc), { departments: [] })).toBeNull();
		changeEntity(doc, 99, { move: [1, 1] });
		expect(touch({ changes: ['99/move'] }).fault).toBe('There is no such entity in the drawing.');
		itemsOf(doc).set('efgh', new Y.Map([['kind', 'script']]) as never);
		expect(touch({ items: ['efgh'] }).fault).not.toBeNull();
		changesOf(doc).set('0/layer', 'a\nb');
		expect(touch({ changes: ['0/layer'] }).fault).not.toBeNull();
		expect(touch({ changes: ['0/strange'] }).fault).not.toBeNull();
	});

	it('names tell whose a layer most likely is', () => {
		expect(['MW-STEEL', 'mw_pin', 'GRID', '0'].map((l) => likelyOwner(l, ['AR', 'MW']))).toEqual([
			'MW',
			'MW',
			null,
			null
		]);
	});

	it('a move and new words at one time both stay, also of what nobody had touched; earlier states come back', () => {
		const [a, then] = [shared(), shared()];
		const b = copyOf(a);
		changeEntity(a, TEXT, { move: [7, 0] });
		changeEntity(b, TEXT, { text: 'New' });
		changeEntity(b, INSERT, { attributes: { '0': 'P03' } });
		Y.applyUpdate(a, Y.encodeStateAsUpdate(b));
		expect(readEdits(a).changes.get(TEXT)).toEqual({ move: [7, 0], text: 'New' });
		expect(readEdits(a).changes.get(INSERT)).toEqual({ attributes: { '0': 'P03' } });
		rewriteDrawing(a, then);
		expect(readEdits(a)).toEqual(NO_EDITS);
	});

	it('converges after any histories with partitions', () => {
		const act = fc.record({
			who: fc.nat(2),
			does: fc.constantFrom('move', 'say', 'remove', 'back', 'add', 'shift', 'take', 'layer', 'meet'),
			at: fc.nat(4),
			value: fc.nat(99)
		});
		fc.assert(
			fc.property(fc.array(act, { maxLength: 30 }), (history) => {
				const first = shared();
				const docs = [copyOf(first), copyOf(first), copyOf(first)];
				const meet = (x: Y.Doc, y: Y.Doc) => {
					Y.applyUpdate(x, Y.encodeStateAsUpdate(y, Y.encodeStateVector(x)));
					Y.applyUpdate(y, Y.encodeStateAsUpdate(x, Y.encodeStateVector(y)));
				};
				for (const { who, does, at, value } of history) {
					const doc = docs[who]!;
					const id = `item${at}`;
					if (does === 'meet') meet(doc, docs[(who + 1) % 3]!);
					else if (does === 'move') changeEntity(doc, at, { move: [value, at] });
					else if (does === 'say') changeEntity(doc, at, { text: String(value) });
					else if (does === 'remove') changeEntity(doc, at, { removed: true });
					else if (does === 'back') changeEntity(doc, at, { removed: undefined });
					else if (does === 'add')
						addItem(
							doc,
							item({
								id,
								points: [
									[value, 0],
									[0, value]
								]
							})
						);
					else if (does === 'shift')
						changeItem(doc, id, {
							points: [
								[value, 1],
								[1, value]
							]
						});
					else if (does === 'take') itemsOf(doc).delete(id);
					else changeEntity(doc, at, { layer: 'ST-GRID' });
				}
				meet(docs[0]!, docs[1]!);
				meet(docs[1]!, docs[2]!);
				meet(docs[0]!, docs[1]!);
				const sorted = (doc: Y.Doc) => {
					const { changes: kept, items } = readEdits(doc);
					return JSON.stringify([[...kept].sort(([x], [y]) => x - y), items]);
				};
				expect(docs.map(sorted)).toEqual(docs.map(() => sorted(docs[0]!)));
			}),
			{ numRuns: 1_000 }
		);
	});
});
