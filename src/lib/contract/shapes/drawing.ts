import { z } from 'zod';
import { ITEM_KINDS, type Item } from '../../core/drawing/item';

export const item = z.strictObject({
	id: z.string(),
	kind: z.enum(ITEM_KINDS),
	layer: z.string(),
	points: z.array(z.tuple([z.number(), z.number()])),
	radius: z.number().optional(),
	from: z.number().optional(),
	to: z.number().optional(),
	closed: z.boolean().optional(),
	text: z.string().optional(),
	height: z.number().optional(),
	turn: z.number().optional(),
	block: z.string().optional(),
	scale: z.number().optional(),
	attributes: z.array(z.string()).optional(),
	of: z.number().optional()
}) satisfies z.ZodType<Item>;
