import { groupedBy } from '../../core/lists/group';
import type { Snippet } from 'svelte';

/** A column of a table, as data. */
export interface Column<Row> {
	id: string;
	head: string;
	/** The head is for screen readers only. */
	quiet?: boolean;
	/** More than words in the head, such as a scale. */
	headCell?: Snippet<[column: Column<Row>]>;
	/** What stands in its cells: words, or more than words. */
	text?: (row: Row) => string;
	cell?: Snippet<[row: Row, column: Column<Row>]>;
	/** What the rows are put in order by; without it they are not, by this column. */
	by?: (row: Row) => string | number;
	/** Classes of its cells. */
	class?: string;
	/** Figures stand under each other at the right. */
	right?: boolean;
	/** From which width of the page on it stands there. */
	from?: 'sm' | 'md';
	/** Only where the page is narrower than that. */
	until?: 'md';
}

/** The column of a document's number, as every list has it. */
export const NUMBER_COLUMN = {
	id: 'number',
	head: 'Number',
	text: (row: { number: string }) => row.number,
	by: (row: { number: string }) => row.number,
	class: 'font-mono text-[12.5px] whitespace-nowrap'
};

/** Which column the rows are in order of, and which way. */
export interface Order {
	column: string;
	down: boolean;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Rows in the order of a column; those that are alike stay as they came. */
export function inOrder<Row>(
	rows: readonly Row[],
	columns: readonly Column<Row>[],
	order: Order | null
): readonly Row[] {
	const by = columns.find((column) => column.id === order?.column)?.by;
	if (!by || !order) return rows;
	const sign = order.down ? -1 : 1;
	return [...rows].sort((a, b) => {
		const [x, y] = [by(a), by(b)];
		return sign * (typeof x === 'number' && typeof y === 'number' ? x - y : collator.compare(`${x}`, `${y}`));
	});
}

/** Rows by what they stand under, in the order in which it first comes; one group without a head where they do not. */
export function inGroups<Row>(
	rows: readonly Row[],
	group: ((row: Row) => string) | undefined
): { head: string | null; rows: readonly Row[] }[] {
	if (!group) return [{ head: null, rows }];
	return [...groupedBy(rows, group)].map(([head, rows]) => ({ head, rows }));
}

/** The next order when the head of a column is pressed: upward, downward, as they came. */
export const nextOrder = (order: Order | null, column: string): Order | null =>
	order?.column !== column ? { column, down: false } : order.down ? null : { column, down: true };

/** Keys from one row to another, both included, whichever stands first. */
export function between(keys: readonly string[], from: string, to: string): string[] {
	const [a, b] = [keys.indexOf(from), keys.indexOf(to)];
	return a < 0 || b < 0 ? [to] : keys.slice(Math.min(a, b), Math.max(a, b) + 1);
}
