import { z } from 'zod';
import { type RevisionScheme, type Sequence } from '../../core/revisions/revisions';

/** One sequence of issued revisions, for example preliminary P01, P02 … (rule L6). */
const sequence = z.strictObject({
	prefix: z.string(),
	name: z.string(),
	/** Digits of the counter; P01 has two. */
	digits: z.number()
}) satisfies z.ZodType<Sequence>;

/** A project's revision scheme. It is data: nothing below knows P or C by name. */
export const revisionScheme = z.strictObject({
	/** In the order a document passes through them; a document never goes back to an earlier sequence. */
	sequences: z.array(sequence),
	/** Which sequence a purpose of release demands, by prefix. */
	demands: z.strictObject({
		information: z.string(),
		comment: z.string(),
		approval: z.string(),
		construction: z.string(),
		'as-built': z.string()
	})
}) satisfies z.ZodType<RevisionScheme>;
