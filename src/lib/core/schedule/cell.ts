import { fullDayWords } from '../time/days';
import { dayTyped } from '../time/typed';
import type { CellValue, Column, Schedule } from './column';

/** A number as people type it: blanks or commas between thousands, a point before decimals, the unit behind it. */
function numberFrom(typed: string, unit: string): number | null {
	let text = typed.trim();
	if (unit && text.toLowerCase().endsWith(unit.toLowerCase())) text = text.slice(0, -unit.length).trim();
	if (/^[-+−]?\d{1,3}([ ,\u00a0\u202f]\d{3})+(\.\d+)?$/.test(text))
		text = text.replace(/[ ,\u00a0\u202f]/g, '');
	else if (/^[-+−]?\d+,\d+$/.test(text)) text = text.replace(',', '.');
	text = text.replace('−', '-');
	if (!/^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d{1,3})?$/i.test(text)) return null;
	const number = Number(text);
	return Number.isFinite(number) ? number : null;
}

/** Years that a day in a schedule may be in; anything else is a slip of the finger, and kept as text. */
const [EARLIEST, LATEST] = ['1900-01-01', '2200-12-31'];

/** A day as people type it, always with its year; with a time behind it, the day alone. */
function dayFrom(typed: string): string | null {
	const text = typed.trim().replace(/^(\d{4}-\d{1,2}-\d{1,2})[T ].*$/, '$1');
	const day = /\d{4}/.test(text) ? dayTyped(text, EARLIEST) : null;
	return day && day >= EARLIEST && day <= LATEST ? day : null;
}

/**
 * What a cell holds after something was typed or pasted into it; null for an empty cell. What does not fit the column
 * is kept as text: nothing that somebody typed is thrown away.
 */
export function cellFrom(column: Pick<Column, 'kind' | 'unit' | 'choices'>, typed: string): CellValue | null {
	const text = typed.normalize('NFC').trim();
	if (text === '') return null;
	switch (column.kind) {
		case 'number':
			return numberFrom(text, column.unit) ?? text;
		case 'date':
			return dayFrom(text) ?? text;
		case 'choice':
			return column.choices.find((c) => c.toLowerCase() === text.toLowerCase()) ?? text;
		default:
			return text;
	}
}

/** What a cell says, for editing and for exchange: numbers with a decimal point and without their unit. */
export function cellText(value: CellValue | null | undefined): string {
	return value === null || value === undefined
		? ''
		: typeof value === 'number'
			? String(Number(value.toPrecision(15)))
			: value;
}

/** What a number shows: blanks between thousands, and decimals. @param decimals fewest to show */
function numberShown(value: number, decimals: number): string {
	const said = String(Math.abs(Number(value.toPrecision(12))));
	if (said.includes('e')) return String(value);
	const [whole, rest = ''] = said.split('.');
	const grouped = whole!.length > 4 ? whole!.replace(/\B(?=(\d{3})+$)/g, '\u202f') : whole!;
	const figures = rest.padEnd(decimals, '0');
	return `${value < 0 ? '−' : ''}${grouped}${figures ? `.${figures}` : ''}`;
}

/** What a cell shows: numbers with their unit, days as the trade writes them. */
export function cellShown(
	column: Pick<Column, 'kind' | 'unit'>,
	value: CellValue | null | undefined
): string {
	if (typeof value === 'number') return `${numberShown(value, 0)}${column.unit ? ` ${column.unit}` : ''}`;
	if (column.kind === 'date' && value && /^\d{4}-\d{2}-\d{2}$/.test(value)) return fullDayWords(value);
	return value ?? '';
}

/** What a cell shows under a heading that names the unit, with so many decimals that points stand beneath each other. */
export function cellInColumn(
	column: Pick<Column, 'kind' | 'unit'>,
	value: CellValue | null | undefined,
	decimals: number
): string {
	return typeof value === 'number' ? numberShown(value, decimals) : cellShown(column, value);
}

/** Most decimals that are filled up with noughts; longer numbers stand as they are. */
const MOST_DECIMALS = 4;

/** How many decimals the numbers of a column have, at most four. */
export function decimalsOf(values: Iterable<CellValue | null | undefined>): number {
	let most = 0;
	for (const value of values) {
		if (typeof value !== 'number') continue;
		const { length } = String(Number(value.toPrecision(12))).split('.')[1] ?? '';
		if (length <= MOST_DECIMALS) most = Math.max(most, length);
	}
	return most;
}

/** A value some steps on: a number goes up, a text by the figures at its end; anything else stays. */
export function countedOn(value: CellValue | null, steps: number): CellValue | null {
	if (typeof value === 'number') return value + steps;
	const [, head, figures] = /^(.*?)(\d{1,12})$/.exec(value ?? '') ?? [];
	if (figures === undefined) return value;
	return head + String(Number(figures) + steps).padStart(figures.length, '0');
}

/** A form as an expression: one class of letters a sign, `*` for any. */
function formOf(form: string): RegExp {
	const parts = [...form].map((sign) =>
		sign === '#'
			? '\\d'
			: sign === 'A'
				? '\\p{L}'
				: sign === '*'
					? '.*'
					: sign.replace(/[\\^$.+?()[\]{}|/]/g, '\\$&')
	);
	return new RegExp(`^${parts.join('')}$`, 'su');
}

/** What is wrong with a cell by itself, in a sentence, or null. */
export function cellFault(column: Column, value: CellValue | null | undefined): string | null {
	if (value === null || value === undefined || value === '') return null;
	switch (column.kind) {
		case 'number':
			if (typeof value !== 'number') return `“${value}” is no number.`;
			if (column.least !== null && value < column.least)
				return `At least ${cellShown(column, column.least)}.`;
			if (column.most !== null && value > column.most) return `At most ${cellShown(column, column.most)}.`;
			return null;
		case 'date':
			return typeof value === 'string' && dayFrom(value) === value
				? null
				: `“${value}” is no day; write it as 25 Nov 2026 or 2026-11-25.`;
		case 'choice':
			return column.choices.includes(String(value))
				? null
				: `“${value}” is none of ${column.choices.join(', ') || 'the choices'}.`;
		case 'text':
			return column.form && !formOf(column.form).test(String(value))
				? `Should look like ${column.form} (A a letter, # a figure, * anything).`
				: null;
		default:
			return null;
	}
}

/** Faults by `row/column`. */
export type Faults = ReadonlyMap<string, string>;
export const cellKey = (row: string, column: string) => `${row}/${column}`;

/** Everything that breaks a rule of its column: each cell by itself, what is left empty, and what stands twice. */
export function faultsOf({ columns, rows }: Schedule): Faults {
	const found = new Map<string, string>();
	for (const column of columns) {
		if (column.kind === 'formula') continue;
		const seen = new Map<string, number>();
		rows.forEach((row, at) => {
			const value = row.cells[column.id];
			const fault = cellFault(column, value);
			const key = cellKey(row.id, column.id);
			if (fault) found.set(key, fault);
			if (column.required && value === undefined && Object.keys(row.cells).length > 0)
				found.set(key, `${column.name} must not be empty.`);
			if (!column.unique || value === undefined) return;
			const said = cellText(value).toLowerCase();
			const first = seen.get(said);
			if (first === undefined) seen.set(said, at);
			else {
				found.set(key, `“${cellText(value)}” stands in row ${first + 1} too.`);
				const other = cellKey(rows[first]!.id, column.id);
				if (!found.has(other))
					found.set(other, `“${cellText(rows[first]!.cells[column.id])}” stands in row ${at + 1} too.`);
			}
		});
	}
	return found;
}
