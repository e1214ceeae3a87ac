import { z } from 'zod';

/** What a column of a schedule holds. */
export const COLUMN_KINDS = ['text', 'number', 'date', 'choice', 'document', 'formula'] as const;

/** What stands beneath a column. */
export const TOTALS = ['none', 'sum', 'count', 'mean', 'least', 'most'] as const;
export type Total = (typeof TOTALS)[number];

/** Most rows and columns of a live schedule, and characters of one cell. */
export const MOST_ROWS = 20_000;
export const MOST_COLUMNS = 60;
export const MOST_LETTERS = 4_000;

/** A column as people settle it. */
export const columnSchema = z.object({
	name: z.string().trim().min(1, 'Name the column.').max(80),
	kind: z.enum(COLUMN_KINDS).default('text'),
	/** Written behind numbers. */
	unit: z.string().trim().max(12).default(''),
	/** For a choice: what can be chosen. */
	choices: z.array(z.string().trim().min(1).max(80)).max(200, 'At most 200 choices.').default([]),
	/** No row may leave it empty. */
	required: z.boolean().default(false),
	/** No two rows may hold the same. */
	unique: z.boolean().default(false),
	/** Bounds of a number. */
	least: z.number().nullable().default(null),
	most: z.number().nullable().default(null),
	/** For texts: what they look like, with A for a letter, # for a figure and * for anything, such as `D-###`. */
	form: z
		.string()
		.trim()
		.max(80)
		// Each more would make the search for what fits many times as long.
		.refine((form) => form.split('*').length <= 3, 'A form has at most two *.')
		.default(''),
	/** For a formula: what is worked out of the same row, such as `[Length] * [Count]`. */
	formula: z.string().trim().max(500).default(''),
	total: z.enum(TOTALS).default('none'),
	/** Width on screen, in pixels. */
	width: z.int().min(40).max(800).default(140)
});
export type ColumnFields = z.output<typeof columnSchema>;

export interface Column extends ColumnFields {
	id: string;
	/** Place among the columns; compared as text. */
	order: string;
}

/** What a cell holds. A number or day that could not be read is kept as it was typed, and its cell says so. */
export type CellValue = string | number;

export interface Row {
	id: string;
	order: string;
	cells: Readonly<Record<string, CellValue>>;
}

/** A schedule as it is read: columns and rows in their order. */
export interface Schedule {
	columns: Column[];
	rows: Row[];
}

/** Rows or columns in their order; equal places by id, so that everybody sees the same. */
export function inOrder<T extends { order: string; id: string }>(list: Iterable<T>): T[] {
	return [...list].sort((a, b) =>
		a.order < b.order ? -1 : a.order > b.order ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0
	);
}
