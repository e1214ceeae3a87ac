import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDxf } from '../dxf/read';
import { DrawingSide } from './drawing-side';
import { compareDrawings } from './drawings';

let handle = 0;
const g = (...pairs: (string | number)[]) => pairs.join('\n');
const own = (layer: string) => [5, (++handle).toString(16), 8, layer];
const line = (x1: number, y1: number, x2: number, y2: number, layer = 'STEEL') =>
	g(0, 'LINE', ...own(layer), 10, x1, 20, y1, 11, x2, 21, y2);
const circle = (x: number, y: number, r: number, layer = 'STEEL') =>
	g(0, 'CIRCLE', ...own(layer), 10, x, 20, y, 40, r);
const text = (x: number, y: number, says: string, centred = false) =>
	centred
		? g(0, 'TEXT', ...own('TEXT'), 10, x - says.length, 20, y, 11, x, 21, y, 40, 2.5, 72, 1, 1, says)
		: g(0, 'TEXT', ...own('TEXT'), 10, x, 20, y, 40, 2.5, 1, says);
const insert = (revision: string) =>
	g(0, 'INSERT', ...own('FRAME'), 66, 1, 2, 'TITLE', 10, 0, 20, 0) +
	'\n' +
	g(0, 'ATTRIB', ...own('FRAME'), 10, 5, 20, 5, 40, 2, 2, 'REV', 1, revision) +
	'\n' +
	g(0, 'SEQEND', ...own('FRAME'));
const dimension = (says: string) =>
	g(
		0,
		'DIMENSION',
		...own('DIMS'),
		2,
		`*D${handle}`,
		10,
		0,
		20,
		-5,
		13,
		0,
		23,
		0,
		14,
		100,
		24,
		0,
		70,
		32,
		1,
		says
	);
const drawing = (entities: string[], blocks = '') =>
	new DrawingSide(
		readDxf(
			`0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities.map((e) => `${e}\n`).join('')}0\nENDSEC\n0\nEOF\n`
		)
	);
const block = (content: string) => `0\nBLOCK\n2\nTITLE\n10\n0\n20\n0\n${content}\n0\nENDBLK\n`;

