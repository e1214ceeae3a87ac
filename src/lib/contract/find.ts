import { z } from 'zod';
import { documentRow } from './shapes/documents';
import { projectKey } from './fields';
import { view } from './act';

export const find = view({
	name: 'find',
	summary:
		'Documents by part of their number, or by words of their number, title, tags and text; with typing errors when nothing has them as typed',
	path: '/projects/{project}/find',
	input: z.strictObject({
		project: projectKey,
		q: z.string().trim().min(2, 'Type at least two characters.').max(100)
	}),
	output: z.strictObject({
		rows: z.array(documentRow),
		close: z.boolean(),
		more: z.boolean(),
		passages: z.record(z.string(), z.string())
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
