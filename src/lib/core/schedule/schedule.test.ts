import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { arranged, AS_IT_IS, keptLook, lookText, totalOf, type Look } from './arrange';
import {
	cellFault,
	cellFrom,
	cellInColumn,
	cellKey,
	cellShown,
	cellText,
	countedOn,
	decimalsOf,
	faultsOf
} from './cell';
import { columnSchema, inOrder, type Column, type ColumnFields, type Row } from './column';
import { pastedCells, rulesTable, scheduleFrom, scheduleLosses, tableOf } from './exchange';
import { asCells, columnLetters, Formulas } from './formula';
import {
	addColumn,
	addRows,
	changeColumn,
	moveColumn,
	moveRows,
	readSchedule,
	removeColumn,
	removeRows,
	rewriteSchedule,
	ScheduleReader,
	seedSchedule,
	setCells
} from './shared';

let made = 0;
const newId = () => `id${String(++made).padStart(6, '0')}`;
const fields = (name: string, more: Partial<ColumnFields> = {}): ColumnFields =>
	columnSchema.parse({ name, ...more });
const column = (name: string, more: Partial<ColumnFields> = {}): Column => ({
	...fields(name, more),
	id: name.toLowerCase().replace(/\W/g, '') + 'xxxx',
	order: name
});
const number = column('Length', { kind: 'number', unit: 'm', least: 0, most: 40 });

describe('cells', () => {
	it.each([
		['1,250.5', 1250.5],
		['1 250.5 m', 1250.5],
		['12,5', 12.5],
		['−3', -3],
		['  7 ', 7],
		['1.2e3', 1200],
		['about 7', 'about 7'],
		['1,25,0', '1,25,0']
	])('a number typed as “%s” is %s', (typed, value) => expect(cellFrom(number, typed)).toBe(value));

	it.each([
		['25.11.2026', '2026-11-25'],
		['25/11/2026', '2026-11-25'],
		['5 Nov 2026', '2026-11-05'],
		['25 November 2026', '2026-11-25'],
		['2026-11-25', '2026-11-25'],
		['31.11.2026', '31.11.2026'],
		['soon', 'soon']
	])('a day typed as “%s” is %s', (typed, value) =>
		expect(cellFrom(column('Due', { kind: 'date' }), typed)).toBe(value)
	);

	it('what does not fit is kept, and said', () => {
		expect(cellFault(number, 'about 7')).toBe('“about 7” is no number.');
		expect(cellFault(number, 41)).toBe('At most 40 m.');
		expect(cellFault(number, -1)).toBe('At least 0 m.');
		expect(cellFault(number, 12)).toBeNull();
		const choice = column('Fire', { kind: 'choice', choices: ['EI 30', 'EI 60'] });
		expect(cellFrom(choice, 'ei 60')).toBe('EI 60');
		expect(cellFault(choice, 'EI 90')).toBe('“EI 90” is none of EI 30, EI 60.');
		const form = column('Mark', { form: 'D-###*' });
		expect(cellFault(form, 'D-012a')).toBeNull();
		expect(cellFault(form, 'E-012')).toContain('D-###*');
	});

	it('a form that would take long to try is none', () => {
		expect(columnSchema.safeParse({ name: 'Mark', form: '*a*' }).success).toBe(true);
		expect(columnSchema.safeParse({ name: 'Mark', form: '*a*a*b' }).success).toBe(false);
	});

	it('any number is read again as it was written', () => {
		fc.assert(
			fc.property(fc.double({ noNaN: true, min: -1e300, max: 1e300 }), (n) => {
				const kept = Number(n.toPrecision(15));
				expect(cellFrom({ kind: 'number', unit: '', choices: [] }, cellText(kept))).toBe(
					kept === 0 ? 0 : kept
				);
			})
		);
		expect(cellShown(number, 12345.5)).toBe('12\u202f345.5 m');
		expect(cellShown(number, -1)).toBe('−1 m');
		expect(decimalsOf([1, 2.5, -3.25, 1 / 3, 'x', null])).toBe(2);
		expect(cellInColumn(number, 12345.5, 2)).toBe('12\u202f345.50');
		expect(cellShown(column('Due', { kind: 'date' }), '2026-11-05')).toBe('5 Nov 2026');
	});

	it('counts on by the figures at the end', () => {
		expect([countedOn('D-099', 2), countedOn(7, 3), countedOn('door', 1), countedOn(null, 1)]).toEqual([
			'D-101',
			10,
			'door',
			null
		]);
	});

	it('rules over a column: what is empty and what stands twice', () => {
		const mark = column('Mark', { required: true, unique: true });
		const row = (id: string, cells: Row['cells']): Row => ({ id, order: id, cells });
		const faults = faultsOf({
			columns: [mark, number],
			rows: [
				row('a', { [mark.id]: 'P1' }),
				row('b', { [number.id]: 3 }),
				row('c', { [mark.id]: 'p1' }),
				row('d', {})
			]
		});
		expect([...faults]).toEqual([
			[cellKey('b', mark.id), 'Mark must not be empty.'],
			[cellKey('c', mark.id), '“p1” stands in row 1 too.'],
			[cellKey('a', mark.id), '“P1” stands in row 3 too.']
		]);
	});
});

