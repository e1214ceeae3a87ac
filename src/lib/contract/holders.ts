import { z } from 'zod';
import { HANDED, HOLDINGS } from '../core/releases/holders';
import { act, view } from './act';
import { id, moment, projectKey } from './fields';

/** So many documents are listed at a time. */
export const MOST_HELD = 1_000;

/** A holder, by their mail address, or by their name where no address is known. */
const holder = z.string().trim().min(1).max(320);

export const holders = view({
	name: 'holders',
	summary: 'Who outside holds which revision of which document, through releases, passes and downloads',
	path: '/projects/{project}/holders',
	input: z.strictObject({
		project: projectKey,
		department: id.optional(),
		/** Only documents of which somebody holds an old revision, or has confirmed nothing. */
		only: z.enum(['all', 'old', 'unconfirmed']).default('all'),
		/** Only documents of this release. */
		release: id.optional(),
		skip: z.coerce.number().int().min(0).default(0),
		limit: z.coerce.number().int().min(1).max(MOST_HELD).default(200)
	}),
	output: z.strictObject({
		holders: z.array(
			z.strictObject({ key: z.string(), name: z.string(), company: z.string(), email: z.string().nullable() })
		),
		rows: z.array(
			z.strictObject({
				document: z.string(),
				number: z.string(),
				title: z.string(),
				now: z.strictObject({ label: z.string(), issued: z.boolean() }),
				issued: z.string().nullable(),
				/** Of those who hold one, in the order of the holders. */
				held: z.array(z.strictObject({ holder: z.string(), label: z.string(), state: z.enum(HOLDINGS) }))
			})
		),
		/** Documents as they are narrowed; and of all, those of which somebody holds an old one, or confirmed nothing. */
		total: z.number(),
		old: z.number(),
		unconfirmed: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const holding = view({
	name: 'holding',
	summary: 'How somebody came by what they hold of a document',
	path: '/projects/{project}/holders/{holder}/{document}',
	input: z.strictObject({ project: projectKey, holder, document: id }),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				label: z.string(),
				way: z.enum(HANDED),
				at: moment,
				release: z.number().nullable(),
				confirmed: moment.nullable()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const tellHolders = act({
	name: 'tellHolders',
	summary: 'Tell by mail those who hold an old revision which one is current; one mail to each',
	method: 'POST',
	path: '/projects/{project}/holders/told',
	input: z.strictObject({
		project: projectKey,
		/** Only about this document, or only this holder; everybody about everything where neither is named. */
		document: id.optional(),
		holder: holder.optional()
	}),
	output: z.strictObject({
		/** How many were told, and how many hold an old one whose address nobody knows. */
		told: z.number(),
		unknown: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['holder.told']
});
