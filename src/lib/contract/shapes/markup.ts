import { z } from 'zod';
import { MARK_KINDS, type Mark, type Scale } from '../../core/markup/mark';
import { moment } from '../fields';

export const mark = z.strictObject({
	id: z.string(),
	kind: z.enum(MARK_KINDS),
	page: z.number(),
	points: z.array(z.strictObject({ x: z.number(), y: z.number() })),
	turn: z.number(),
	size: z.number(),
	text: z.string(),
	layer: z.string(),
	by: z.string(),
	from: z.string().optional(),
	at: moment,
	group: z.string().nullable(),
	order: z.number(),
	carried: z.enum(['changed', 'same']).nullable()
}) satisfies z.ZodType<Mark>;

/** How many units of the sheet are one unit of the real thing, on a page. */
export const scale = z.strictObject({
	/** Units of the sheet for one real unit. */
	perUnit: z.number(),
	unit: z.string()
}) satisfies z.ZodType<Scale>;

/** The marks of a version as they are burned into a copy of it: scales by page, codes of the departments in their order. */
export const burning = z.strictObject({
	marks: z.array(mark),
	scales: z.record(z.string(), scale),
	codes: z.array(z.string())
});
