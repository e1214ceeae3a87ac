import { z } from 'zod';
import {
	APPROVER_KINDS,
	MOST_APPROVERS,
	MOST_ROUTES,
	MOST_STEP_DAYS,
	MOST_STEPS,
	type Approver,
	type RouteTemplate,
	type Step
} from '../../core/releases/route';
import { PURPOSES } from '../../core/revisions/revisions';
import { id, name } from '../fields';

/** Whom a step names: a person, the leads of a department, or the people inside of a group. */
const approver = z.strictObject({ kind: z.enum(APPROVER_KINDS), id }) satisfies z.ZodType<Approver>;

const step = z.strictObject({
	name,
	of: z
		.array(approver)
		.min(1, 'Name somebody who approves.')
		.max(MOST_APPROVERS, `A step names ${MOST_APPROVERS} at most.`),
	needs: z.union([z.enum(['all', 'any']), z.number().int().min(1).max(MOST_APPROVERS)]),
	/** Working days from when it is their turn; null where no day is set. */
	days: z.number().int().min(1).max(MOST_STEP_DAYS).nullable()
}) satisfies z.ZodType<Step>;

export const route = z
	.array(step)
	.min(1, 'A route has at least one step.')
	.max(MOST_STEPS, `A route has ${MOST_STEPS} steps at most.`);

export const routes = z
	.array(
		z.strictObject({
			name,
			purpose: z.enum(PURPOSES).nullable(),
			steps: route
		}) satisfies z.ZodType<RouteTemplate>
	)
	.max(MOST_ROUTES, `A project keeps ${MOST_ROUTES} routes at most.`);

/** How a step of a release stands. */
export const stepStanding = z.strictObject({
	...step.shape,
	state: z.enum(['done', 'now', 'later']),
	needed: z.number(),
	of: z.array(
		z.strictObject({
			...approver.shape,
			name: z.string(),
			/** Who decides meanwhile, where they are away, and until which day. */
			away: z.strictObject({ standIn: z.string(), until: z.string() }).nullable()
		})
	),
	/** The day by which it is to be decided, once it is its turn. */
	due: z.string().nullable(),
	given: z.array(
		z.strictObject({ by: z.string(), of: z.string(), standsFor: z.string().nullable(), at: z.string() })
	)
});
