import { and, eq, inArray } from 'drizzle-orm';
import { DEFAULT_CHOICE, type NoticeKind } from '../../core/notices/notices';
import { shortened } from '../../core/words/sentences';
import { isOnDesk } from '../places/desks';
import type { Tx } from '../platform/db';
import { notice, noticeChoice, person } from '../platform/db/schema';
import { putMail } from '../platform/mail/put';
import type { Services } from '../platform/services';

/** What some people are told. */
export interface Notify {
	kind: NoticeKind;
	people: string[];
	placeId?: string;
	releaseId?: string;
	sentence: string;
	/** Path within the project to go to. */
	way: string;
	/** More for the mail, below the sentence. */
	more?: string;
}

/** Most signs of a mail’s subject. */
const MOST_OF_SUBJECT = 120;

/** Most people told by one act; more than that is a message to everybody, which this is not for. */
const MOST = 2_000;

/**
 * Tells people something, in the application at once and by mail as each has chosen: at once, with the day's digest,
 * or never. Runs inside the caller's transaction.
 */
export async function tellNotices(
	context: {
		tx: Tx;
		services: Services;
		project: { id: string; code: string; name: string };
		now: Date;
		newId: () => string;
	},
	what: Notify
): Promise<void> {
	const ids = [...new Set(what.people)].slice(0, MOST);
	if (!ids.length) return;
	const { tx, services, project, now, newId } = context;
	const people = await tx
		.select({ id: person.id, name: person.name, email: person.email, choice: noticeChoice.choice })
		.from(person)
		.leftJoin(noticeChoice, and(eq(noticeChoice.personId, person.id), eq(noticeChoice.kind, what.kind)))
		.where(inArray(person.id, ids));
	const code = project.code.toLowerCase();
	// Document control reads in the outbox what was sent, and nobody else what lies on a desk (A5).
	const mails = !what.placeId || !(await isOnDesk(tx, what.placeId));
	for (const one of people) {
		const choice = mails ? (one.choice ?? DEFAULT_CHOICE[what.kind]) : 'never';
		await tx.insert(notice).values({
			id: newId(),
			projectId: project.id,
			personId: one.id,
			kind: what.kind,
			placeId: what.placeId ?? null,
			releaseId: what.releaseId ?? null,
			sentence: what.sentence,
			way: `/${code}/${what.way}`,
			mailedAt: choice === 'digest' ? null : now,
			createdAt: now
		});
		if (choice === 'once')
			await putMail(tx, services, {
				projectId: project.id,
				to: { name: one.name, address: one.email },
				subject: `${project.code}: ${shortened(what.sentence.split('\n')[0]!, MOST_OF_SUBJECT)}`,
				letter: {
					says: [what.sentence, ...(what.more ? [what.more] : [])],
					link: { word: 'Open it', href: `${services.config.origin}/${code}/${what.way}` }
				},
				now
			});
	}
}
