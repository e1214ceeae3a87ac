import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Awareness } from 'y-protocols/awareness';
import * as Y from 'yjs';
import { columnSchema, type CellValue } from '../../core/schedule/column';
import { seedSchedule } from '../../core/schedule/shared';
import { Grid } from './grid.svelte';
import { newId } from './new-id';

/** Documents of rooms that grids open here, in turn; what goes over the line is tried against a real server. */
const rooms: Y.Doc[] = [];
vi.mock('./line.svelte', () => ({
	LiveLine: class {
		readonly doc = rooms.shift()!;
		readonly awareness = new Awareness(this.doc);
		ready = () => Promise.resolve();
		close = () => this.awareness.destroy();
	}
}));
afterEach(() => localStorage.clear());

const COLUMNS = [
	columnSchema.parse({ name: 'Mark', form: 'P-##' }),
	columnSchema.parse({ name: 'Length', kind: 'number', unit: 'm', most: 40, total: 'sum' }),
	columnSchema.parse({ name: 'Twice', kind: 'formula', formula: '[Length] * 2' })
];
const ROWS: (CellValue | null)[][] = [
	['P-01', 12, null],
	['P-02', 15, null],
	['P-03', 9, null]
];
function seeded(): Y.Doc {
	const doc = new Y.Doc();
	seedSchedule(doc, { columns: COLUMNS, rows: ROWS }, newId);
	return doc;
}
/** What changed in a moment is taken once, at its end. */
const moment = () => new Promise((done) => setTimeout(done));
async function opened(doc = seeded(), mayWrite = true): Promise<Grid> {
	rooms.push(doc);
	const grid = new Grid('schedules/x', { id: 'p1', name: 'Oke Lindvar' }, () => mayWrite);
	await moment();
	expect(grid.opened).toBe(true);
	return grid;
}
/** What a grid shows, a row each. */
const shown = (grid: Grid) =>
	grid.rows.map((row) =>
		grid.columns.map((column) => {
			const worked = grid.worked(row, column);
			return 'fault' in worked ? worked.fault : worked.value;
		})
	);
const at = (grid: Grid, row: number, column: number) => ({
	row: grid.rows[row]!.id,
	column: grid.columns[column]!.id
});

