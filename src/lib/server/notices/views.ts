import { and, count, desc, eq, isNull, or } from 'drizzle-orm';
import { z } from 'zod';
import { DEFAULT_CHOICE, NOTICE_KINDS } from '../../core/notices/notices';
import { defineView } from '../platform/runner/act';
import { projectKey } from '../platform/runner/fields';
import { notice, noticeChoice, place, session } from '../platform/db/schema';

export const notices = defineView({
	name: 'notices',
	summary: 'What you have been told in a project, newest first; nothing of what you may no longer look at',
	path: '/projects/{project}/notices',
	input: z.strictObject({ project: projectKey, limit: z.coerce.number().int().min(1).max(200).default(50) }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach, person: me }, input) {
		const mine = and(
			eq(notice.projectId, project.id),
			eq(notice.personId, me.id),
			or(isNull(notice.placeId), reach.sees(place.scope))
		);
		const rows = await db
			.select({
				id: notice.id,
				kind: notice.kind,
				sentence: notice.sentence,
				way: notice.way,
				readAt: notice.readAt,
				at: notice.createdAt
			})
			.from(notice)
			.leftJoin(place, eq(place.id, notice.placeId))
			.where(mine)
			.orderBy(desc(notice.createdAt), desc(notice.id))
			.limit(input.limit);
		const [open] = await db
			.select({ n: count() })
			.from(notice)
			.leftJoin(place, eq(place.id, notice.placeId))
			.where(and(mine, isNull(notice.readAt)));
		return {
			unread: open!.n,
			notices: rows.map((r) => ({ ...r, at: r.at.toISOString(), readAt: r.readAt?.toISOString() ?? null }))
		};
	}
});

export const noticeChoices = defineView({
	name: 'noticeChoices',
	summary: 'How you want to be told of each kind of thing by mail',
	path: '/me/notice-choices',
	input: z.strictObject({}),
	at: { kind: 'self' },
	async run({ db, person: me }) {
		const rows = await db.select().from(noticeChoice).where(eq(noticeChoice.personId, me.id));
		return {
			choices: NOTICE_KINDS.map((kind) => ({
				kind,
				choice: rows.find((r) => r.kind === kind)?.choice ?? DEFAULT_CHOICE[kind]
			}))
		};
	}
});

export const mySessions = defineView({
	name: 'mySessions',
	summary: 'Where you are signed in',
	path: '/me/sessions',
	input: z.strictObject({}),
	at: { kind: 'self' },
	async run({ db, person: me, now }) {
		const rows = await db
			.select({
				id: session.id,
				userAgent: session.userAgent,
				createdAt: session.createdAt,
				updatedAt: session.updatedAt,
				expiresAt: session.expiresAt
			})
			.from(session)
			.where(eq(session.userId, me.id))
			.orderBy(desc(session.updatedAt));
		return {
			sessions: rows
				.filter((r) => r.expiresAt > now)
				.map((r) => ({
					id: r.id,
					userAgent: r.userAgent ?? '',
					createdAt: r.createdAt.toISOString(),
					updatedAt: r.updatedAt.toISOString()
				}))
		};
	}
});
