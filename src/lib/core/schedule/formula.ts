import { calculate } from './calculate';
import type { CellValue, Column, Row } from './column';
import { readExpression, Unread, type Expression } from './expression';
import type { Value } from './functions';

/** What a formula gives in one row: a value, or a sentence that says why there is none. */
export type Worked = { value: CellValue | null } | { fault: string };

/** A column that is named, or a text, in which nothing is. */
const REFERENCE = /"(?:[^"]|"")*"|\[([^[\]]{1,80})\]/g;
/** Functions whose answer does not come from the row, or that reach outside it. */
const BARRED = new Set(
	'RAND RANDBETWEEN RANDARRAY NOW TODAY INDIRECT OFFSET WEBSERVICE INFO CELL ROW COLUMN'.split(' ')
);

/** Names of the columns that a formula speaks of. */
export function referencesIn(formula: string): string[] {
	const named = [...formula.matchAll(REFERENCE)].flatMap(([, name]) => (name ? [name.trim()] : []));
	return [...new Set(named)];
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
	const said = formula.replace(REFERENCE, (as, name: string | undefined) => {
		if (name === undefined) return as;
		const at = columns.findIndex((c) => c.name === name.trim());
		if (at < 0) missing = true;
		return `${columnLetters(at)}${row}`;
	});
	return missing ? null : said;
}

/** Whether a formula asks for something that does not come from its row. */
function reachesOut(expression: Expression): boolean {
	switch (expression.is) {
		case 'call':
			return BARRED.has(expression.name) || expression.given.some(reachesOut);
		case 'sign':
			return reachesOut(expression.of);
		case 'both':
			return reachesOut(expression.left) || reachesOut(expression.right);
		default:
			return false;
	}
}

/** Works out formulas row by row. One for a state of the columns; make a new one when they change. */
export class Formulas {
	/** What each column says, read once; null for one that says nothing, or is no formula. */
	private readonly read: (Expression | { fault: string } | null)[];
	private row: Row | null = null;
	/** Columns that are being worked out, to find one that leads back to itself. */
	private readonly under = new Set<number>();

	constructor(private readonly columns: readonly Column[]) {
		this.read = columns.map((column) =>
			column.kind === 'formula' && column.formula ? this.reading(column.formula) : null
		);
	}

	private reading(formula: string): Expression | { fault: string } {
		const gone = referencesIn(formula).find((name) => this.at(name) < 0);
		if (gone !== undefined) return { fault: `There is no column “${gone}”.` };
		try {
			const read = readExpression(formula);
			return reachesOut(read) ? { fault: 'A formula works with what stands in its row only.' } : read;
		} catch (error) {
			if (error instanceof Unread) return { fault: 'It cannot be read as a formula.' };
			throw error;
		}
	}

	private at(name: string): number {
		return this.columns.findIndex((column) => column.name === name);
	}

	private cell(at: number): Value {
		const column = this.columns[at];
		if (!column || !this.row) return null;
		if (column.kind !== 'formula') return this.row.cells[column.id] ?? null;
		const worked = this.work(at);
		return 'fault' in worked ? new Error(worked.fault) : worked.value;
	}

	private work(at: number): Worked {
		const read = this.read[at];
		if (!read) return { value: null };
		if ('fault' in read) return read;
		if (this.under.has(at)) return { fault: `${this.columns[at]!.name} leads back to itself.` };
		this.under.add(at);
		try {
			const value = calculate(read, {
				one: (name) => this.cell(this.at(name)),
				several: (from, to) => {
					const [a, b] = [this.at(from), this.at(to)].toSorted((x, y) => x - y) as [number, number];
					return Array.from({ length: b - a + 1 }, (_, i) => this.cell(a + i));
				}
			});
			if (value instanceof Error) return { fault: sentenceOf(value) };
			return { value: typeof value === 'boolean' ? (value ? 'yes' : 'no') : value };
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

const SENTENCES: Record<string, string> = {
	'#DIV/0!': 'It divides by nothing.',
	'#VALUE!': 'It calculates with something that is no number.',
	'#NAME?': 'It names a function that there is not.',
	'#NUM!': 'There is no such number.',
	'#REF!': 'It speaks of something that is not there.',
	'#N/A': 'It finds nothing.'
};
/** What went wrong, in words; what another column of the row says of itself is said as it is. */
const sentenceOf = ({ message }: Error): string => SENTENCES[message] ?? message;
