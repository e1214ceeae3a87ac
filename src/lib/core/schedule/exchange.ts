import { headed, type Table } from '../compare/tables';
import { cellFrom, cellText } from './cell';
import {
	COLUMN_KINDS,
	columnSchema,
	MOST_COLUMNS,
	MOST_LETTERS,
	MOST_ROWS,
	TOTALS,
	type CellValue,
	type Column,
	type ColumnFields,
	type Schedule
} from './column';
import { Formulas } from './formula';
import { valueIn } from './arrange';
import type { GivenSchedule } from './shared';

/** Files that a live schedule can be written as. */
export const SCHEDULE_FORMATS = ['xlsx', 'ods', 'csv'] as const;
export type ScheduleFormat = (typeof SCHEDULE_FORMATS)[number];

/** The sheet on which a file keeps what the columns demand, so that people can read it and it comes back whole. */
export const RULES_SHEET = 'Columns';
const RULE_HEADS = [
	'Column',
	'Kind',
	'Unit',
	'Choices',
	'Required',
	'Unique',
	'Least',
	'Most',
	'Form',
	'Formula',
	'Total',
	'Width'
] as const;
const CHOICES_BETWEEN = '; ';

/** What the columns demand, as a sheet with one row a column. */
export function rulesTable(columns: readonly Column[]): string[][] {
	return [
		[...RULE_HEADS],
		...columns.map((c) => [
			c.name,
			c.kind,
			c.unit,
			c.choices.join(CHOICES_BETWEEN),
			c.required ? 'yes' : '',
			c.unique ? 'yes' : '',
			cellText(c.least),
			cellText(c.most),
			c.form,
			c.formula,
			c.total === 'none' ? '' : c.total,
			String(c.width)
		])
	];
}

/** Reads the sheet with the rules; null when it is another sheet of that name. */
function rulesFrom(table: Table): Map<string, ColumnFields> | null {
	const [head, ...rows] = table.rows;
	if (!head || RULE_HEADS.slice(0, 11).some((name, i) => head[i]?.trim() !== name)) return null;
	const found = new Map<string, ColumnFields>();
	for (const row of rows) {
		const cell = (i: number) => (row[i] ?? '').trim();
		const number = (i: number) => (cell(i) && Number.isFinite(Number(cell(i))) ? Number(cell(i)) : null);
		const read = columnSchema.safeParse({
			name: cell(0),
			kind: COLUMN_KINDS.find((k) => k === cell(1)) ?? 'text',
			unit: cell(2),
			choices: cell(3)
				.split(CHOICES_BETWEEN)
				.map((c) => c.trim())
				.filter(Boolean),
			required: cell(4) === 'yes',
			unique: cell(5) === 'yes',
			least: number(6),
			most: number(7),
			form: cell(8),
			formula: cell(9),
			total: TOTALS.find((t) => t === cell(10)) ?? 'none',
			width: Math.min(800, Math.max(40, Math.round(number(11) ?? 140)))
		});
		if (read.success) found.set(read.data.name, read.data);
	}
	return found;
}

/** Numbers of documents as projects write them: groups of capitals and figures with hyphens. */
const DOCUMENT_NUMBER = /^[A-Z0-9]{2,6}(-[A-Z0-9]{1,8}){3,8}$/;
/** A column is taken for a choice when at most so many different things stand in it, each about so often. */
const FEW = 12;
const OFTEN = 4;

function kindOf(values: string[]): Pick<ColumnFields, 'kind' | 'choices'> {
	const said = values.filter((v) => v !== '');
	const all = (fits: (value: string) => boolean) => said.length > 0 && said.every(fits);
	const read = (kind: 'number' | 'date', value: string) => cellFrom({ kind, unit: '', choices: [] }, value);
	// Figures that begin with a nought are names: a number would lose it.
	if (all((v) => !/^0\d/.test(v) && typeof read('number', v) === 'number'))
		return { kind: 'number', choices: [] };
	if (all((v) => /^\d{4}-\d{2}-\d{2}$/.test(String(read('date', v))))) return { kind: 'date', choices: [] };
	if (all((v) => DOCUMENT_NUMBER.test(v))) return { kind: 'document', choices: [] };
	const different = new Set(said);
	if (
		different.size > 1 &&
		different.size <= FEW &&
		said.length >= different.size * OFTEN &&
		all((v) => v.length <= 40)
	)
		return { kind: 'choice', choices: [...different].sort() };
	return { kind: 'text', choices: [] };
}

