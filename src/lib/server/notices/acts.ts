import { and, eq, inArray, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { NOTICE_CHOICES, NOTICE_KINDS } from '../../core/notices/notices';
import { Problem } from '../../core/acts/problem';
import { notice, noticeChoice, session } from '../platform/db/schema';
import { defineAct } from '../platform/runner/act';
import { id, projectKey } from '../platform/runner/fields';

export const readNotices = defineAct({
	name: 'readNotices',
	summary: 'Say that you have read notices; all of them when none is named',
	method: 'POST',
	path: '/projects/{project}/notices/read',
	input: z.strictObject({ project: projectKey, notices: z.array(id).max(200).default([]) }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: [],
	async run({ tx, project, person: by, now }, input) {
		const done = await tx
			.update(notice)
			.set({ readAt: now })
			.where(
				and(
					eq(notice.projectId, project.id),
					eq(notice.personId, by.id),
					isNull(notice.readAt),
					input.notices.length ? inArray(notice.id, input.notices) : undefined
				)
			)
			.returning({ id: notice.id });
		return { read: done.length };
	}
});

export const chooseNotices = defineAct({
	name: 'chooseNotices',
	summary: 'Choose how to be told of a kind of thing by mail: at once, in one mail a day, or never',
	method: 'PUT',
	path: '/me/notice-choices/{kind}',
	input: z.strictObject({ kind: z.enum(NOTICE_KINDS), choice: z.enum(NOTICE_CHOICES) }),
	at: { kind: 'self' },
	events: [],
	async run({ tx, person: by }, { kind, choice }) {
		await tx
			.insert(noticeChoice)
			.values({ personId: by.id, kind, choice })
			.onConflictDoUpdate({ target: [noticeChoice.personId, noticeChoice.kind], set: { choice } });
		return {};
	}
});

export const endSession = defineAct({
	name: 'endSession',
	summary: 'End one of your own sessions',
	method: 'DELETE',
	path: '/me/sessions/{session}',
	input: z.strictObject({ session: id }),
	at: { kind: 'self' },
	events: [],
	async run({ tx, person: by }, input) {
		const done = await tx
			.delete(session)
			.where(and(eq(session.id, input.session), eq(session.userId, by.id)))
			.returning({ id: session.id });
		if (!done.length) throw new Problem('conflict', 'This session has ended already.');
		return {};
	}
});
