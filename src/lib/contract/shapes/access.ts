import { z } from 'zod';
import { GIVEN, LEVELS } from '../../core/access/levels';
import { moment } from '../fields';
import { type AccessRow, type EffectRow, type ReachRow, type ReachSummary } from '../../core/access/rows';
import { type Known } from '../../core/access/invite';

/** What a change of access would mean, counted. */
export const effectRow = z.strictObject({
	people: z.number(),
	documents: z.number(),
	inHand: z.number(),
	/** One line a person, most documents first; cut at a few. */
	lines: z.array(
		z.strictObject({
			name: z.string(),
			lost: z.number(),
			gained: z.number(),
			lower: z.number(),
			higher: z.number(),
			inHand: z.number()
		})
	)
}) satisfies z.ZodType<EffectRow>;

/** One line of the access of a place: a subject, how far it goes, and where that comes from. Times are ISO 8601. */
export const accessRow = z.strictObject({
	/** Null for the rule that controllers may everywhere. */
	grant: z.string().nullable(),
	kind: z.enum(['department', 'person', 'leads', 'group', 'everyone', 'controllers']),
	subject: z.string(),
	name: z.string(),
	/** Code of a department. */
	code: z.string().nullable(),
	/** What stands below the name: "department, 9 people". */
	about: z.string(),
	outside: z.boolean(),
	people: z.number(),
	level: z.enum(GIVEN),
	exactly: z.boolean(),
	/** Whether it stands here, so that it can be changed and ended here. */
	here: z.boolean(),
	/** The place above it comes from, when one may look at that; null for here. */
	from: z.strictObject({ id: z.string(), name: z.string() }).nullable(),
	by: z.string().nullable(),
	at: moment,
	until: z.string().nullable(),
	/** Name of the subject that brought them in, or null. */
	broughtInBy: z.string().nullable(),
	bringCount: z.number(),
	bringLevel: z.enum(LEVELS).nullable(),
	brought: z.number(),
	/** Whether the reader may end it. */
	mayEnd: z.boolean()
}) satisfies z.ZodType<AccessRow>;

/** One person who reaches a place. */
export const reachRow = z.strictObject({
	person: z.string(),
	name: z.string(),
	outside: z.boolean(),
	level: z.enum(LEVELS),
	through: z.string()
}) satisfies z.ZodType<ReachRow>;

/** A person, department or group that a line may name. */
export const known = z.strictObject({
	kind: z.enum(['department', 'person', 'group', 'everyone']),
	id: z.string(),
	name: z.string(),
	/** Code of a department. */
	code: z.string().optional(),
	email: z.string().optional(),
	/** How many people it stands for. */
	people: z.number(),
	outside: z.boolean().optional()
}) satisfies z.ZodType<Known>;

/** Who else reaches a scope, in one word for a column. */
export const reachSummary = z.strictObject({
	scope: z.string(),
	people: z.number(),
	outside: z.number(),
	passes: z.number(),
	/** Code of the only department that reaches it beside document control, or null. */
	only: z.string().nullable(),
	closed: z.boolean()
}) satisfies z.ZodType<ReachSummary>;