describe('comparing drawings', () => {
	it('finds nothing when only handles and the order changed', async () => {
		const made = () => [line(0, 0, 10, 0), circle(5, 5, 2), text(0, 9, 'A'), insert('P01'), dimension('')];
		expect(await compareDrawings(drawing(made()), drawing(made().reverse()))).toEqual([]);
	});
	it('does not mind from which end a line was drawn, nor noise in the last decimals', async () => {
		const before = drawing([line(0, 0, 1000, 5), circle(10, 10, 4)]);
		const after = drawing([line(1000.00005, 5, 0, 0), circle(10.00004, 10, 4)]);
		expect(await compareDrawings(before, after)).toEqual([]);
	});
	it('says what was edited', async () => {
		const before = drawing([line(0, 0, 10, 0), text(3, 3, 'HAT +3.40'), insert('P03'), dimension('24 600')]);
		const after = drawing([
			line(0, 0, 10, 0, 'HIDDEN'),
			text(3, 3, 'HAT +3.55'),
			insert('P04'),
			dimension('24 750')
		]);
		const found = (await compareDrawings(before, after)).map((c) => [c.kind, c.type, ...c.what]);
		expect(found).toHaveLength(4);
		expect(found).toEqual(
			expect.arrayContaining([
				['edited', 'LINE', { property: 'layer', before: 'STEEL', after: 'HIDDEN' }],
				['edited', 'TEXT', { property: 'text', before: 'HAT +3.40', after: 'HAT +3.55' }],
				['edited', 'INSERT', { property: 'attribute REV', before: 'P03', after: 'P04' }],
				['edited', 'DIMENSION', { property: 'dimension text', before: '24 600', after: '24 750' }]
			])
		);
	});
	it('takes a centred text with other words for edited, though its first point moved with them', async () => {
		const [change, ...others] = await compareDrawings(
			drawing([text(50, 3, 'short', true)]),
			drawing([text(50, 3, 'a longer text', true)])
		);
		expect(others).toEqual([]);
		expect(change).toMatchObject({ kind: 'edited', what: [{ property: 'text' }] });
	});
	it('says how far a thing was moved', async () => {
		const [change] = await compareDrawings(
			drawing([circle(0, 0, 7), circle(100, 0, 7)]),
			drawing([circle(0, 0, 7), circle(100, 150, 7)])
		);
		expect(change).toMatchObject({
			kind: 'moved',
			what: [{ property: 'place', before: '100, 0', after: '100, 150' }],
			box: [93, 143, 107, 157],
			boxBefore: [93, -7, 107, 7]
		});
	});
	it('takes a line with one end elsewhere and a circle with another radius for edited', async () => {
		const found = await compareDrawings(
			drawing([line(0, 0, 100, 0), circle(50, 50, 5)]),
			drawing([line(0, 0, 120, 0), circle(50, 50, 6)])
		);
		expect(found.map((c) => [c.kind, c.type, c.what[0]?.property])).toEqual(
			expect.arrayContaining([
				['edited', 'LINE', 'form'],
				['edited', 'CIRCLE', 'form']
			])
		);
		expect(found).toHaveLength(2);
	});
	it('finds a block that was edited at its insertions', async () => {
		const found = await compareDrawings(
			drawing([insert('P01')], block(line(0, 0, 5, 5))),
			drawing([insert('P01')], block(line(0, 0, 5, 6)))
		);
		expect(found).toMatchObject([
			{ kind: 'edited', type: 'INSERT', what: [{ property: 'content of the block' }] }
		]);
	});
	it('finds every planted addition and removal in any drawing, and invents none', async () => {
		const n = fc.integer({ min: 0, max: 400 });
		const cross = fc.tuple(n, n);
		await fc.assert(
			fc.asyncProperty(
				fc.uniqueArray(cross, { maxLength: 40, selector: String }),
				fc.uniqueArray(cross, { maxLength: 6, selector: String }),
				fc.nat(5),
				async (kept, more, cut) => {
					const stays = kept.map(([x, y]) => circle(x, y, 3));
					const gone = kept.slice(0, cut).map(([x, y]) => text(x + 1000, y, `gone ${x}`));
					const fresh = more.map(([x, y]) => line(x, y, x + 7, y + 3000, 'NEW'));
					const found = await compareDrawings(
						drawing([...gone, ...stays]),
						drawing([...stays, ...fresh].reverse())
					);
					expect(found.filter((c) => c.kind === 'removed')).toHaveLength(gone.length);
					expect(found.filter((c) => c.kind === 'added')).toHaveLength(fresh.length);
					expect(found).toHaveLength(gone.length + fresh.length);
				}
			),
			{ numRuns: 60 }
		);
	});
});

describe('comparing drawings that have nothing in common', () => {
	it('lists every entity, however many', async () => {
		const many = 150_000;
		const side = (type: string, prints: Float64Array) => ({
			readings: () => [{ name: null, prints }],
			items: (_: number, which: readonly number[]) =>
				which.map((at) => ({
					at,
					type,
					layer: 'STEEL',
					points: [[at, type.length]] as [number, number][],
					numbers: [],
					form: type,
					geometry: `${type} ${at}`,
					properties: new Map([['layer', 'STEEL']]),
					whole: `${type} ${at}`
				})),
			boxes: (_: number, which: readonly number[]) =>
				which.map((at): [number, number, number, number] => [at, 0, at, 0])
		});
		const prints = Float64Array.from({ length: many }, (_, i) => i);
		const found = await compareDrawings(side('POINT', prints), side('LINE', new Float64Array()));
		expect(found).toHaveLength(many);
	});
});

describe('comparing sheets that drawings are laid out on', () => {
	const onPaper = (says: string) => g(0, 'TEXT', ...own('FRAME'), 67, 1, 10, 5, 20, 5, 40, 2.5, 1, says);

	it('tells on which page something changed, and where', async () => {
		const found = await compareDrawings(
			drawing([line(0, 0, 10, 0), onPaper('P02')]),
			drawing([line(0, 0, 20, 0), onPaper('P03')])
		);
		expect(found.map((c) => [c.page, c.type, c.kind])).toEqual([
			[1, 'LINE', 'edited'],
			[2, 'TEXT', 'edited']
		]);
		expect(found[1]!.box[0]).toBe(5);
	});

	it('takes a sheet that is gone for a page after the others', async () => {
		const found = await compareDrawings(
			drawing([line(0, 0, 1, 0), onPaper('P02')]),
			drawing([line(0, 0, 1, 0)])
		);
		expect(found.map((c) => [c.page, c.kind])).toEqual([[2, 'removed']]);
	});
});
