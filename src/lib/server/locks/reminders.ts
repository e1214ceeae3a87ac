import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { groupedBy } from '../../core/lists/group';
import { staleFrom } from '../../core/locks/locks';
import { dayWordsOf } from '../../core/time/days';
import { DAY } from '../../core/time/spans';
import { idsOf, loadReach } from '../access/reach';
import { departmentMember, document, lock, notice, person, place, project } from '../platform/db/schema';
import { newId } from '../platform/ids';
import { putMail } from '../platform/mail/put';
import { tellNotices } from '../notices/tell';
import { offDesks } from '../places/desks';
import type { Services } from '../platform/services';
import { writeEvents } from '../trail/write';

/** How long after its holder the leads are told of a stale lock, in milliseconds. */
const LEADS_AFTER = DAY;

/**
 * Reminds of what is still in hand past its end (L2): the holder first, and a day later the leads of the shelf's
 * department; each once a lock.
 */
export async function remindStaleLocks(services: Services, now = new Date()): Promise<void> {
	const { db } = services.database;
	const open = await db
		.select({
			lock,
			holder: person.name,
			number: document.number,
			title: document.title,
			path: place.path,
			project
		})
		.from(lock)
		.innerJoin(document, eq(document.id, lock.documentId))
		.innerJoin(place, eq(place.id, document.id))
		.innerJoin(project, eq(project.id, document.projectId))
		.innerJoin(person, eq(person.id, lock.holderId))
		// On a desk nobody waits for it.
		.where(and(isNull(lock.endedAt), eq(document.live, true), offDesks(place.scope)));
	for (const one of open) {
		const facts = {
			takenAt: one.lock.takenAt.getTime(),
			expectedEnd: one.lock.expectedEnd?.getTime() ?? null
		};
		const since = staleFrom(facts, one.project.settings.lockLimitDays);
		if (now.getTime() < since) continue;
		const what = `${one.number}, “${one.title}”, in hand since ${dayWordsOf(one.lock.takenAt, one.project.timeZone, now)}`;
		await remindOnce(services, one, now, 'holder', [one.lock.holderId], {
			sentence: `You still have ${what}.`,
			more: 'Hand in what you have, save it and keep the lock, say anew until when, or give the lock back.'
		});
		if (now.getTime() < since + LEADS_AFTER) continue;
		const leads = await db
			.select({ id: departmentMember.personId })
			.from(departmentMember)
			.innerJoin(place, eq(place.departmentId, departmentMember.departmentId))
			.where(and(eq(place.id, idsOf(one.path)[0]!), eq(departmentMember.lead, true)));
		const others = leads.map((l) => l.id).filter((lead) => lead !== one.lock.holderId);
		await remindOnce(services, one, now, 'leads', others, {
			sentence: `${one.holder} still has ${what}.`,
			more: 'It is past its end. You can break the lock; what they hand in later is kept beside the line.'
		});
	}
}

interface Stale {
	lock: typeof lock.$inferSelect;
	holder: string;
	number: string;
	project: typeof project.$inferSelect;
}

async function remindOnce(
	services: Services,
	one: Stale,
	now: Date,
	whom: 'holder' | 'leads',
	people: string[],
	says: { sentence: string; more: string }
): Promise<void> {
	if (!people.length) return;
	await services.database.db.transaction(async (tx) => {
		const told = await tx.execute(
			sql`select 1 from event where project_id = ${one.project.id} and document_id = ${one.lock.documentId} and kind = 'lock.stale' and details->>'lock' = ${one.lock.id} and coalesce(details->>'told', 'holder') = ${whom} limit 1`
		);
		if (told.length) return;
		await tellNotices(
			{ tx, services, project: one.project, now, newId },
			{
				kind: 'lock-stale',
				people,
				placeId: one.lock.documentId,
				...says,
				way: `document/${one.lock.documentId}`
			}
		);
		await writeEvents(tx, one.project.id, now, { id: null, name: 'Cupboard' }, [
			{
				kind: 'lock.stale',
				placeId: one.lock.documentId,
				documentId: one.lock.documentId,
				details: { number: one.number, lock: one.lock.id, holder: one.holder, told: whom }
			}
		]);
	});
}

/** Sends each person one mail a project with what they chose to be told once a day, leaving out what is out of sight. */
export async function sendDigests(services: Services, now: Date): Promise<void> {
	const { db } = services.database;
	const waiting = await db
		.select({ notice, name: person.name, email: person.email, project })
		.from(notice)
		.innerJoin(person, eq(person.id, notice.personId))
		.innerJoin(project, eq(project.id, notice.projectId))
		.where(isNull(notice.mailedAt))
		.orderBy(asc(notice.createdAt))
		.limit(20_000);
	const bundles = groupedBy(waiting, ({ notice: of }) => `${of.projectId}:${of.personId}`);
	for (const bundle of bundles.values()) {
		const [first] = bundle;
		await db.transaction(async (tx) => {
			const reach = await loadReach(tx, first!.project.id, first!.notice.personId, now);
			const places = bundle.flatMap((b) => b.notice.placeId ?? []);
			const seen =
				reach && places.length
					? await tx
							.select({ id: place.id })
							.from(place)
							.where(and(inArray(place.id, places), reach.sees(place.scope)))
					: [];
			const shown = bundle.filter(
				(b) => reach && (b.notice.placeId === null || seen.some((s) => s.id === b.notice.placeId))
			);
			await tx
				.update(notice)
				.set({ mailedAt: now })
				.where(
					inArray(
						notice.id,
						bundle.map((b) => b.notice.id)
					)
				);
			if (!shown.length) return;
			await putMail(tx, services, {
				projectId: first!.project.id,
				to: { name: first!.name, address: first!.email },
				subject: `${first!.project.code}: ${shown.length} ${shown.length === 1 ? 'thing' : 'things'} since yesterday`,
				letter: {
					says: ['This happened since yesterday:'],
					list: shown.map((b) => ({
						says: b.notice.sentence,
						href: `${services.config.origin}${b.notice.way}`
					}))
				},
				now
			});
		});
	}
}
