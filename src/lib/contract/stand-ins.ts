import { z } from 'zod';
import { act, done, view } from './act';
import { day, id, projectKey } from './fields';

/** Longest that somebody stands in for another, in days. */
export const MOST_AWAY_DAYS = 366;

export const nameStandIn = act({
	name: 'nameStandIn',
	summary:
		'Name who decides on releases for somebody who is away; you for yourself, controllers for everybody',
	method: 'POST',
	path: '/projects/{project}/stand-ins',
	input: z.strictObject({
		project: projectKey,
		/** Who is away; yourself where nobody is named. */
		away: id.optional(),
		standIn: id,
		/** The first and the last day. */
		from: day,
		until: day
	}),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['stand-in.named']
});

export const endStandIn = act({
	name: 'endStandIn',
	summary: 'End that somebody decides for another; what was decided stands',
	method: 'DELETE',
	path: '/projects/{project}/stand-ins/{entry}',
	input: z.strictObject({ project: projectKey, entry: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['stand-in.ended']
});

export const standIns = view({
	name: 'standIns',
	summary: 'Who is away today or later, and who decides for them; for colleagues',
	path: '/projects/{project}/stand-ins',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				id: z.string(),
				away: z.strictObject({ id: z.string(), name: z.string() }),
				standIn: z.strictObject({ id: z.string(), name: z.string() }),
				from: z.string(),
				until: z.string(),
				mayEnd: z.boolean()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
