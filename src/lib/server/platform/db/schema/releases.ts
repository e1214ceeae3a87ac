import { sql } from 'drizzle-orm';
import {
	bigserial,
	boolean,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgTable,
	primaryKey,
	text,
	uniqueIndex
} from 'drizzle-orm/pg-core';
import type { Arrangement, Build, Manifest } from '../../../../core/releases';
import type { Drawn } from '../../../../core/releases/drawn';
import { APPROVER_KINDS, type Route } from '../../../../core/releases/route';
import { PURPOSES } from '../../../../core/revisions/revisions';
import {
	AS_ADDED,
	CHECKS,
	COLLEAGUE_STATES,
	EXPECTS,
	PROOFS,
	RELEASE_STATES,
	VERDICTS
} from '../../../../core/releases';
import { created, oneOf, time } from './columns';
import { content, document, version } from './documents';
import { pass } from './passes';
import { person } from './people';
import { project } from './project';
import { remark } from './remarks';

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
		/** What is said to those who get it, in the cover note and the mail. */
		words: text().notNull().default(''),
		/** How its documents leave (T6): with a stamp, with the marks on them burned in. */
		stamped: boolean().notNull().default(false),
		withMarks: boolean('with_marks').notNull().default(false),
		/** How its documents are listed. */
		arrangement: jsonb().$type<Arrangement>().notNull().default(AS_ADDED),
		/** Who must approve it, in which order. */
		route: jsonb().$type<Route>().notNull(),
		/** Day by which a reply is asked of those who have none of their own, as YYYY-MM-DD. */
		replyBy: text('reply_by'),
		builtBy: text('built_by')
			.notNull()
			.references(() => person.id),
		createdAt: created(),
		askedAt: time('asked_at'),
		/** The build as it was asked for, by its SHA-256; the step whose turn it is, counted from 0, and since when. */
		digest: text(),
		turn: integer(),
		turnSince: time('turn_since'),
		/** Whether it was told that this step is late. */
		turnTold: boolean('turn_told').notNull().default(false),
		approvedAt: time('approved_at'),
		cancelledAt: time('cancelled_at'),
		cancelledReason: text('cancelled_reason'),
		issuedAt: time('issued_at'),
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