describe('formulas', () => {
	const count = column('Count', { kind: 'number' });
	const row = (cells: Row['cells']): Row => ({ id: 'r', order: 'a', cells });
	const work = (formula: string, cells: Row['cells'], ...more: Column[]) => {
		const result = column('Result', { kind: 'formula', formula });
		return new Formulas([number, count, ...more, result]).of(row(cells), result);
	};

	it('work with what stands in the row', () => {
		const cells = { [number.id]: 12.5, [count.id]: 4 };
		expect(work('[Length] * [Count]', cells)).toEqual({ value: 50 });
		expect(work('ROUND([Length] / 3, 1)', cells)).toEqual({ value: 4.2 });
		expect(work('IF([Count] > 3, "many", "few")', cells)).toEqual({ value: 'many' });
		expect(work('[Count] = 4', cells)).toEqual({ value: 'yes' });
		expect(work('', cells)).toEqual({ value: null });
	});

	it('of formulas too, but never round and round', () => {
		const whole = column('Whole', { kind: 'formula', formula: '[Length] * [Count]' });
		expect(work('[Whole] / 2', { [number.id]: 3, [count.id]: 4 }, whole)).toEqual({ value: 6 });
		expect(work('[Result] + 1', {})).toEqual({ fault: 'Result leads back to itself.' });
	});

	it.each([
		['[Lenght] * 2', 'There is no column “Lenght”.'],
		['[Length] /', 'It cannot be read as a formula.'],
		['[Length] / 0', 'It divides by nothing.'],
		['NOSUCH([Length])', 'It names a function that there is not.'],
		['RAND()', 'A formula works with what stands in its row only.']
	])('%s says what is wrong', (formula, fault) =>
		expect(work(formula, { [number.id]: 1 })).toEqual({ fault })
	);

	it('are written as spreadsheets read them', () => {
		expect(asCells('[Count] * ROUND([Length], 1)', [number, count], 7)).toBe('B7 * ROUND(A7, 1)');
		expect(asCells('[Gone]', [number], 7)).toBeNull();
		expect([0, 25, 26, 701, 702].map(columnLetters)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA']);
	});
});

describe('arranging', () => {
	it('sorts numbers as numbers, names with figures by their figures, empty ones last; filters; adds up', () => {
		const mark = column('Mark');
		const rows = ['P10', 'P9', '', 'P1'].map((m, i): Row => ({
			id: `r${i}`,
			order: String(i),
			cells: { ...(m ? { [mark.id]: m } : {}), [number.id]: i }
		}));
		const formulas = new Formulas([mark, number]);
		const say = (descending: boolean) =>
			arranged(rows, [mark, number], { sort: { column: mark.id, descending }, filters: {} }, formulas).map(
				(r) => r.cells[mark.id] ?? '–'
			);
		expect(say(false)).toEqual(['P1', 'P9', 'P10', '–']);
		expect(say(true)).toEqual(['P10', 'P9', 'P1', '–']);
		const has = { sort: null, filters: { [mark.id]: { has: '1' } } };
		expect(arranged(rows, [mark, number], has, formulas)).toHaveLength(2);
		expect(
			(['sum', 'count', 'mean', 'least', 'most'] as const).map((t) => totalOf(rows, number, formulas, t))
		).toEqual([6, 4, 1.5, 0, 3]);
	});

	it('is kept as text; what speaks of columns that are gone is left out, and what is no look is none', () => {
		const look: Look = {
			arrangement: {
				sort: { column: 'a', descending: true },
				filters: { a: { has: 'pile' }, b: { oneOf: ['Open', 'Done'] } }
			},
			frozen: 2
		};
		expect(keptLook(lookText(look), [{ id: 'a' }, { id: 'b' }])).toEqual(look);
		expect(keptLook(lookText(look), [{ id: 'b' }])).toEqual({
			arrangement: { sort: null, filters: { b: { oneOf: ['Open', 'Done'] } } },
			frozen: 1
		});
		for (const strange of [null, '', '{', '[]', '{"sort":1}', '{"sort":null,"filters":{"a":{}},"frozen":1}'])
			expect(keptLook(strange, [{ id: 'a' }])).toEqual(AS_IT_IS);
		fc.assert(fc.property(fc.json(), (text) => keptLook(text, [{ id: 'a' }]).frozen >= 0));
	});
});

describe('exchange', () => {
	it('finds kinds that fit what stands in a sheet, and keeps names that begin with a nought', () => {
		const rows = Array.from({ length: 12 }, (_, i) => [
			`0${i}`,
			String(i * 1.5),
			`2026-11-${String(i + 1).padStart(2, '0')}`,
			i % 2 ? 'steel' : 'concrete',
			`VFT-MW-LS-00-DR-01${String(i).padStart(2, '0')}`
		]);
		const taken = scheduleFrom([
			{ name: 'Piles', rows: [['Pile', 'Length', 'Driven', 'Kind', 'Drawing'], ...rows] }
		]);
		expect(taken.columns.map((c) => c.kind)).toEqual(['text', 'number', 'date', 'choice', 'document']);
		expect(taken.rows[3]).toEqual(['03', 4.5, '2026-11-04', 'steel', 'VFT-MW-LS-00-DR-0103']);
		expect(taken.losses).toEqual([]);
	});

	it('what the columns demand comes back from the file', () => {
		const doc = new Y.Doc();
		const given = [
			fields('Mark', { form: 'D-###', required: true, unique: true }),
			fields('Width', { kind: 'number', unit: 'mm', least: 600, total: 'mean' }),
			fields('Fire', { kind: 'choice', choices: ['EI 30', 'EI 60'] }),
			fields('Twice', { kind: 'formula', formula: '[Width] * 2', unit: 'mm' })
		];
		seedSchedule(
			doc,
			{
				columns: given,
				rows: [
					['D-001', 900, 'EI 30', null],
					['D-002', null, 'EI 60', null]
				]
			},
			newId
		);
		const schedule = readSchedule(doc);
		const taken = scheduleFrom([
			{ name: 'Doors', rows: tableOf(schedule) },
			{ name: 'Columns', rows: rulesTable(schedule.columns) }
		]);
		expect(taken.columns).toEqual(given);
		expect(taken.rows).toEqual([
			['D-001', 900, 'EI 30', null],
			['D-002', null, 'EI 60', null]
		]);
		expect(scheduleLosses(schedule, 'csv')).toHaveLength(2);
		expect(scheduleLosses(schedule, 'xlsx')).toEqual([]);
	});

	it('says what of a file stays behind', () => {
		const taken = scheduleFrom([
			{
				name: 'A',
				rows: [['Door list of the terminal'], ['Mark', 'Width'], ['D-001', '900'], ['D-002', '800']]
			},
			{ name: 'B', rows: [['x', 'y']] }
		]);
		expect(taken.losses).toEqual([
			'Only the sheet “A” comes along; “B” stay in the file.',
			'What stands above the headings stays in the file.'
		]);
	});

	it('pasting fits what comes to the columns and passes over formulas', () => {
		const columns = [column('Mark'), number, column('Twice', { kind: 'formula' })];
		expect(
			pastedCells(columns, 0, [
				['D-1', '7,5', '9', 'beyond'],
				['', '']
			])
		).toEqual([
			{ [columns[0]!.id]: 'D-1', [number.id]: 7.5 },
			{ [columns[0]!.id]: null, [number.id]: null }
		]);
	});
});

/** A schedule on several sides that work apart and meet. */
function sides(count: number): Y.Doc[] {
	const first = new Y.Doc();
	seedSchedule(
		first,
		{
			columns: [fields('Mark'), fields('Width', { kind: 'number' })],
			rows: [
				['D1', 1],
				['D2', 2],
				['D3', 3]
			]
		},
		newId
	);
	return Array.from({ length: count }, () => {
		const doc = new Y.Doc();
		Y.applyUpdate(doc, Y.encodeStateAsUpdate(first));
		return doc;
	});
}
const meet = (a: Y.Doc, b: Y.Doc) => {
	Y.applyUpdate(a, Y.encodeStateAsUpdate(b, Y.encodeStateVector(a)));
	Y.applyUpdate(b, Y.encodeStateAsUpdate(a, Y.encodeStateVector(b)));
};
const saying = (doc: Y.Doc) => {
	const { columns, rows } = readSchedule(doc);
	return rows.map((r) => columns.map((c) => r.cells[c.id] ?? null));
};

describe('a shared schedule', () => {
	it('keeps both when two write in one row at one time, and both rows put in at one place', () => {
		const [a, b] = sides(2) as [Y.Doc, Y.Doc];
		const { columns, rows } = readSchedule(a);
		setCells(a, [{ row: rows[0]!.id, column: columns[0]!.id, value: 'D1a' }]);
		setCells(b, [{ row: rows[0]!.id, column: columns[1]!.id, value: 11 }]);
		addRows(a, rows, 1, [{ [columns[0]!.id]: 'from a' }], newId);
		addRows(b, rows, 1, [{ [columns[0]!.id]: 'from b' }], newId);
		meet(a, b);
		expect(saying(a)).toEqual(saying(b));
		expect(saying(a)).toContainEqual(['D1a', 11]);
		expect(saying(a).map(([mark]) => mark)).toEqual(['D1a', 'from a', 'from b', 'D2', 'D3']);
		// Two with the same place: what is put in behind them still finds one.
		const again = readSchedule(a).rows;
		addRows(a, again, 2, [{ [columns[0]!.id]: 'between' }], newId);
		expect(saying(a).map(([mark]) => mark)).toContain('between');
	});

	it('moves rows and columns, and takes columns away and back whole', () => {
		const [a] = sides(1) as [Y.Doc];
		const { columns, rows } = readSchedule(a);
		moveRows(a, rows, new Set([rows[2]!.id, rows[1]!.id]), 0);
		expect(saying(a).map(([mark]) => mark)).toEqual(['D2', 'D3', 'D1']);
		moveColumn(a, columns, columns[1]!.id, 0);
		expect(saying(a)[0]).toEqual([2, 'D2']);
		const undo = new Y.UndoManager([a.getMap('columns')]);
		removeColumn(a, columns[0]!.id);
		expect(saying(a)).toEqual([[2], [3], [1]]);
		undo.undo();
		expect(saying(a)[0]).toEqual([2, 'D2']);
		changeColumn(a, columns[0]!.id, { name: 'Number' });
		addColumn(a, readSchedule(a).columns, 1, fields('Between'), newId());
		expect(readSchedule(a).columns.map((c) => c.name)).toEqual(['Width', 'Between', 'Number']);
	});

	it('goes back to what it was, and passes over what is none', () => {
		const [a, b] = sides(2) as [Y.Doc, Y.Doc];
		const before = saying(a);
		const { columns, rows } = readSchedule(a);
		setCells(a, [{ row: rows[1]!.id, column: columns[0]!.id, value: null }]);
		removeRows(a, [rows[0]!.id]);
		addRows(a, readSchedule(a).rows, 0, [{}], newId);
		expect(saying(a)).not.toEqual(before);
		rewriteSchedule(a, b);
		expect(saying(a)).toEqual(before);
		a.getMap('rows').set('strange', 'no row');
		(a.getMap('rows').get(rows[0]!.id) as Y.Map<unknown>).set(columns[0]!.id, { no: 'cell' });
		expect(saying(a)[0]).toEqual([null, 1]);
	});

	it('converges after any histories with partitions, and readers keep step', () => {
		const act = fc.record({
			who: fc.nat(2),
			does: fc.constantFrom('set', 'set', 'empty', 'add', 'remove', 'move', 'column', 'rename', 'meet'),
			at: fc.nat(12),
			value: fc.nat(99)
		});
		fc.assert(
			fc.property(fc.array(act, { maxLength: 30 }), (history) => {
				const docs = sides(3);
				const readers = docs.map((doc) => new ScheduleReader(doc, () => {}));
				for (const { who, does, at, value } of history) {
					const doc = docs[who]!;
					const { columns, rows } = readSchedule(doc);
					const [row, col] = [rows[at % (rows.length || 1)], columns[at % (columns.length || 1)]];
					if (does === 'meet') meet(doc, docs[(who + 1) % 3]!);
					else if (does === 'add')
						addRows(doc, rows, at % (rows.length + 1), [col ? { [col.id]: value } : {}], newId);
					else if (does === 'column')
						addColumn(doc, columns, at % (columns.length + 1), fields(`C${value}`), newId());
					else if (!row || !col) continue;
					else if (does === 'set') setCells(doc, [{ row: row.id, column: col.id, value }]);
					else if (does === 'empty') setCells(doc, [{ row: row.id, column: col.id, value: null }]);
					else if (does === 'remove') removeRows(doc, [row.id]);
					else if (does === 'move') moveRows(doc, rows, new Set([row.id]), value % (rows.length + 1));
					else changeColumn(doc, col.id, { name: `N${value}` });
				}
				meet(docs[0]!, docs[1]!);
				meet(docs[1]!, docs[2]!);
				meet(docs[0]!, docs[1]!);
				for (const doc of docs) expect(readSchedule(doc)).toEqual(readSchedule(docs[0]!));
				docs.forEach((doc, i) => expect(readers[i]!.schedule).toEqual(readSchedule(doc)));
				const { rows } = readSchedule(docs[0]!);
				expect(inOrder(rows)).toEqual(rows);
			}),
			{ numRuns: 1_000 }
		);
	});
});

describe('a file of somebody else as a schedule', () => {
	const cell = fc.oneof(
		fc.constantFrom(
			'',
			' ',
			'1',
			'2',
			'0.5',
			'2026-11-27',
			'Pile',
			'Pile 2',
			'VFT-MW-LS-00-DR-0101',
			'\u00a0'
		),
		fc.string({ maxLength: 12 })
	);
	const table = fc.array(fc.array(cell, { maxLength: 6 }), { maxLength: 12 });

	it('is taken whatever stands in it, with a name of its own for every column', () => {
		fc.assert(
			fc.property(table, (rows) => {
				const { columns } = scheduleFrom([{ name: 'Sheet', rows }]);
				expect(columns.every((c) => c.name.trim() !== '')).toBe(true);
			}),
			{ numRuns: 500 }
		);
		const { columns } = scheduleFrom([
			{
				name: 'Sheet',
				rows: [
					['', '', 'A'],
					['1', '2', '3']
				]
			}
		]);
		expect(new Set(columns.map((c) => c.name)).size).toBe(3);
	});
});
