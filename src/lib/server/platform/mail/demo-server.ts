import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import type { Database } from '../db';
import { mail } from '../db/schema';

/**
 * The small mail server of the demo: takes in every mail on loopback, keeps it as a file and notes its arrival in
 * the outbox. It passes nothing on. Gives the address to send to and the function that stops it.
 */
export async function startDemoMail(
	home: string,
	database: Database
): Promise<{ url: string; close: () => Promise<void> }> {
	const folder = join(home, 'mail');
	await mkdir(folder, { recursive: true });
	const server = new SMTPServer({
		authOptional: true,
		disabledCommands: ['STARTTLS', 'AUTH'],
		size: 20 * 1024 * 1024,
		onData(stream, _session, done) {
			simpleParser(stream)
				.then(async (message) => {
					const mailId = /^<([a-z0-9]+)@/.exec(message.messageId ?? '')?.[1] ?? 'unknown';
					const to = Array.isArray(message.to) ? message.to[0] : message.to;
					await writeFile(
						join(folder, `${mailId}.txt`),
						`To: ${to?.text ?? ''}\nSubject: ${message.subject ?? ''}\n\n${message.text ?? ''}`
					);
					await database.db.update(mail).set({ receivedAt: new Date() }).where(eq(mail.id, mailId));
				})
				.then(
					() => done(),
					(error: Error) => done(error)
				);
		}
	});
	server.on('error', () => {});
	await new Promise<void>((resolve, reject) => {
		server.once('error', reject);
		server.listen(0, '127.0.0.1', resolve);
	});
	const address = server.server.address() as { port: number };
	return {
		url: `smtp://127.0.0.1:${address.port}`,
		close: () => new Promise((resolve) => server.close(() => resolve()))
	};
}
