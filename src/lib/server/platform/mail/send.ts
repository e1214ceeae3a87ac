import { eq } from 'drizzle-orm';
import { createTransport, type Transporter } from 'nodemailer';
import type { Config } from '../config';
import type { Database } from '../db';
import { mail, project } from '../db/schema';
import type { Store } from '../store/store';

/** Sends the mail of the outbox by SMTP. Without a server set, mail stays waiting and can be read in the outbox. */
export class Mailer {
	private readonly transport: Transporter | null;

	constructor(
		private readonly config: Config,
		private readonly database: Database,
		private readonly store: Pick<Store, 'read'>
	) {
		this.transport = config.smtpUrl ? createTransport(config.smtpUrl) : null;
	}

	/** Sends one mail; rejects when the server did not take it, so that the job is tried again. */
	async send(mailId: string): Promise<void> {
		const { db } = this.database;
		const [found] = await db
			.select({ row: mail, settings: project.settings })
			.from(mail)
			.leftJoin(project, eq(project.id, mail.projectId))
			.where(eq(mail.id, mailId));
		if (!found || found.row.state === 'sent') return;
		const { row } = found;
		const sender = found.settings?.mailSender;
		if (!this.transport) {
			await db.update(mail).set({ trouble: 'No mail server is set (SMTP_URL).' }).where(eq(mail.id, mailId));
			return;
		}
		try {
			await this.transport.sendMail({
				from: sender?.name
					? { name: sender.name, address: addressIn(this.config.mailFrom) }
					: this.config.mailFrom,
				...(sender?.replyTo ? { replyTo: sender.replyTo } : {}),
				to: { name: row.toName, address: row.toAddress },
				subject: row.subject,
				text: row.body,
				...(row.html ? { html: row.html } : {}),
				...(row.attachmentHash
					? {
							attachments: [
								{ filename: row.attachmentName ?? 'attachment', content: this.store.read(row.attachmentHash) }
							]
						}
					: {}),
				messageId: `<${row.id}@cupboard.local>`
			});
			await db
				.update(mail)
				.set({ state: 'sent', sentAt: new Date(), trouble: null })
				.where(eq(mail.id, mailId));
		} catch (error) {
			await db
				.update(mail)
				.set({ trouble: `The mail server did not take it: ${(error as Error).message}`.slice(0, 300) })
				.where(eq(mail.id, mailId));
			throw error;
		}
	}

	close(): void {
		this.transport?.close();
	}
}

/** The address alone of a sender as it is configured: `Cupboard <cupboard@localhost>`. */
const addressIn = (from: string) => /<([^>]+)>/.exec(from)?.[1] ?? from;
