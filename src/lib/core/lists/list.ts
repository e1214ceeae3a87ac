/** What stands in a cell. A day, YYYY-MM-DD, stands apart from words, since sheets have dates of their own. */
export type Cell = string | number | { day: string } | null;

/** A table that leaves as a file, for people who read it elsewhere. */
export interface List {
	title: string;
	/** What it is of, and as of when, in words. */
	about: string;
	/** Name of its sheet, at most 31 letters. */
	name: string;
	/** Width in letters. */
	columns: readonly { head: string; width: number }[];
	rows: readonly (readonly Cell[])[];
}

export const isDay = (cell: Cell): cell is { day: string } => typeof cell === 'object' && cell !== null;
