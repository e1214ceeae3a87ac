// @vitest-environment jsdom
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { cellText } from '../../src/lib/core/schedule/cell';
import { columnSchema, type CellValue, type ColumnFields } from '../../src/lib/core/schedule/column';
import { scheduleFrom, tableOf, type ScheduleFormat } from '../../src/lib/core/schedule/exchange';
import { readSchedule, seedSchedule } from '../../src/lib/core/schedule/shared';
import { MEDIA_TYPE } from '../../src/lib/server/formats/media';
import { writeScheduleTask } from '../../src/lib/server/formats/schedule/task';
import { readTables } from '../../src/lib/ui/read-office';

const words = fc
	.array(
		fc.constantFrom('pile', '007', '12', 'Ø600', 'a<b>&"c"', '=1+1', '-x', 'größer', '桟橋', "it's", '@'),
		{
			minLength: 1,
			maxLength: 3
		}
	)
	.chain((list) => fc.constantFrom(' ', '  ', '\n', ', ', '\t').map((between) => list.join(between)));
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
interface Given {
	columns: ColumnFields[];
	rows: (CellValue | null)[][];
}
/** Schedules whose first column names the rows, as they do, and whose last is worked out. */
const given: fc.Arbitrary<Given> = fc.array(column, { minLength: 1, maxLength: 4 }).chain((made) => {
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

async function roundTrip(schedule: Given, format: ScheduleFormat) {
	const doc = new Y.Doc();
	let made = 0;
	seedSchedule(doc, schedule, () => `id${String(++made).padStart(6, '0')}`);
	const held = readSchedule(doc);
	const about = { number: 'VFT-MW-LS-00-SH-0004', title: 'Piles' };
	const bytes = await writeScheduleTask({ task: 'schedule', schedule: held, about, format });
	const tables = await readTables(Uint8Array.from(bytes).buffer, MEDIA_TYPE[format], 'Piles');
	return { held, tables, taken: scheduleFrom(tables) };
}

describe('a live schedule that is taken as a file and brought in again', () => {
	for (const format of ['xlsx', 'ods'] as const)
		it(`is the same as ${format}, with what its columns demand`, async () => {
			await fc.assert(
				fc.asyncProperty(given, async (schedule) => {
					const { held, tables, taken } = await roundTrip(schedule, format);
					expect(taken).toEqual({ ...schedule, losses: [] });
					// What is worked out stands in the file as it is shown.
					expect(tables[0]!.rows).toEqual(
						tableOf(held).map((row) => row.slice(0, row.findLastIndex((cell) => cell !== '') + 1))
					);
				}),
				{ numRuns: 60 }
			);
		}, 60_000);

	it('says the same as CSV, but nothing that a spreadsheet would run', async () => {
		await fc.assert(
			fc.asyncProperty(given, async (schedule) => {
				const { held, tables } = await roundTrip(schedule, 'csv');
				const guarded = tables[0]!.rows.map((row) => row.map((cell) => cell.replace(/^'(?=[=+\-@\t])/, '')));
				expect(guarded).toEqual(tableOf(held).map((row) => row.map((cell) => cellText(cell))));
				for (const row of tables[0]!.rows)
					for (const cell of row) if (/^[=+\-@\t]/.test(cell)) expect(Number(cell)).not.toBeNaN();
			}),
			{ numRuns: 60 }
		);
	});
});
