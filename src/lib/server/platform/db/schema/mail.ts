import { index, pgTable, text } from 'drizzle-orm/pg-core';
import { created, oneOf, time } from './columns';
import { content } from './documents';
import { project } from './project';

const MAIL_STATES = ['waiting', 'sent', 'failed'] as const;

export const mail = pgTable(
	'mail',
	{
		id: text().primaryKey(),
		projectId: text('project_id').references(() => project.id),
		toName: text('to_name').notNull(),
		toAddress: text('to_address').notNull(),
		subject: text().notNull(),
		/** As plain text and as HTML; the same words. */
		body: text().notNull(),
		html: text().notNull().default(''),
		/** What of the body only its addressee may read: links that open something, codes. */
		secrets: text().array().notNull().default([]),
		/** A file that goes with it. */
		attachmentHash: text('attachment_hash').references(() => content.hash),
		attachmentName: text('attachment_name'),
		state: text({ enum: MAIL_STATES }).notNull().default('waiting'),
		/** Why it has not gone out yet. */
		trouble: text(),
		createdAt: created(),
		sentAt: time('sent_at'),
		/** When the demo's own mail server took it in. */
		receivedAt: time('received_at')
	},
	(t) => [oneOf(t.state, MAIL_STATES), index('mail_by_project').on(t.projectId, t.createdAt)]
);
