import { eq } from 'drizzle-orm';
import { createTransport, type Transporter } from 'nodemailer';
import type { Config } from '../config';
import type { Database } from '../db';
import { mail } from '../db/schema';

/** Sends the mail of the outbox by SMTP. Without a server set, mail stays waiting and can be read in the outbox. */
export class Mailer {
	private readonly transport: Transporter | null;

	constructor(
		private readonly config: Config,
		private readonly database: Database
	) {
		this.transport = config.smtpUrl ? createTransport(config.smtpUrl) : null;
	}

	/** Sends one mail; rejects when the server did not take it, so that the job is tried again. */
	async send(mailId: string): Promise<void> {
		const { db } = this.database;
		const [row] = await db.select().from(mail).where(eq(mail.id, mailId));
		if (!row || row.state === 'sent') return;
		if (!this.transport) {
			await db.update(mail).set({ trouble: 'No mail server is set (SMTP_URL).' }).where(eq(mail.id, mailId));
			return;
		}
		try {
			await this.transport.sendMail({
				from: this.config.mailFrom,
				to: { name: row.toName, address: row.toAddress },
				subject: row.subject,
				text: row.body,
				...(row.html ? { html: row.html } : {}),
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
