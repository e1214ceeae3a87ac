import { signHeads } from '../trail/heads';
import { cleanUploads } from '../content/content';
import { drawPreview, learnWords, readContent, readMissed } from '../find/reading';
import { resumableOf } from '../content/resumable';
import { checkOne } from '../hatches/check';
import { forgetOldTries } from '../platform/auth/tries';
import type { Mailer } from '../platform/mail/send';
import type { Services } from '../platform/services';
import type { Handlers } from '../platform/jobs/jobs';
import { remindStaleLocks, sendDigests } from '../locks/reminders';
import { sendReports } from '../register/report';
import { layDrawn } from '../releases/drawn';
import { tellLateSteps } from '../releases/late';
import { remindRecipients, tellOverdue } from '../releases/reminders';

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
		'lay-drawn': (of) => layDrawn(services, of),
		'check-arrival': ({ arrivalId }) => checkOne(services, arrivalId),
		'tell-overdue': async () => {
			await tellOverdue(services);
			await tellLateSteps(services);
			await remindRecipients(services);
		},
		'send-digests': async () => {
			await sendDigests(services, new Date());
			await sendReports(services, new Date());
		}
	};
}
