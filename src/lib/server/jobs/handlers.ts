import { eq, sql } from 'drizzle-orm';
import { cleanUploads } from '../content';
import { resumableOf } from '../resumable';
import { checkOne } from '../arrivals';
import { content } from '../db/schema';
import { PREVIEWS } from '../live';
import type { Mailer } from '../mail/send';
import type { Services } from '../services';
import type { Handlers } from './jobs';
import { remindStaleLocks, sendDigests, tellOverdue } from './reminders';

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
		'clean-uploads': async () => {
			await cleanUploads(services, new Date());
			await resumableOf(services).clean();
		},
		'remind-stale-locks': () => remindStaleLocks(services),
		'check-arrival': ({ arrivalId }) => checkOne(services, arrivalId),
		'tell-overdue': () => tellOverdue(services),
		'send-digests': () => sendDigests(services, new Date())
	};
}
