import { z } from 'zod';
import { type TitleBlock } from '../../core/dxf/title-block';

/** What a sheet says about itself; null where it says nothing. */
export const titleBlock = z.strictObject({
	number: z.string().nullable(),
	title: z.string().nullable(),
	revision: z.string().nullable(),
	scale: z.string().nullable(),
	date: z.string().nullable()
}) satisfies z.ZodType<TitleBlock>;
