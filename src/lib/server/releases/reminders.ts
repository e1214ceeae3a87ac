import { and, eq, gt, isNotNull, isNull, ne, sql, type SQL } from 'drizzle-orm';
import {
	releaseNumber,
	reminderDue,
	replyDayOf,
	toRemind,
	USUAL_RHYTHM,
	type Reminder,
	type ReminderRhythm
} from '../../core/releases';
import { dayOf, dayWords } from '../../core/time/days';
import { calendarOf } from '../../core/time/working-days';
import { tellNotices } from '../notices/tell';
import { addressOf } from '../passes/acts-given';
import type { Querier, Tx } from '../platform/db';
import { colleague, member, pass, project, release, releaseRecipient } from '../platform/db/schema';
import { newId } from '../platform/ids';
import { log } from '../platform/log';
import { putMail } from '../platform/mail/put';
import type { Services } from '../platform/services';
import { writeEvents } from '../trail/write';
import { GETS, HAS_SIGNED, replyOwed } from './recipients';

/** Tells the controllers, once a release, that a reply to it is overdue. */
export async function tellOverdue(services: Services): Promise<void> {
	const { db } = services.database;
	const late = await db
		.select({ release, project, by: replyOwed() })
		.from(release)
		.innerJoin(project, eq(project.id, release.projectId))
		.where(
			and(
				eq(release.state, 'issued'),
				sql`${replyOwed()} < (now() at time zone ${project.timeZone})::date::text`,
				sql`not exists (select 1 from notice n where n.release_id = ${release.id} and n.kind = 'release-overdue')`
			)
		);
	for (const one of late) {
		await db.transaction(async (tx) => {
			const controllers = await tx
				.select({ id: member.personId })
				.from(member)
				.where(and(eq(member.projectId, one.project.id), eq(member.controller, true), isNull(member.leftAt)));
			await tellNotices(
				{ tx, services, project: one.project, now: new Date(), newId },
				{
					kind: 'release-overdue',
					people: controllers.map((c) => c.id),
					releaseId: one.release.id,
					sentence: `A reply to release ${releaseNumber(one.release.number)}, “${one.release.title}”, was asked by ${dayWords(one.by!, dayOf(new Date(), one.project.timeZone))}.`,
					way: `releases/${one.release.number}`
				}
			);
		});
	}
}

/** Issued releases whose recipients have an open pass, with what reminders depend on. @param only which of them */
const asked = (db: Querier, now: Date, only?: SQL) =>
	db
		.select({
			release,
			project,
			pass,
			share: releaseRecipient,
			answered: sql<boolean>`not exists (select 1 from release_item i, release_recipient rr
				where rr.pass_id = ${pass.id} and ${GETS} and i.outcome is null and not ${HAS_SIGNED})`
		})
		.from(release)
		.innerJoin(project, eq(project.id, release.projectId))
		.innerJoin(releaseRecipient, eq(releaseRecipient.releaseId, release.id))
		.innerJoin(
			pass,
			and(
				eq(pass.id, releaseRecipient.passId),
				isNull(pass.withdrawnAt),
				gt(pass.endsAt, now),
				isNotNull(pass.holderEmail),
				// Of passes made long ago the address was not kept.
				isNotNull(pass.sealedSecret)
			)
		)
		.where(and(eq(release.state, 'issued'), ne(releaseRecipient.expects, 'information'), only));
type AskedRow = Awaited<ReturnType<typeof asked>>[number];

function dueOf(one: AskedRow, rhythm: ReminderRhythm, now: Date): Reminder | null {
	const day = (at: Date) => dayOf(at, one.project.timeZone);
	return reminderDue(
		{
			issued: day(one.release.issuedAt!),
			replyBy: replyDayOf(one.release, one.share),
			received: one.pass.receivedAt !== null,
			answered: one.share.expects === 'verdicts' ? one.answered : one.pass.receivedAt !== null
		},
		rhythm,
		calendarOf(one.project.settings),
		day(now),
		one.share.remindedAt && day(one.share.remindedAt)
	);
}

/**
 * How many reminders of a project go out next if its rhythm were another.
 * @returns numbers of the releases
 */
export async function remindersUnder(
	db: Querier,
	projectId: string,
	rhythm: ReminderRhythm,
	now: Date
): Promise<number[]> {
	const rows = await asked(db, now, eq(release.projectId, projectId));
	return [...new Set(rows.filter((one) => dueOf(one, rhythm, now)).map((one) => one.release.number))];
}

/** Reminds recipients of receipts and replies by the rhythm of each project (T13), each at most once a day. */
export async function remindRecipients(services: Services, now = new Date()): Promise<void> {
	const { db } = services.database;
	for (const one of await asked(db, now)) {
		const rhythm = one.project.settings.reminders ?? USUAL_RHYTHM;
		if (!dueOf(one, rhythm, now)) continue;
		const reminding = db.transaction(async (tx) => {
			// Another server may be at it, or the answer may have come: all of it is looked at again.
			await tx.select().from(release).where(eq(release.id, one.release.id)).for('update');
			const [held] = await asked(tx, now, eq(pass.id, one.pass.id));
			const of = held && dueOf(held, rhythm, now);
			if (of) await remind(tx, services, held, of, now);
		});
		// One that cannot be reminded keeps no other from it.
		await reminding.catch((error: unknown) => log.error({ release: one.release.id, error }, 'not reminded'));
	}
}

const SAYS: Record<Reminder, string> = {
	receipt: 'was sent to you. Its receipt is not confirmed yet',
	soon: 'waits for your reply',
	overdue: 'still waits for your reply'
};

async function remind(tx: Tx, services: Services, one: AskedRow, of: Reminder, now: Date): Promise<void> {
	const { release: about, project: here, pass: held } = one;
	const number = releaseNumber(about.number);
	const replyBy = replyDayOf(one.release, one.share);
	const colleagues = await tx
		.select({ pass, instead: colleague.instead })
		.from(colleague)
		.innerJoin(pass, and(eq(pass.id, colleague.ownPassId), isNull(pass.withdrawnAt), gt(pass.endsAt, now)))
		.where(eq(colleague.passId, held.id));
	for (const { pass: own } of toRemind({ pass: held, instead: false }, colleagues)) {
		const link = addressOf({ origin: services.config.origin, secret: services.config.secret }, own);
		await putMail(tx, services, {
			projectId: here.id,
			to: { name: own.holderName, address: own.holderEmail! },
			subject: `${here.code} release ${number}: ${of === 'receipt' ? 'please confirm receipt' : of === 'soon' ? 'your reply is due soon' : 'your reply is overdue'}`,
			letter: {
				says: [`Release ${number}, “${about.title}”, ${SAYS[of]}.`],
				facts: replyBy ? [['Reply asked by', dayWords(replyBy, dayOf(now, here.timeZone))]] : [],
				link: { word: 'Open the release', href: link },
				after: ['No account is needed. Once you have answered, nobody reminds you any more.']
			},
			secrets: [link],
			now
		});
	}
	await tx.update(releaseRecipient).set({ remindedAt: now }).where(eq(releaseRecipient.passId, held.id));
	await writeEvents(tx, here.id, now, { id: null, name: 'Cupboard' }, [
		{
			kind: 'release.reminded',
			releaseId: about.id,
			details: { number: about.number, to: held.holderName, of }
		}
	]);
}