/** Somebody who gets a release: what of it, what for, and what went out to them. */
export const releaseRecipient = pgTable(
	'release_recipient',
	{
		releaseId: text('release_id')
			.notNull()
			.references(() => release.id),
		recipientId: text('recipient_id')
			.notNull()
			.references(() => recipient.id),
		position: integer().notNull(),
		expects: text({ enum: EXPECTS }).notNull(),
		/** Day by which their reply is asked, as YYYY-MM-DD; null for the one of the release. */
		replyBy: text('reply_by'),
		asks: text({ enum: PROOFS }).notNull(),
		/** Ids of the documents they get; null for all of them. */
		documents: text().array(),
		/** Their pass, and the manifest and cover note of what they got; set at issue. */
		passId: text('pass_id')
			.unique()
			.references(() => pass.id),
		manifest: jsonb().$type<Manifest>(),
		manifestHash: text('manifest_hash'),
		manifestSignature: text('manifest_signature'),
		coverNoteHash: text('cover_note_hash').references(() => content.hash),
		/** When they were last reminded of receipt or reply. */
		remindedAt: time('reminded_at')
	},
	(t) => [
		primaryKey({ columns: [t.releaseId, t.recipientId] }),
		oneOf(t.expects, EXPECTS),
		oneOf(t.asks, PROOFS)
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
		/** Its place as it was added, and in an order set by hand; null where that was set before it came, or never. */
		position: integer().notNull(),
		placed: integer(),
		/** The version chosen while building, the issued one afterwards. */
		versionId: text('version_id')
			.notNull()
			.references(() => version.id),
		/** Label it had before issue, for "goes from → to". */
		fromLabel: text('from_label').notNull(),
		/** Set at issue: the hash that was approved and sent. */
		pinnedHash: text('pinned_hash').references(() => content.hash),
		/** The file that was sent in its stead, where it was changed on its way out (T14). */
		copyHash: text('copy_hash').references(() => content.hash),
		/** Name under which the file goes out. */
		outgoingName: text('outgoing_name'),
		/** What the verdicts on it came to; who made one out of those that differed, and why. */
		outcome: text({ enum: VERDICTS }),
		outcomeAt: time('outcome_at'),
		outcomeBy: text('outcome_by').references(() => person.id),
		outcomeReason: text('outcome_reason')
	},
	(t) => [
		oneOf(t.outcome, VERDICTS),
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

export const DECISIONS = ['approved', 'sent-back'] as const;

/** What somebody on the route of a release decided, and on which build. */
export const releaseDecision = pgTable(
	'release_decision',
	{
		seq: bigserial({ mode: 'number' }).primaryKey(),
		releaseId: text('release_id')
			.notNull()
			.references(() => release.id),
		/** Counted from 0. */
		step: integer().notNull(),
		says: text({ enum: DECISIONS }).notNull(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		/** For whom of those the step names. */
		ofKind: text('of_kind', { enum: APPROVER_KINDS }).notNull(),
		ofId: text('of_id').notNull(),
		/** The person who was away, where somebody stood in. */
		standsFor: text('stands_for').references(() => person.id),
		/** The build that was looked at, and its SHA-256. */
		digest: text().notNull(),
		build: jsonb().$type<Build>(),
		reason: text(),
		/** What is wrong with which documents, where it was sent back. */
		documents: jsonb().$type<{ document: string; reason: string }[]>().notNull().default([]),
		at: time('at').notNull()
	},
	(t) => [
		oneOf(t.says, DECISIONS),
		oneOf(t.ofKind, APPROVER_KINDS),
		index('release_decision_of').on(t.releaseId, t.seq)
	]
);

/** Who decides for somebody who is away, in one project, from one day to another. */
export const standIn = pgTable(
	'stand_in',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		standInId: text('stand_in_id')
			.notNull()
			.references(() => person.id),
		/** First and last day, as YYYY-MM-DD. */
		fromDay: text('from_day').notNull(),
		untilDay: text('until_day').notNull(),
		createdBy: text('created_by')
			.notNull()
			.references(() => person.id),
		createdAt: created()
	},
	(t) => [index('stand_in_of').on(t.projectId, t.untilDay)]
);

/** Under whose pass something is answered, and on which document. */
const ofAnswer = () => ({
	passId: text('pass_id')
		.notNull()
		.references(() => pass.id),
	documentId: text('document_id')
		.notNull()
		.references(() => document.id)
});

export const verdict = pgTable(
	'verdict',
	{
		...ofAnswer(),
		code: text({ enum: VERDICTS }),
		remark: text().notNull().default(''),
		/** Null while only saved for later. */
		signedAt: time('signed_at'),
		signedName: text('signed_name')
	},
	(t) => [oneOf(t.code, VERDICTS), primaryKey({ columns: [t.passId, t.documentId] })]
);

/** A remark that who answers has placed on a sheet; theirs alone until they sign. */
export const verdictRemark = pgTable(
	'verdict_remark',
	{
		id: text().primaryKey(),
		...ofAnswer(),
		/** Counts those of one pass on one document. */
		number: integer().notNull(),
		page: integer().notNull(),
		/** In the lasting coordinates of what was sent. */
		x: doublePrecision().notNull(),
		y: doublePrecision().notNull(),
		text: text().notNull(),
		createdAt: created(),
		/** The remark on the document that it became. */
		remarkId: text('remark_id').references(() => remark.id)
	},
	(t) => [uniqueIndex('verdict_remark_number').on(t.passId, t.documentId, t.number)]
);

/** A file with marks that who answers sends along; once signed it is kept beside the line of its document. */
export const verdictFile = pgTable(
	'verdict_file',
	{
		id: text().primaryKey(),
		...ofAnswer(),
		hash: text()
			.notNull()
			.references(() => content.hash),
		fileName: text('file_name').notNull(),
		createdAt: created(),
		/** Number of the side version that it became. */
		side: integer()
	},
	(t) => [
		uniqueIndex('verdict_file_once').on(t.passId, t.documentId, t.hash),
		index('verdict_file_hash').on(t.hash)
	]
);

/** A mark that who answers has drawn on a sheet; theirs alone until they sign. */
export const verdictMark = pgTable(
	'verdict_mark',
	{
		...ofAnswer(),
		/** Given by the browser in which it was drawn. */
		id: text().notNull(),
		drawn: jsonb().$type<Drawn>().notNull(),
		/** How many points it has. */
		points: integer().notNull(),
		drawnBy: text('drawn_by').notNull(),
		createdAt: created()
	},
	(t) => [primaryKey({ columns: [t.passId, t.documentId, t.id] })]
);

/** A colleague of a recipient, whom they ask to answer a release along with them or in their stead. */
export const colleague = pgTable(
	'colleague',
	{
		id: text().primaryKey(),
		/** Of the recipient. */
		passId: text('pass_id')
			.notNull()
			.references(() => pass.id),
		name: text().notNull(),
		email: text().notNull(),
		/** Whether they answer in the recipient's stead. */
		instead: boolean().notNull(),
		words: text().notNull(),
		/** Who asked for them. */
		askedBy: text('asked_by').notNull(),
		createdAt: created(),
		state: text({ enum: COLLEAGUE_STATES }).notNull().default('asked'),
		decidedBy: text('decided_by').references(() => person.id),
		decidedAt: time('decided_at'),
		reason: text(),
		/** Their own pass, once they are let in. */
		ownPassId: text('own_pass_id').references(() => pass.id)
	},
	(t) => [
		oneOf(t.state, COLLEAGUE_STATES),
		uniqueIndex('colleague_once')
			.on(t.passId, t.email)
			.where(sql`state <> 'refused'`)
	]
);
