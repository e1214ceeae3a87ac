import fc from 'fast-check';
import { columnSchema, type CellValue, type ColumnFields } from '../../src/lib/core/schedule/column';

const words = fc
	.array(
		fc.constantFrom('pile', '007', '12', 'Ø600', 'a<b>&"c"', '=1+1', '-x', 'größer', '桟橋', "it's", '@'),
		{
			minLength: 1,
			maxLength: 3
		}
	)
	.chain((list) => fc.constantFrom(' ', '  ', '\n', ', ').map((between) => list.join(between)));
const number = fc.oneof(
	fc.integer({ min: -1_000_000, max: 1_000_000 }),
	fc.integer({ min: -10_000, max: 10_000 }).map((n) => n / 1_000)
);
const day = fc
	.integer({ min: 0, max: 20_000 })
	.map((n) => new Date(n * 86_400_000).toISOString().slice(0, 10));
/** What columns of each kind hold, among it what breaks their rules, which is kept as it was typed. */
const HOLDS: Record<'text' | 'number' | 'date' | 'choice' | 'document', fc.Arbitrary<CellValue>> = {
	text: words,
	number: fc.oneof({ weight: 6, arbitrary: number }, { weight: 1, arbitrary: fc.constant('about 7') }),
	date: fc.oneof({ weight: 6, arbitrary: day }, { weight: 1, arbitrary: fc.constant('soon') }),
	choice: fc.constantFrom('EI 30', 'EI 60', 'none of them'),
	document: fc.constantFrom('VFT-MW-LS-00-DR-0101', 'VFT-ST-TB-00-CA-0001')
};
const column = fc.record({
	kind: fc.constantFrom('text', 'number', 'date', 'choice', 'document' as const),
	unit: fc.constantFrom('', 'm', 'kN/m²'),
	required: fc.boolean(),
	unique: fc.boolean(),
	total: fc.constantFrom('none', 'count' as const),
	least: fc.option(fc.integer({ min: -5, max: 5 }))
});
export interface Given {
	columns: ColumnFields[];
	rows: (CellValue | null)[][];
}
/** Schedules whose first column names the rows, as they do, and whose last is worked out. */
export const anySchedule: fc.Arbitrary<Given> = fc
	.array(column, { minLength: 1, maxLength: 4 })
	.chain((made) => {
		const columns = [
			columnSchema.parse({ name: 'Mark', form: 'D-*' }),
			...made.map((fields, i) =>
				columnSchema.parse({
					...fields,
					name: `Column ${i + 1} <${fields.kind}>`,
					choices: fields.kind === 'choice' ? ['EI 30', 'EI 60'] : []
				})
			),
			columnSchema.parse({ name: 'Half', kind: 'formula', formula: 'LEN([Mark]) / 2', total: 'sum' })
		];
		const cells = made.map(({ kind }) => fc.option(HOLDS[kind]));
		return fc.array(fc.tuple(...cells), { minLength: 1, maxLength: 8 }).map((rows) => ({
			columns,
			rows: rows.map((row, i) => [`D-${i + 1}`, ...row, null])
		}));
	});
