import type { Tx } from '../db';
import { mail } from '../db/schema';
import { newId } from '../ids';
import type { Services } from '../services';

/** Puts a mail in the outbox inside the caller's transaction; it is sent after the commit. */
export async function putMail(
	tx: Tx,
	services: Services,
	what: {
		projectId: string | null;
		to: { name: string; address: string };
		subject: string;
		body: string;
		/** What of it only the addressee may read. */
		secrets?: string[];
		now: Date;
	}
): Promise<void> {
	const id = newId();
	await tx.insert(mail).values({
		id,
		projectId: what.projectId,
		toName: what.to.name,
		toAddress: what.to.address,
		subject: what.subject,
		body: what.body,
		secrets: what.secrets ?? [],
		createdAt: what.now
	});
	await services.jobs.enqueue(tx, 'send-mail', { mailId: id });
}
