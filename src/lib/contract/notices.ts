import { z } from 'zod';
import { NOTICE_CHOICES, NOTICE_KINDS } from '../core/notices/notices';
import { act, done, view } from './act';
import { id, moment, projectKey } from './fields';

export const readNotices = act({
	name: 'readNotices',
	summary: 'Say that you have read notices; all of them when none is named',
	method: 'POST',
	path: '/projects/{project}/notices/read',
	input: z.strictObject({ project: projectKey, notices: z.array(id).max(200).default([]) }),
	output: z.strictObject({ read: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: []
});

export const chooseNotices = act({
	name: 'chooseNotices',
	summary: 'Choose how to be told of a kind of thing by mail: at once, in one mail a day, or never',
	method: 'PUT',
	path: '/me/notice-choices/{kind}',
	input: z.strictObject({ kind: z.enum(NOTICE_KINDS), choice: z.enum(NOTICE_CHOICES) }),
	output: done,
	at: { kind: 'self' },
	events: []
});

export const endSession = act({
	name: 'endSession',
	summary: 'End one of your own sessions',
	method: 'DELETE',
	path: '/me/sessions/{session}',
	input: z.strictObject({ session: id }),
	output: done,
	at: { kind: 'self' },
	events: []
});

export const notices = view({
	name: 'notices',
	summary: 'What you have been told in a project, newest first; nothing of what you may no longer look at',
	path: '/projects/{project}/notices',
	input: z.strictObject({ project: projectKey, limit: z.coerce.number().int().min(1).max(200).default(50) }),
	output: z.strictObject({
		unread: z.number(),
		notices: z.array(
			z.strictObject({
				at: moment,
				readAt: moment.nullable(),
				id: z.string(),
				kind: z.enum(NOTICE_KINDS),
				sentence: z.string(),
				way: z.string()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const noticeChoices = view({
	name: 'noticeChoices',
	summary: 'How you want to be told of each kind of thing by mail',
	path: '/me/notice-choices',
	input: z.strictObject({}),
	output: z.strictObject({
		choices: z.array(z.strictObject({ kind: z.enum(NOTICE_KINDS), choice: z.enum(NOTICE_CHOICES) }))
	}),
	at: { kind: 'self' }
});

export const mySessions = view({
	name: 'mySessions',
	summary: 'Where you are signed in',
	path: '/me/sessions',
	input: z.strictObject({}),
	output: z.strictObject({
		sessions: z.array(
			z.strictObject({ id: z.string(), userAgent: z.string(), createdAt: moment, updatedAt: moment })
		)
	}),
	at: { kind: 'self' }
});
