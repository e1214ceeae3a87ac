import { z } from 'zod';
import { act, view } from './act';
import { projectKey } from './fields';

export const openDesk = act({
	name: 'openDesk',
	summary: 'Make your desk in a project: a place of your own, for what is not ready for others',
	method: 'POST',
	path: '/projects/{project}/desk',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['desk.made']
});

export const desk = view({
	name: 'desk',
	summary: 'Your desk in a project',
	path: '/projects/{project}/desk',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		/** Null while you have made none. */
		id: z.string().nullable(),
		/** Whether you may have one; people outside may not. */
		may: z.boolean()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
