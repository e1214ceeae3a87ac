import { z } from 'zod';
import { moment } from '../fields';
import { type Base, type OnLine } from '../../core/versions/base';

/** A version on a document's line, as far as it matters for what somebody's file was made from. */
const onLine = z.strictObject({
	label: z.string(),
	by: z.string(),
	/** Id of the person it came from; null for the system. */
	byId: z.string().nullable(),
	/** When it came, as an ISO date-time. */
	at: moment
}) satisfies z.ZodType<OnLine>;

/** What somebody's file was made from, as far as Cupboard knows, and what others stored since (rule L5). */
export const base = z.strictObject({
	/** The newest version that the person is known to have had; null when none is. */
	label: z.string().nullable(),
	/** Versions of others after it, oldest first; nothing is buried when there are none. */
	since: z.array(onLine)
}) satisfies z.ZodType<Base>;
