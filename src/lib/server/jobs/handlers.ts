import { signHeads } from '../heads';
import { cleanUploads } from '../content';
import { drawPreview, learnWords, readContent, readMissed } from '../reading';
import { resumableOf } from '../resumable';
import { checkOne } from '../arrivals';
import { forgetOldTries } from '../tries';
import type { Mailer } from '../mail/send';
import type { Services } from '../services';
import type { Handlers } from './jobs';
import { remindStaleLocks, sendDigests, tellOverdue } from './reminders';

/** What each job does. All can be done twice without harm. */
export function handlers(services: Services, mailer: Mailer): Handlers {
	const { db } = services.database;
	return {
		'read-content': ({ hash }) => readContent(services, hash),
		'draw-preview': ({ hash }) => drawPreview(services, hash),
		'read-missed': () => readMissed(services),
		'learn-words': () => learnWords(db),
		'send-mail': ({ mailId }) => mailer.send(mailId),
		'clean-uploads': async () => {
			await cleanUploads(services, new Date());
			await resumableOf(services).clean();
			await forgetOldTries(services.database, new Date());
		},
		'sign-heads': async (data) => {
			await signHeads(db, services.config.home, new Date(), data?.project ?? null);
		},
		'remind-stale-locks': () => remindStaleLocks(services),
		'check-arrival': ({ arrivalId }) => checkOne(services, arrivalId),
		'tell-overdue': () => tellOverdue(services),
		'send-digests': () => sendDigests(services, new Date())
	};
}
