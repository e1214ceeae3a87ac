import { z } from 'zod';
import { PLACE_KINDS, act, done, view } from './act';
import { id, moment, projectKey } from './fields';
import { documentRow } from './shapes/documents';

/** Most documents of a list that one reads to see what happened. */
const MOST = 200;

export const keepAtHand = act({
	name: 'keepAtHand',
	summary: 'Keep a shelf, folder or document at hand: a bookmark of your own',
	method: 'PUT',
	path: '/places/{place}/at-hand',
	input: z.strictObject({ place: id }),
	output: done,
	at: { kind: 'place', id: (i) => i.place, level: 'view' },
	events: []
});

export const endAtHand = act({
	name: 'endAtHand',
	summary: 'Keep something at hand no longer, whatever became of it',
	method: 'DELETE',
	path: '/projects/{project}/at-hand/{place}',
	input: z.strictObject({ project: projectKey, place: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: []
});

export const waiting = view({
	name: 'waiting',
	summary: 'How much waits for you in a project, and how much stands under each way in',
	path: '/projects/{project}/waiting',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		/** What waits for your decision, came back, is in your hand, or is yours to settle. */
		forYou: z.number(),
		/** In anybody's hand, as far as you may look. */
		inHand: z.number(),
		remarks: z.number(),
		/** Changed by others since you looked. */
		fresh: z.number(),
		atHand: z.number(),
		arrivals: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const newToYou = view({
	name: 'newToYou',
	summary: 'What others changed since you looked, newest first',
	path: '/projects/{project}/new',
	input: z.strictObject({
		project: projectKey,
		limit: z.coerce.number().int().min(1).max(MOST).default(MOST)
	}),
	output: z.strictObject({
		total: z.number(),
		rows: z.array(z.strictObject({ ...documentRow.shape, place: z.string() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const latelyOpen = view({
	name: 'latelyOpen',
	summary: 'What you opened last',
	path: '/projects/{project}/lately-open',
	input: z.strictObject({
		project: projectKey,
		limit: z.coerce.number().int().min(1).max(MOST).default(20)
	}),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				id: z.string(),
				number: z.string(),
				title: z.string(),
				label: z.string(),
				issued: z.boolean(),
				at: moment
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const atHand = view({
	name: 'atHand',
	summary:
		'What you keep at hand, newest first; of what is removed or no longer open to you, only what you knew',
	path: '/projects/{project}/at-hand',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				place: z.string(),
				kind: z.enum(PLACE_KINDS),
				/** As it is called now; as it was when it was kept, once it is out of sight. */
				name: z.string(),
				/** The way to it, shelf first. */
				way: z.array(z.string()),
				state: z.enum(['there', 'removed', 'gone']),
				removedAt: moment.nullable(),
				kept: moment
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
