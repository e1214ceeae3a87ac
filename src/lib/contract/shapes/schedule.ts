import { z } from 'zod';
import { COLUMN_KINDS, TOTALS, type Column, type Row, type Schedule } from '../../core/schedule/column';

const column = z.strictObject({
	id: z.string(),
	/** Place among the columns; compared as text. */
	order: z.string(),
	name: z.string(),
	kind: z.enum(COLUMN_KINDS),
	unit: z.string(),
	choices: z.array(z.string()),
	required: z.boolean(),
	unique: z.boolean(),
	least: z.number().nullable(),
	most: z.number().nullable(),
	form: z.string(),
	formula: z.string(),
	total: z.enum(TOTALS),
	width: z.number()
}) satisfies z.ZodType<Column>;

const row = z.strictObject({
	id: z.string(),
	order: z.string(),
	cells: z.record(z.string(), z.union([z.string(), z.number()]))
}) satisfies z.ZodType<Row>;

/** A schedule as it is read: columns and rows in their order. */
export const schedule = z.strictObject({
	columns: z.array(column),
	rows: z.array(row)
}) satisfies z.ZodType<Schedule>;
