import { and, count, desc, eq, isNull, or } from 'drizzle-orm';
import * as contract from '../../contract/notices';
import { DEFAULT_CHOICE, NOTICE_KINDS } from '../../core/notices/notices';
import { answers } from '../platform/runner/act';
import { notice, noticeChoice, place, session } from '../platform/db/schema';

export const notices = answers(contract.notices, {
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

export const noticeChoices = answers(contract.noticeChoices, {
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

export const mySessions = answers(contract.mySessions, {
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
