import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnLetter, compareTables, headed, keyColumns, type Table } from './tables';

const COLUMNS = ['Door', 'Width', 'Fire rating', 'Note'];
const cell: fc.Arbitrary<string> = fc.constantFrom('', '900', '1 000', 'EI 30', 'to be agreed');
/** A schedule of doors: marks tell the rows apart, everything else is as it comes. */
const schedule = fc
	.uniqueArray(fc.integer({ min: 1, max: 60 }), { minLength: 4, maxLength: 14 })
	.chain((marks) =>
		fc.tuple(
			...marks.map((mark) =>
				fc.tuple(fc.constant<string>(`D-${mark}`), cell, cell, cell).map((row) => [...row])
			)
		)
	);
const table = (rows: string[][], name = 'Doors'): Table => ({ name, rows: [COLUMNS, ...rows] });

describe('comparing schedules', () => {
	it('finds nothing between a schedule and itself, in whatever order its rows stand', () => {
		fc.assert(
			fc.property(
				schedule.chain((rows) =>
					fc.tuple(fc.constant(rows), fc.shuffledSubarray(rows, { minLength: rows.length }))
				),
				([rows, shuffled]) => {
					const [compared] = compareTables([table(rows)], [table(shuffled)]);
					expect(compared).toMatchObject({ kind: 'same', key: 'Door', changes: 0 });
				}
			)
		);
	});

	it('finds exactly what was taken out, put in and written over, and every row once', () => {
		fc.assert(
			fc.property(
				schedule,
				fc.array(fc.tuple(fc.nat(13), fc.integer({ min: 1, max: 3 }), fc.constantFrom('new', 'newer')), {
					maxLength: 5
				}),
				fc.array(fc.nat(13), { maxLength: 2 }),
				fc.array(fc.tuple(fc.nat(13), fc.integer({ min: 100, max: 140 })), { maxLength: 3 }),
				(rows, written, out, added) => {
					const gone = new Set(out.map((i) => rows[i % rows.length]![0]!));
					const after = rows.filter((row) => !gone.has(row[0]!)).map((row) => [...row]);
					fc.pre(after.length > 2);
					const touched = new Set<string>();
					for (const [at, column, words] of written) {
						const row = after[at % after.length]!;
						row[column] = words;
						touched.add(row[0]!);
					}
					const put = new Set<string>();
					for (const [at, mark] of added) {
						if (put.has(`D-${mark}`)) continue;
						put.add(`D-${mark}`);
						after.splice(at % after.length, 0, [`D-${mark}`, '1', '2', '3']);
					}
					const [compared] = compareTables([table(rows)], [table(after)]);
					const of = (kind: string) =>
						compared!.rows
							.filter((row) => row.kind === kind)
							.map((row) => row.key)
							.sort();
					expect(of('removed')).toEqual([...gone].sort());
					expect(of('added')).toEqual([...put].sort());
					expect(of('changed')).toEqual([...touched].sort());
					expect(compared!.rows).toHaveLength(rows.length + put.size);
					expect(compared!.changes).toBe(gone.size + put.size + touched.size);
					for (const row of compared!.rows)
						if (row.kind === 'changed')
							expect(row.cells.some((c) => typeof c === 'object' && c.after.startsWith('new'))).toBe(true);
				}
			)
		);
	});

	it('tells columns that came and went, and does not call their cells changed', () => {
		const before = {
			name: 'Doors',
			rows: [
				['Door', 'Width'],
				['D-1', '900'],
				['D-2', '800']
			]
		};
		const after = {
			name: 'Doors',
			rows: [
				['Door', 'Height'],
				['D-1', '2100'],
				['D-2', '2100']
			]
		};
		const [compared] = compareTables([before], [after]);
		expect(compared!.columns).toEqual([
			{ name: 'Door', kind: 'same' },
			{ name: 'Height', kind: 'added' },
			{ name: 'Width', kind: 'removed' }
		]);
		expect(compared!.rows.map((row) => [row.kind, row.cells])).toEqual([
			['same', ['D-1', '2100', '900']],
			['same', ['D-2', '2100', '800']]
		]);
		expect(compared!.changes).toBe(2);
	});

	it('compares in order where nothing tells rows apart, and a single sheet under a new name with itself', () => {
		const rows = [
			['Colour', 'Finish'],
			['red', 'matt'],
			['red', 'matt'],
			['blue', 'gloss']
		];
		const [compared] = compareTables(
			[{ name: 'Sheet1', rows }],
			[{ name: 'Finishes', rows: rows.map((row, i) => (i === 2 ? ['green', 'matt'] : row)) }]
		);
		expect(compared).toMatchObject({ name: 'Finishes', key: null, changes: 1 });
		expect(compared!.rows[1]).toMatchObject({
			kind: 'changed',
			cells: [{ before: 'red', after: 'green' }, 'matt']
		});
	});

	it('tells whole sheets that came and went', () => {
		const one = table([['D-1', '900', '', '']], 'Ground floor');
		const two = table([['D-9', '800', '', '']], 'First floor');
		const compared = compareTables([one, two], [one, { ...two, name: 'Second floor' }]);
		expect(compared.map((t) => [t.name, t.kind])).toEqual([
			['Ground floor', 'same'],
			['First floor', 'removed'],
			['Second floor', 'added']
		]);
	});
});

describe('headings', () => {
	it('are looked for under what stands above a schedule, and are told apart when they are alike', () => {
		const { columns, rows } = headed({
			name: 'Piles',
			rows: [
				['Vennholm Ferry Terminal'],
				[],
				['Pile', 'Level', 'Level', ''],
				['P-01', '-3.2', '-19.8', 'x'],
				['', '', '', ''],
				['P-02', '-3.1', '-20.4', '']
			]
		});
		expect(columns).toEqual(['Pile', 'Level', 'Level 2', 'D']);
		expect(rows.map((row) => row[0])).toEqual(['P-01', 'P-02']);
	});
	it('of a key have no gap and nothing twice in either schedule; the one with most in common is first', () => {
		const a = {
			name: 'x',
			rows: [
				['Serial', 'Pile', 'Note'],
				['1', 'P-01', 'a'],
				['2', 'P-02', 'a']
			]
		};
		const b = {
			name: 'x',
			rows: [
				['Serial', 'Pile', 'Note'],
				['8', 'P-01', 'a'],
				['9', 'P-03', 'b']
			]
		};
		expect(keyColumns(a, b)).toEqual(['Pile', 'Serial']);
	});
	it('without words are letters, as sheets count them', () => {
		expect([0, 25, 26, 51, 52, 701, 702].map(columnLetter)).toEqual([
			'A',
			'Z',
			'AA',
			'AZ',
			'BA',
			'ZZ',
			'AAA'
		]);
	});
});
