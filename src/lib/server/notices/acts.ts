import { and, eq, inArray, isNull } from 'drizzle-orm';
import * as contract from '../../contract/notices';
import { Problem } from '../../core/acts/problem';
import { notice, noticeChoice, session } from '../platform/db/schema';
import { does } from '../platform/runner/act';

export const readNotices = does(contract.readNotices, {
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

export const chooseNotices = does(contract.chooseNotices, {
	async run({ tx, person: by }, { kind, choice }) {
		await tx
			.insert(noticeChoice)
			.values({ personId: by.id, kind, choice })
			.onConflictDoUpdate({ target: [noticeChoice.personId, noticeChoice.kind], set: { choice } });
		return {};
	}
});

export const endSession = does(contract.endSession, {
	async run({ tx, person: by }, input) {
		const done = await tx
			.delete(session)
			.where(and(eq(session.id, input.session), eq(session.userId, by.id)))
			.returning({ id: session.id });
		if (!done.length) throw new Problem('conflict', 'This session has ended already.');
		return {};
	}
});
