import { z } from 'zod';
import { day, id, projectKey } from './fields';
import { eventRow } from './shapes/documents';
import { view } from './act';

export const page = {
	before: z.coerce.number().int().positive().optional(),
	limit: z.coerce.number().int().min(1).max(200).default(80)
};

export const activity = view({
	name: 'activity',
	summary: 'What happened in the project, newest first, as far as you may know of it',
	path: '/projects/{project}/activity',
	input: z.strictObject({
		project: projectKey,
		...page,
		actor: z.string().max(60).optional(),
		/** The first part of an event's kind, "openings" for those and downloads, or "all". */
		kind: z
			.string()
			.regex(/^[a-z]{1,20}$/, 'That is no kind of event.')
			.optional(),
		place: id.optional(),
		from: day.optional(),
		to: day.optional()
	}),
	output: z.strictObject({ events: z.array(eventRow) }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const trail = view({
	name: 'trail',
	summary: 'What happened to one document or folder',
	path: '/places/{place}/trail',
	input: z.strictObject({ place: id, ...page, kind: z.enum(['all']).optional() }),
	output: z.strictObject({ events: z.array(eventRow) }),
	at: { kind: 'place', id: (i) => i.place, level: 'view' }
});

export const releaseTrail = view({
	name: 'releaseTrail',
	summary: 'What happened to a release, newest first, as far as you may know of it',
	path: '/releases/{release}/trail',
	input: z.strictObject({ release: id, ...page, kind: z.enum(['all']).optional() }),
	output: z.strictObject({ events: z.array(eventRow) }),
	at: { kind: 'release', id: (i) => i.release, who: 'route' }
});
