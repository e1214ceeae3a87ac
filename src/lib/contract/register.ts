import { z } from 'zod';
import { VERDICTS } from '../core/releases';
import { PURPOSES } from '../core/revisions/revisions';
import { view } from './act';
import { moment, projectKey } from './fields';

/** The moment and the number of the last row that is known. */
const AFTER = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z ./;

export const issued = view({
	name: 'issued',
	summary: 'The revision of each document that was issued last, newest first; in pages',
	path: '/projects/{project}/issued',
	input: z.strictObject({
		project: projectKey,
		/** What the page before said to ask on with. */
		after: z
			.string()
			.max(240)
			.refine(
				(text) => AFTER.test(text) && !Number.isNaN(Date.parse(text.split(' ', 1)[0]!)),
				'Ask on with what the page before said.'
			)
			.optional(),
		limit: z.coerce.number().int().min(1).max(1_000).default(200)
	}),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				document: z.string(),
				number: z.string(),
				title: z.string(),
				/** Code of the department whose shelf it stands on. */
				department: z.string().nullable(),
				label: z.string(),
				at: moment,
				by: z.string().nullable(),
				/** The release it went out with; nobody outside has it when there is none. */
				release: z
					.strictObject({
						number: z.number(),
						purpose: z.enum(PURPOSES),
						to: z.string(),
						replyBy: z.string().nullable()
					})
					.nullable(),
				verdict: z.enum(VERDICTS).nullable(),
				/** The newest version, when there is work after the issue. */
				since: z.string().nullable()
			})
		),
		/** What to ask on with; left out when these are the last. */
		next: z.string().optional()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