const widthFor = (name: string, values: string[]) => {
	const longest = values.slice(0, 200).reduce((most, v) => Math.max(most, v.length), name.length);
	return Math.min(320, Math.max(70, 24 + longest * 8));
};

/** What of a file a live schedule could not take, each as a sentence. */
export interface TakenSchedule extends GivenSchedule {
	losses: string[];
}

/**
 * A file's sheets as a live schedule: the first sheet, with the rules of its columns when the file has them, and else
 * with kinds that fit what stands in them.
 */
export function scheduleFrom(tables: readonly Table[]): TakenSchedule {
	const losses: string[] = [];
	const rules = tables.flatMap((t) => (t.name === RULES_SHEET ? (rulesFrom(t) ?? []) : [])).length
		? rulesFrom(tables.find((t) => t.name === RULES_SHEET)!)
		: null;
	const sheets = tables.filter((t) => !(rules && (t.name === RULES_SHEET || t.name === 'Totals')));
	const table = sheets[0] ?? { name: '', rows: [] };
	const { columns: names, rows } = headed(table);
	if (sheets.length > 1)
		losses.push(
			`Only the sheet “${table.name}” comes along; ${sheets
				.slice(1)
				.map((s) => `“${s.name}”`)
				.join(', ')} stay in the file.`
		);
	const above = table.rows.length - rows.length - 1;
	if (above > 0) losses.push('What stands above the headings stays in the file.');
	if (names.length > MOST_COLUMNS) losses.push(`Only the first ${MOST_COLUMNS} columns come along.`);
	if (rows.length > MOST_ROWS)
		losses.push(`Only the first ${MOST_ROWS.toLocaleString('en')} rows come along.`);
	// Rows that hold nothing part the rows of a sheet; in a schedule there is nothing to be filled in there.
	const kept = rows.filter((row) => row.some((cell) => cell.trim() !== '')).slice(0, MOST_ROWS);
	if (kept.some((row) => row.some((cell) => cell.length > MOST_LETTERS)))
		losses.push(`Cells are cut at ${MOST_LETTERS.toLocaleString('en')} letters.`);
	const columns = names.slice(0, MOST_COLUMNS).map((name, i) => {
		const values = kept.map((row) => (row[i] ?? '').trim());
		const given = rules?.get(name.trim());
		return (
			given ??
			columnSchema.parse({ name: name.slice(0, 80), ...kindOf(values), width: widthFor(name, values) })
		);
	});
	return {
		columns,
		rows: kept.map((row) =>
			columns.map((column, i) =>
				column.kind === 'formula' ? null : cellFrom(column, (row[i] ?? '').slice(0, MOST_LETTERS))
			)
		),
		losses
	};
}

/** A schedule as rows of text under its headings, formulas worked out; for CSV and for comparing. */
export function tableOf({ columns, rows }: Schedule): string[][] {
	const formulas = new Formulas(columns);
	return [
		columns.map((c) => c.name),
		...rows.map((row) => columns.map((column) => cellText(valueIn(row, column, formulas))))
	];
}

/** What a kind of file cannot hold of a schedule, each as a sentence; empty when everything is kept. */
export function scheduleLosses({ columns }: Schedule, format: ScheduleFormat): string[] {
	const found: string[] = [];
	if (format === 'csv') {
		if (columns.some((c) => c.kind === 'formula')) found.push('Formulas become what they give now.');
		found.push('Kinds, units, choices, rules and totals of the columns are left out.');
	}
	if (columns.some((c) => c.kind === 'document'))
		found.push('Links to documents become their numbers; they lead nowhere outside Cupboard.');
	return found;
}

/** Rows pasted from a sheet as text, fitted to columns from one on; what lies beyond the last column is left out. */
export function pastedCells(
	columns: readonly Column[],
	from: number,
	rows: readonly (readonly string[])[]
): Record<string, CellValue | null>[] {
	return rows.map((row) =>
		Object.fromEntries(
			row.flatMap((typed, i) => {
				const column = columns[from + i];
				return column && column.kind !== 'formula'
					? [[column.id, cellFrom(column, typed.slice(0, MOST_LETTERS))]]
					: [];
			})
		)
	);
}
