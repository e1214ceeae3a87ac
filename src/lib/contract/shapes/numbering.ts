import { z } from 'zod';
import { type NumberPart, type NumberingRule } from '../../core/numbering/numbering';

/** One part of a document's number. */
export const numberPart = z.strictObject({
	key: z.string(),
	label: z.string(),
	/** The values allowed, or null when `pattern` decides. */
	values: z.array(z.strictObject({ code: z.string(), name: z.string() })).nullable(),
	/** A regular expression source for the part when `values` is null. */
	pattern: z.string().nullable()
}) satisfies z.ZodType<NumberPart>;

/** A project's numbering rule: parts joined by one separator. The last part is the serial. */
export const numberingRule = z.strictObject({
	separator: z.string(),
	parts: z.array(numberPart),
	/** Digits of the serial. */
	serialDigits: z.number()
}) satisfies z.ZodType<NumberingRule>;