describe('a schedule on screen', () => {
	it('keeps what is typed, works it out, and says what breaks a rule', async () => {
		const grid = await opened();
		grid.choose(at(grid, 1, 1));
		grid.edit('41,5');
		grid.commit();
		expect(shown(grid)[1]).toEqual(['P-02', 41.5, 83]);
		expect(grid.faultOf(grid.rows[1]!, grid.columns[1]!)).toBe('At most 40 m.');
		expect(grid.total(grid.columns[1]!)).toBe(62.5);
		grid.choose(null);
		expect(grid.nextFault()).toBe(true);
		expect(grid.cursor).toEqual(at(grid, 1, 1));
		grid.undo();
		await moment();
		expect(shown(grid)[1]).toEqual(['P-02', 15, 30]);
		expect(grid.nextFault()).toBe(false);
	});

	it('does not type into what is worked out, and nothing where one only reads', async () => {
		const grid = await opened();
		grid.choose(at(grid, 0, 2));
		grid.edit('7');
		expect(grid.editing).toBeNull();
		const reader = await opened(seeded(), false);
		reader.choose(at(reader, 0, 0));
		reader.edit('x');
		expect(reader.editing).toBeNull();
		reader.clear();
		reader.paste([['x']]);
		reader.insert(2, 'end');
		reader.removeChosen();
		expect(shown(reader)).toHaveLength(3);
		expect(shown(reader)[0]![0]).toBe('P-01');
	});

	it('pastes over rows and beyond the last, and one value over everything that is chosen', async () => {
		const grid = await opened();
		grid.choose(at(grid, 2, 0));
		expect(
			grid.paste([
				['P-13', '1', 'no formula is pasted over'],
				['P-14', '2'],
				['P-15', 'about 3']
			])
		).toBe(2);
		expect(shown(grid).slice(2)).toEqual([
			['P-13', 1, 2],
			['P-14', 2, 4],
			['P-15', 'about 3', expect.any(String)]
		]);
		grid.undo();
		await moment();
		expect(shown(grid)).toHaveLength(3);
		grid.choose(at(grid, 0, 1));
		grid.choose(at(grid, 2, 1), true);
		expect(grid.paste([['5']])).toBe(0);
		expect(shown(grid).map((row) => row[1])).toEqual([5, 5, 5]);
		expect(grid.copied()).toEqual([['5'], ['5'], ['5']]);
	});

	it('fills down, the same or counting on', async () => {
		const grid = await opened();
		grid.choose(at(grid, 0, 0));
		grid.choose(at(grid, 2, 1), true);
		grid.fillDown(true);
		expect(shown(grid).map((row) => row.slice(0, 2))).toEqual([
			['P-01', 12],
			['P-02', 13],
			['P-03', 14]
		]);
		grid.fillDown(false);
		expect(shown(grid).map((row) => row[0])).toEqual(['P-01', 'P-01', 'P-01']);
	});

	it('puts rows in, moves and removes them where they are seen', async () => {
		const grid = await opened();
		grid.choose(at(grid, 1, 0));
		grid.insert(2, 'before');
		expect(shown(grid).map((row) => row[0])).toEqual(['P-01', null, null, 'P-02', 'P-03']);
		expect(grid.chosen).toMatchObject({ row: 1, column: 0 });
		grid.choose(at(grid, 3, 0));
		grid.shift(-1);
		expect(shown(grid).map((row) => row[0])).toEqual(['P-01', null, 'P-02', null, 'P-03']);
		grid.sortBy(grid.columns[1]!.id, true);
		expect(shown(grid).map((row) => row[0])).toEqual(['P-02', 'P-01', 'P-03', null, null]);
		// In another order than their own, rows have no place to be moved to.
		grid.choose(at(grid, 0, 0));
		grid.shift(1);
		expect(shown(grid)[0]![0]).toBe('P-02');
		grid.choose(at(grid, 3, 0));
		grid.choose(at(grid, 4, 0), true);
		grid.removeChosen();
		expect(shown(grid).map((row) => row[0])).toEqual(['P-02', 'P-01', 'P-03']);
		expect(grid.cursor).toEqual(at(grid, 2, 0));
	});

	it('removes and fills only what a filter leaves in sight', async () => {
		const grid = await opened();
		grid.filter(grid.columns[1]!.id, { has: '1' });
		expect(shown(grid).map((row) => row[0])).toEqual(['P-01', 'P-02']);
		expect(grid.filtered).toBe(true);
		expect(grid.total(grid.columns[1]!)).toBe(27);
		grid.chooseAll();
		grid.clear();
		grid.filter(grid.columns[1]!.id, null);
		expect(shown(grid)).toEqual([
			[null, null, expect.anything()],
			[null, null, expect.anything()],
			['P-03', 9, 18]
		]);
	});

	it('is found again as one looked at it', async () => {
		const doc = seeded();
		const first = await opened(doc);
		first.sortBy(first.columns[0]!.id, true);
		first.freeze(2);
		first.filter(first.columns[1]!.id, { has: '1' });
		first.close();
		const again = await opened(doc);
		expect(shown(again).map((row) => row[0])).toEqual(['P-02', 'P-01']);
		expect(again.frozen).toBe(2);
	});

	it('reads typed words anew when a column becomes another kind', async () => {
		const grid = await opened();
		grid.choose(at(grid, 0, 0));
		grid.edit('7,5 m');
		grid.commit();
		grid.changeColumn(grid.columns[0]!, { kind: 'number', unit: 'm' });
		expect(shown(grid).map((row) => row[0])).toEqual([7.5, 'P-02', 'P-03']);
		grid.undo();
		await moment();
		expect(grid.columns[0]!.kind).toBe('text');
		expect(shown(grid)[0]![0]).toBe('7,5 m');
	});

	it('moves columns, and takes one away with what its cells hold', async () => {
		const grid = await opened();
		grid.moveColumn(grid.columns[1]!, -1);
		expect(grid.columns.map((c) => c.name)).toEqual(['Length', 'Mark', 'Twice']);
		grid.addColumn(1, columnSchema.parse({ name: 'Note' }));
		expect(grid.columns.map((c) => c.name)).toEqual(['Length', 'Note', 'Mark', 'Twice']);
		grid.removeColumn(grid.columns[0]!);
		expect(grid.columns.map((c) => c.name)).toEqual(['Note', 'Mark', 'Twice']);
		// What was worked out of it says so.
		expect(shown(grid)[0]![2]).toMatch(/Length/);
	});

	it('takes back one’s own doing only, whatever two did in whatever order', async () => {
		const act = fc.record({
			who: fc.nat(1),
			does: fc.constantFrom('type', 'clear', 'paste', 'fill', 'insert', 'remove', 'shift'),
			row: fc.nat(5),
			column: fc.nat(2),
			value: fc.nat(30)
		});
		await fc.assert(
			fc.asyncProperty(fc.array(act, { maxLength: 15 }), async (acts) => {
				const docs = [seeded(), new Y.Doc()];
				const meet = () => {
					for (const [from, to] of [docs, docs.toReversed()])
						Y.applyUpdate(to!, Y.encodeStateAsUpdate(from!, Y.encodeStateVector(to!)), 'others');
				};
				meet();
				const grids = [await opened(docs[0]), await opened(docs[1])];
				const settled = async () => {
					meet();
					await moment();
				};
				for (const { who, does, row, column, value } of acts) {
					const grid = grids[who]!;
					if (!grid.rows.length && does !== 'insert') continue;
					if (grid.rows.length) grid.choose(at(grid, row % grid.rows.length, column));
					if (does === 'type') {
						grid.edit(String(value));
						grid.commit();
					} else if (does === 'clear') grid.clear();
					else if (does === 'paste') grid.paste([[`P-${value}`, String(value)], ['x']]);
					else if (does === 'insert') grid.insert(1 + (value % 3), value % 2 ? 'before' : 'behind');
					else if (does === 'remove') grid.removeChosen();
					else if (does === 'shift') grid.shift(value % 2 ? 1 : -1);
					else {
						grid.step(value % 3, 0, true);
						grid.fillDown(value % 2 === 0);
					}
					await settled();
					expect(shown(grids[0]!)).toEqual(shown(grids[1]!));
				}
				// One alone takes everything back, and it is as it was before they began.
				if (acts.every(({ who }) => who === 0)) {
					while (grids[0]!.canUndo) grids[0]!.undo();
					await settled();
					expect(shown(grids[1]!).map((cells) => cells.slice(0, 2))).toEqual(
						ROWS.map((cells) => cells.slice(0, 2))
					);
				}
				grids.forEach((grid) => grid.close());
			}),
			{ numRuns: 60 }
		);
	});
});
