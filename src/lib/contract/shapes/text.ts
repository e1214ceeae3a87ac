import { z } from 'zod';
import { type Passage, type Run } from '../../core/text/authorship';

/** Words that stood there before, came, or went, and by whom. */
const run = z.strictObject({
	text: z.string(),
	change: z.enum(['removed', 'same', 'added']),
	/** Id of the person who wrote the words, or took them away; null when that is not known. */
	by: z.string().nullable()
}) satisfies z.ZodType<Run>;

/** One paragraph, heading or caption. */
export const passage = z.strictObject({
	/** Name of the block in the schema. */
	block: z.string(),
	runs: z.array(run)
}) satisfies z.ZodType<Passage>;
