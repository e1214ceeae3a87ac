import { eq } from 'drizzle-orm';
import { letterHtml, letterText, type Letter } from '../../../core/mail/letter';
import type { Tx } from '../db';
import { mail, project } from '../db/schema';
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
		letter: Letter;
		/** What of it only the addressee may read. */
		secrets?: string[];
		/** A file that goes with it, by the hash of its stored content. */
		attachment?: { hash: string; name: string };
		now: Date;
	}
): Promise<void> {
	const id = newId();
	const [about] = what.projectId
		? await tx.select({ name: project.name }).from(project).where(eq(project.id, what.projectId))
		: [];
	const envelope = { to: what.to.name, subject: what.subject, project: about?.name ?? null };
	await tx.insert(mail).values({
		id,
		projectId: what.projectId,
		toName: what.to.name,
		toAddress: what.to.address,
		subject: what.subject,
		body: letterText(envelope, what.letter),
		html: letterHtml(envelope, what.letter),
		secrets: what.secrets ?? [],
		attachmentHash: what.attachment?.hash ?? null,
		attachmentName: what.attachment?.name ?? null,
		createdAt: what.now
	});
	await services.jobs.enqueue(tx, 'send-mail', { mailId: id });
}
