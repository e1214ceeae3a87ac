import FormulaParser from 'fast-formula-parser';
import type { CellValue, Column, Row } from './column';

/** What a formula gives in one row: a value, or a sentence that says why there is none. */
export type Worked = { value: CellValue | null } | { fault: string };

const { FormulaError } = FormulaParser;

const REFERENCE = /\[([^[\]]{1,80})\]/g;
/** Functions whose answer does not come from the row, or that reach outside it. */
const BARRED = /\b(RAND|RANDBETWEEN|NOW|TODAY|INDIRECT|OFFSET|WEBSERVICE|INFO|CELL)\s*\(/i;

/** Names of the columns that a formula speaks of. */
export function referencesIn(formula: string): string[] {
	return [...new Set([...formula.matchAll(REFERENCE)].map(([, name]) => name!.trim()))];
}

/** Letters of a column in the notation of spreadsheets, A for 0. */
export function columnLetters(index: number): string {
	return (
		(index >= 26 ? columnLetters(Math.floor(index / 26) - 1) : '') + String.fromCharCode(65 + (index % 26))
	);
}

/** A formula with its columns named as cells of a row, as spreadsheets read it (ISO/IEC 29500-1, 18.17); null when it names a column that is not there. */
export function asCells(formula: string, columns: readonly Column[], row: number): string | null {
	let missing = false;
	const said = formula.replace(REFERENCE, (_, name: string) => {
		const at = columns.findIndex((c) => c.name === name.trim());
		if (at < 0) missing = true;
		return `${columnLetters(at)}${row}`;
	});
	return missing ? null : said;
}

/** Works out formulas row by row. One for a state of the columns; make a new one when they change. */
export class Formulas {
	private readonly said: (string | null)[];
	private readonly parser: FormulaParser;
	private row: Row | null = null;
	/** Columns that are being worked out, to find one that leads back to itself. */
	private readonly under = new Set<number>();

	constructor(private readonly columns: readonly Column[]) {
		this.said = columns.map((c) => (c.kind === 'formula' ? asCells(c.formula, columns, 1) : null));
		this.parser = new FormulaParser({
			onCell: ({ col }) => this.cell(col - 1),
			onRange: ({ from, to }) => {
				const count = Math.min(to.col, this.columns.length) - from.col + 1;
				return [Array.from({ length: Math.max(count, 0) }, (_, i) => this.cell(from.col - 1 + i))];
			}
		});
	}

	private cell(at: number): CellValue | null {
		const column = this.columns[at];
		if (!column || !this.row) return null;
		if (column.kind !== 'formula') return this.row.cells[column.id] ?? null;
		const worked = this.work(at);
		if ('fault' in worked) throw new FormulaError('#REF!', worked.fault);
		return worked.value;
	}

	private work(at: number): Worked {
		const column = this.columns[at]!;
		const said = this.said[at];
		if (!column.formula) return { value: null };
		if (said === null || said === undefined) {
			const gone = referencesIn(column.formula).find((n) => !this.columns.some((c) => c.name === n));
			return { fault: `There is no column “${gone}”.` };
		}
		if (BARRED.test(said)) return { fault: 'A formula works with what stands in its row only.' };
		if (this.under.has(at)) return { fault: `${column.name} leads back to itself.` };
		this.under.add(at);
		try {
			const value: unknown = this.parser.parse(said, { row: 1, col: at + 1, sheet: 'Schedule' });
			if (value instanceof FormulaError) return { fault: sentenceOf(value) };
			if (typeof value === 'number')
				return Number.isFinite(value) ? { value } : { fault: 'There is no such number.' };
			if (typeof value === 'boolean') return { value: value ? 'yes' : 'no' };
			return { value: value === null || value === undefined ? null : String(value) };
		} catch (error) {
			return { fault: sentenceOf(error) };
		} finally {
			this.under.delete(at);
		}
	}

	/** What a formula column gives in a row. */
	of(row: Row, column: Column): Worked {
		this.row = row;
		return this.work(this.columns.findIndex((c) => c.id === column.id));
	}
}

function sentenceOf(error: unknown): string {
	const { name, details, message } = error as { name?: string; details?: unknown; message?: string };
	// What went wrong within a formula comes wrapped.
	if (name === '#ERROR!' && String((details as Error | undefined)?.name).startsWith('#'))
		return sentenceOf(details);
	switch (name) {
		case '#DIV/0!':
			return 'It divides by nothing.';
		case '#VALUE!':
			return 'It calculates with something that is no number.';
		case '#NAME?':
			return 'It names a function that there is not.';
		case '#NUM!':
			return 'There is no such number.';
		case '#REF!':
			return message || 'It speaks of something that is not there.';
		case '#N/A':
			return 'It finds nothing.';
		default:
			return 'It cannot be read as a formula.';
	}
}
