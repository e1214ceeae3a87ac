import { index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core';
import type { Manifest } from '../../../../core/releases';
import { PURPOSES } from '../../../../core/revisions/revisions';
import { CHECKS, RELEASE_STATES, VERDICTS } from '../../../../core/releases';
import { created, oneOf, time } from './columns';
import { content, document, version } from './documents';
import { pass } from './passes';
import { person } from './people';
import { project } from './project';

export const recipient = pgTable(
	'recipient',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		name: text().notNull(),
		company: text().notNull(),
		email: text().notNull(),
		createdAt: created()
	},
	(t) => [uniqueIndex('recipient_email').on(t.projectId, t.email)]
);

export const release = pgTable(
	'release',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		number: integer().notNull(),
		title: text().notNull(),
		purpose: text({ enum: PURPOSES }).notNull(),
		state: text({ enum: RELEASE_STATES }).notNull(),
		recipientId: text('recipient_id')
			.notNull()
			.references(() => recipient.id),
		approverId: text('approver_id')
			.notNull()
			.references(() => person.id),
		/** Day by which the client's reply is asked, as YYYY-MM-DD. */
		replyBy: text('reply_by'),
		builtBy: text('built_by')
			.notNull()
			.references(() => person.id),
		createdAt: created(),
		askedAt: time('asked_at'),
		approvedAt: time('approved_at'),
		sentBackReason: text('sent_back_reason'),
		cancelledAt: time('cancelled_at'),
		cancelledReason: text('cancelled_reason'),
		/** SHA-256 of the build as it was approved. */
		approvedDigest: text('approved_digest'),
		issuedAt: time('issued_at'),
		/** When its recipient was last reminded of receipt or reply. */
		remindedAt: time('reminded_at'),
		issuedBy: text('issued_by').references(() => person.id),
		manifest: jsonb().$type<Manifest>(),
		manifestHash: text('manifest_hash'),
		/** Ed25519 over the manifest's canonical JSON, base64. */
		manifestSignature: text('manifest_signature'),
		coverNoteHash: text('cover_note_hash').references(() => content.hash)
	},
	(t) => [
		oneOf(t.state, RELEASE_STATES),
		oneOf(t.purpose, PURPOSES),
		uniqueIndex('release_number').on(t.projectId, t.number)
	]
);

export const releaseItem = pgTable(
	'release_item',
	{
		releaseId: text('release_id')
			.notNull()
			.references(() => release.id),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		position: integer().notNull(),
		/** The version chosen while building, the issued one afterwards. */
		versionId: text('version_id')
			.notNull()
			.references(() => version.id),
		/** Label it had before issue, for "goes from → to". */
		fromLabel: text('from_label').notNull(),
		/** Set at issue: the hash that was approved and sent. */
		pinnedHash: text('pinned_hash').references(() => content.hash),
		/** Name under which the file goes out. */
		outgoingName: text('outgoing_name')
	},
	(t) => [
		primaryKey({ columns: [t.releaseId, t.documentId] }),
		index('release_item_by_document').on(t.documentId)
	]
);

/** A check that asked to look at something, and why it goes out all the same. */
export const releaseOverride = pgTable(
	'release_override',
	{
		releaseId: text('release_id')
			.notNull()
			.references(() => release.id),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		check: text({ enum: CHECKS }).notNull(),
		/** What the check said; another sentence asks again. */
		sentence: text().notNull(),
		reason: text().notNull(),
		decidedBy: text('decided_by')
			.notNull()
			.references(() => person.id),
		decidedAt: time('decided_at').notNull()
	},
	(t) => [oneOf(t.check, CHECKS), primaryKey({ columns: [t.releaseId, t.documentId, t.check] })]
);

export const verdict = pgTable(
	'verdict',
	{
		passId: text('pass_id')
			.notNull()
			.references(() => pass.id),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		code: text({ enum: VERDICTS }),
		remark: text().notNull().default(''),
		/** Null while only saved for later. */
		signedAt: time('signed_at'),
		signedName: text('signed_name')
	},
	(t) => [oneOf(t.code, VERDICTS), primaryKey({ columns: [t.passId, t.documentId] })]
);
