import { z } from 'zod';
import { REMARK_ACTS } from '../../core/remarks/may';
import { canDo } from './can';
import { moment } from '../fields';
import { type Anchor, type AnswerRow, type RemarkRow } from '../../core/remarks/remarks';

/** What a remark is about: a place on a sheet, a passage of a text, a cell, an entity, a version, or the whole document. */
const anchor = z.union([
	z.strictObject({ on: z.literal('whole') }),
	z.strictObject({ on: z.literal('version') }),
	z.strictObject({ on: z.literal('place'), page: z.number(), x: z.number(), y: z.number() }),
	z.strictObject({ on: z.literal('passage'), mark: z.string() }),
	z.strictObject({ on: z.literal('cell'), row: z.string(), column: z.string() }),
	z.strictObject({ on: z.literal('entity'), entity: z.string(), x: z.number(), y: z.number() })
]) satisfies z.ZodType<Anchor>;

/** An answer to a remark. */
const answerRow = z.strictObject({
	by: z.string(),
	byId: z.string(),
	at: moment,
	text: z.string()
}) satisfies z.ZodType<AnswerRow>;

/** A remark with its answers, as lists show it. Times are ISO 8601 in UTC. */
export const remarkRow = z.strictObject({
	id: z.string(),
	/** Counts the remarks of its document. */
	number: z.number(),
	document: z.string(),
	documentNumber: z.string(),
	documentTitle: z.string(),
	/** The version it was made on. */
	label: z.string(),
	anchor: anchor,
	/** The words it is about, as they were then. */
	quote: z.string(),
	text: z.string(),
	by: z.string(),
	byId: z.string(),
	/** Code of the department of who made it, or the company of an outsider. */
	from: z.string(),
	at: moment,
	answers: z.array(answerRow),
	assigned: z
		.strictObject({ kind: z.enum(['department', 'person']), id: z.string(), name: z.string() })
		.nullable(),
	/** Day on which it is due, or null. */
	due: z.string().nullable(),
	settled: z.strictObject({ by: z.string(), at: moment, note: z.string() }).nullable(),
	/** What the reader can do with it now, by the name of the act. */
	can: canDo(REMARK_ACTS)
}) satisfies z.ZodType<RemarkRow>;
