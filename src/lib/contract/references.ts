import { z } from 'zod';
import type { Reference } from '../core/references/references';
import { view } from './act';
import { id } from './fields';

const how = [
	'current',
	'older',
	'newer',
	'not-issued',
	'planned',
	'unknown'
] as const satisfies readonly Reference[];

/** Most documents that are told to refer to one. */
export const MOST_REFERRING = 200;

export const references = view({
	name: 'references',
	summary: 'Which documents the newest version of a document names by their numbers, and which name it',
	path: '/documents/{document}/references',
	input: z.strictObject({ document: id }),
	output: z.strictObject({
		/** Whether the words of the newest version were read already. */
		read: z.boolean(),
		to: z.array(
			z.strictObject({
				number: z.string(),
				/** The revision that it is named with. */
				revision: z.string().nullable(),
				how: z.enum(how),
				/** A number that is there and differs by a slip of the finger, for one that nobody knows. */
				meant: z.string().nullable(),
				document: z
					.strictObject({
						id: z.string(),
						title: z.string(),
						label: z.string(),
						issued: z.string().nullable()
					})
					.nullable()
			})
		),
		from: z
			.array(
				z.strictObject({
					document: z.string(),
					number: z.string(),
					title: z.string(),
					label: z.string(),
					/** The revision of this document that it names. */
					revision: z.string().nullable()
				})
			)
			.max(MOST_REFERRING),
		/** More than these may refer to it. */
		more: z.boolean()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

/** So many documents of a step are followed to the next, at each side. */
export const MOST_FOLLOWED = 60;

export const neighbourhood = view({
	name: 'neighbourhood',
	summary: 'What a document names and what names it, and the same of these: two steps far',
	path: '/documents/{document}/neighbourhood',
	input: z.strictObject({ document: id }),
	output: z.strictObject({
		/** Number of the document itself. */
		number: z.string(),
		/** The document and its neighbours, as far as the reader may look at them. */
		documents: z.array(
			z.strictObject({
				id: z.string(),
				number: z.string(),
				title: z.string(),
				label: z.string(),
				issued: z.string().nullable()
			})
		),
		/** Which names which, by their numbers. */
		names: z.array(
			z.strictObject({
				from: z.string(),
				to: z.string(),
				revision: z.string().nullable(),
				how: z.enum(how)
			})
		)
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});
