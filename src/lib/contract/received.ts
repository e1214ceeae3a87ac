import { z } from 'zod';
import { EXPECTS } from '../core/releases';
import { PURPOSES } from '../core/revisions/revisions';
import { view } from './act';
import { moment, projectKey } from './fields';

export const received = view({
	name: 'received',
	summary: 'Releases that came to you by your mail address, with what is asked of you; newest first',
	path: '/projects/{project}/received',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		releases: z.array(
			z.strictObject({
				number: z.number(),
				title: z.string(),
				purpose: z.enum(PURPOSES),
				by: z.string(),
				issuedAt: moment,
				documents: z.number(),
				expects: z.enum(EXPECTS),
				replyBy: z.string().nullable(),
				receivedAt: moment.nullable(),
				/** How many of its documents you have given a verdict on. */
				answered: z.number(),
				/** Whether something that is asked of you is still open. */
				waits: z.boolean(),
				superseded: z.boolean(),
				/** Where it opens. */
				link: z.string()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
