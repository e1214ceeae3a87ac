import { and, eq, isNull, sql } from 'drizzle-orm';
import { isStale } from '../../core/locks';
import { cleanUploads } from '../content';
import { content, document, lock, mail, person, project } from '../db/schema';
import { newId } from '../ids';
import { PREVIEWS } from '../live';
import type { Mailer } from '../mail/send';
import type { Services } from '../services';
import { writeEvents } from '../trail';
import type { Handlers } from './jobs';

/** What each job does. All can be done twice without harm. */
export function handlers(services: Services, mailer: Mailer): Handlers {
	const { db } = services.database;
	return {
		async 'make-preview'({ hash }) {
			const [row] = await db.select().from(content).where(eq(content.hash, hash));
			if (!row || row.preview === 'made' || row.preview === 'none') return;
			const seen = row.inspection ?? (await services.inspector.inspect(hash, row.mediaType, row.size));
			const made =
				seen.fault === null &&
				(await services.inspector.makePreview(hash, row.mediaType, row.size).catch(() => false));
			await db
				.update(content)
				.set({ inspection: seen, preview: made ? 'made' : 'none' })
				.where(eq(content.hash, hash));
			if (made) await db.execute(sql`select pg_notify(${PREVIEWS}, ${hash})`);
		},
		'send-mail': ({ mailId }) => mailer.send(mailId),
		'clean-uploads': () => cleanUploads(services, new Date()),
		async 'remind-stale-locks'() {
			const now = new Date();
			const open = await db
				.select({ lock, holder: person, number: document.number, title: document.title, project })
				.from(lock)
				.innerJoin(document, eq(document.id, lock.documentId))
				.innerJoin(project, eq(project.id, document.projectId))
				.innerJoin(person, eq(person.id, lock.holderId))
				.where(and(isNull(lock.endedAt), eq(document.live, true)));
			for (const one of open) {
				const facts = {
					takenAt: one.lock.takenAt.getTime(),
					expectedEnd: one.lock.expectedEnd?.getTime() ?? null
				};
				if (!isStale(facts, one.project.settings.lockLimitDays, now.getTime())) continue;
				await db.transaction(async (tx) => {
					const told = await tx.execute(
						sql`select 1 from event where project_id = ${one.project.id} and kind = 'lock.stale' and details->>'lock' = ${one.lock.id} limit 1`
					);
					if (told.length) return;
					const id = newId();
					await tx.insert(mail).values({
						id,
						projectId: one.project.id,
						toName: one.holder.name,
						toAddress: one.holder.email,
						subject: `${one.number} is still in your hand`,
						body: `Dear ${one.holder.name},\n\nYou have had ${one.number}, “${one.title}”, in hand since ${one.lock.takenAt.toISOString().slice(0, 10)}. Hand in what you have, save it and keep the lock, or give the lock back:\n\n${services.config.origin}/${one.project.code.toLowerCase()}/document/${one.lock.documentId}\n`
					});
					await services.jobs.enqueue(tx, 'send-mail', { mailId: id });
					await writeEvents(tx, one.project.id, now, { id: null, name: 'Cupboard' }, [
						{
							kind: 'lock.stale',
							placeId: one.lock.documentId,
							documentId: one.lock.documentId,
							details: { number: one.number, lock: one.lock.id, holder: one.holder.name }
						}
					]);
				});
			}
		}
	};
}
