import { sql } from 'drizzle-orm';
import {
	bigint,
	boolean,
	index,
	integer,
	jsonb,
	pgTable,
	primaryKey,
	text,
	timestamp,
	uniqueIndex,
	type AnyPgColumn
} from 'drizzle-orm/pg-core';
import type { Level } from '../../core/access/levels';
import type { SubjectKind } from '../../core/access/decide';
import type { NumberingRule } from '../../core/numbering/numbering';
import type { Purpose, RevisionScheme } from '../../core/revisions/revisions';
import type { Manifest, Verdict } from '../../core/releases';
import type { TitleBlock } from '../../core/dxf/title-block';

const time = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 });
const created = () => time('created_at').notNull().defaultNow();

/* People and sign-in. The shapes of person, session, account and verification are what better-auth expects. */

export const person = pgTable('person', {
	id: text().primaryKey(),
	name: text().notNull(),
	email: text().notNull().unique(),
	emailVerified: boolean('email_verified').notNull().default(false),
	image: text(),
	createdAt: created(),
	updatedAt: time('updated_at').notNull().defaultNow()
});

export const session = pgTable(
	'session',
	{
		id: text().primaryKey(),
		token: text().notNull().unique(),
		userId: text('person_id')
			.notNull()
			.references(() => person.id),
		expiresAt: time('expires_at').notNull(),
		ipAddress: text('ip_address'),
		userAgent: text('user_agent'),
		createdAt: created(),
		updatedAt: time('updated_at').notNull().defaultNow()
	},
	(t) => [index('session_by_person').on(t.userId)]
);

export const account = pgTable(
	'account',
	{
		id: text().primaryKey(),
		accountId: text('account_id').notNull(),
		providerId: text('provider_id').notNull(),
		userId: text('person_id')
			.notNull()
			.references(() => person.id),
		accessToken: text('access_token'),
		refreshToken: text('refresh_token'),
		idToken: text('id_token'),
		accessTokenExpiresAt: time('access_token_expires_at'),
		refreshTokenExpiresAt: time('refresh_token_expires_at'),
		scope: text(),
		password: text(),
		createdAt: created(),
		updatedAt: time('updated_at').notNull().defaultNow()
	},
	(t) => [uniqueIndex('account_one').on(t.providerId, t.accountId)]
);

export const verification = pgTable('verification', {
	id: text().primaryKey(),
	identifier: text().notNull(),
	value: text().notNull(),
	expiresAt: time('expires_at').notNull(),
	createdAt: created(),
	updatedAt: time('updated_at').notNull().defaultNow()
});

/** A one-time link by which a person sets their first password. Only the hash of its secret is kept. */
export const invitation = pgTable('invitation', {
	secretHash: text('secret_hash').primaryKey(),
	personId: text('person_id')
		.notNull()
		.references(() => person.id),
	expiresAt: time('expires_at').notNull(),
	usedAt: time('used_at')
});

export const apiToken = pgTable(
	'api_token',
	{
		id: text().primaryKey(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		name: text().notNull(),
		secretHash: text('secret_hash').notNull().unique(),
		createdAt: created(),
		lastUsedAt: time('last_used_at'),
		withdrawnAt: time('withdrawn_at')
	},
	(t) => [index('api_token_by_person').on(t.personId)]
);

/* The project and its departments. */

export interface ProjectSettings {
	numbering: NumberingRule;
	revisions: RevisionScheme;
	/** Days after which a lock without an expected end counts as stale. */
	lockLimitDays: number;
	/** Days a removed place can be restored. */
	retentionDays: number;
	/** Largest file that may be added, in bytes. */
	maxFileBytes: number;
}

export const project = pgTable('project', {
	id: text().primaryKey(),
	code: text().notNull().unique(),
	name: text().notNull(),
	client: text().notNull(),
	timeZone: text('time_zone').notNull(),
	settings: jsonb().$type<ProjectSettings>().notNull(),
	nextRelease: integer('next_release').notNull().default(1),
	createdAt: created()
});

export const member = pgTable(
	'member',
	{
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		controller: boolean().notNull().default(false),
		/** Changes before this moment are not new to the member. */
		seenUntil: time('seen_until').notNull().defaultNow(),
		createdAt: created()
	},
	(t) => [primaryKey({ columns: [t.projectId, t.personId] }), index('member_by_person').on(t.personId)]
);

export const department = pgTable(
	'department',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		code: text().notNull(),
		name: text().notNull(),
		position: integer().notNull(),
		createdAt: created()
	},
	(t) => [uniqueIndex('department_code').on(t.projectId, t.code)]
);

export const departmentMember = pgTable(
	'department_member',
	{
		departmentId: text('department_id')
			.notNull()
			.references(() => department.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		lead: boolean().notNull().default(false)
	},
	(t) => [
		primaryKey({ columns: [t.departmentId, t.personId] }),
		index('department_member_by_person').on(t.personId)
	]
);

/* Places: shelf, folder and document form one tree. */

export const place = pgTable(
	'place',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		parentId: text('parent_id').references((): AnyPgColumn => place.id),
		/** Ids from the shelf down to this place, ten characters each, so that a subtree is one range. */
		path: text().notNull(),
		kind: text().$type<'shelf' | 'folder' | 'document'>().notNull(),
		name: text().notNull(),
		nameKey: text('name_key').notNull(),
		/** The nearest place upward, itself included, that has entries of its own or is closed. */
		scope: text().notNull(),
		closed: boolean().notNull().default(false),
		/** The department that owns a shelf; null is the project's own. */
		departmentId: text('department_id').references(() => department.id),
		removalId: text('removal_id'),
		createdBy: text('created_by').references(() => person.id),
		createdAt: created()
	},
	(t) => [
		uniqueIndex('place_live_name')
			.on(sql`coalesce(parent_id, project_id)`, t.nameKey)
			.where(sql`removal_id is null and kind <> 'document'`),
		index('place_children').on(t.parentId, t.kind),
		index('place_subtree').on(t.projectId, sql`path collate "C"`),
		index('place_scope').on(t.scope),
		index('place_removal')
			.on(t.removalId)
			.where(sql`removal_id is not null`)
	]
);

export const grant = pgTable(
	'access_grant',
	{
		id: text().primaryKey(),
		placeId: text('place_id')
			.notNull()
			.references(() => place.id),
		subjectKind: text('subject_kind').$type<SubjectKind>().notNull(),
		subjectId: text('subject_id').notNull(),
		/** Null is a bar. */
		level: text().$type<Level>(),
		exactly: boolean().notNull().default(false),
		endsAt: time('ends_at'),
		grantedBy: text('granted_by').references(() => person.id),
		createdAt: created()
	},
	(t) => [uniqueIndex('grant_one').on(t.placeId, t.subjectKind, t.subjectId)]
);

/* Content, documents and versions. */

/** What inspecting a stored file showed. */
export interface Inspection {
	/** Kind of viewer that shows it. */
	shows: 'pdf' | 'dxf' | 'picture' | 'text' | 'markdown' | 'none';
	/** What is wrong with the file, or null. */
	fault: string | null;
	/** The kind of file is not opened by the inspection. */
	unchecked: boolean;
	pages?: number;
	titleBlock?: TitleBlock;
}

export const content = pgTable('content', {
	/** SHA-256 in hex. */
	hash: text().primaryKey(),
	size: bigint({ mode: 'number' }).notNull(),
	mediaType: text('media_type').notNull(),
	inspection: jsonb().$type<Inspection>(),
	/** State of the previews: null not asked for, waiting, made, none (nothing to show), failed. */
	preview: text().$type<'waiting' | 'made' | 'none' | 'failed'>(),
	createdAt: created()
});

/** Content that a person has sent and not yet used; acts refer to it, so that nobody can claim content by its hash. */
export const upload = pgTable(
	'upload',
	{
		id: text().primaryKey(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		hash: text()
			.notNull()
			.references(() => content.hash),
		fileName: text('file_name').notNull(),
		createdAt: created()
	},
	(t) => [index('upload_hash').on(t.hash)]
);

export type DocumentState = 'wip' | 'shared' | 'published' | 'archived';

export const document = pgTable(
	'document',
	{
		id: text()
			.primaryKey()
			.references(() => place.id),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		number: text().notNull(),
		title: text().notNull(),
		state: text().$type<DocumentState>().notNull().default('wip'),
		currentVersionId: text('current_version_id').notNull(),
		versions: integer().notNull().default(1),
		changedAt: time('changed_at').notNull(),
		changedBy: text('changed_by').references(() => person.id),
		/** False while removed: a number is free again for others. */
		live: boolean().notNull().default(true)
	},
	(t) => [
		uniqueIndex('document_number')
			.on(t.projectId, t.number)
			.where(sql`live`),
		index('document_changed').on(t.projectId, t.changedAt),
		index('document_title_words').using('gin', sql`title gin_trgm_ops`),
		index('document_number_words').using('gin', sql`number gin_trgm_ops`)
	]
);

export const version = pgTable(
	'version',
	{
		id: text().primaryKey(),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		seq: integer().notNull(),
		label: text().notNull(),
		issued: boolean().notNull(),
		hash: text()
			.notNull()
			.references(() => content.hash),
		fileName: text('file_name').notNull(),
		note: text().notNull(),
		/** Whether the lock was kept when this version was saved. */
		lockKept: boolean('lock_kept').notNull().default(false),
		restoredFrom: text('restored_from'),
		releaseId: text('release_id'),
		createdBy: text('created_by').references(() => person.id),
		createdAt: created()
	},
	(t) => [
		uniqueIndex('version_label').on(t.documentId, t.label),
		uniqueIndex('version_seq').on(t.documentId, t.seq),
		index('version_hash').on(t.hash)
	]
);

export const lock = pgTable(
	'lock',
	{
		id: text().primaryKey(),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		holderId: text('holder_id')
			.notNull()
			.references(() => person.id),
		purpose: text().notNull(),
		takenAt: time('taken_at').notNull(),
		expectedEnd: time('expected_end'),
		endedAt: time('ended_at'),
		endedHow: text('ended_how').$type<'handed-in' | 'given-back'>()
	},
	(t) => [
		uniqueIndex('lock_one_open')
			.on(t.documentId)
			.where(sql`ended_at is null`),
		index('lock_by_holder')
			.on(t.holderId)
			.where(sql`ended_at is null`)
	]
);

export const removal = pgTable('removal', {
	id: text().primaryKey(),
	projectId: text('project_id')
		.notNull()
		.references(() => project.id),
	placeId: text('place_id')
		.notNull()
		.references(() => place.id),
	reason: text().notNull(),
	documents: integer().notNull(),
	removedBy: text('removed_by')
		.notNull()
		.references(() => person.id),
	removedAt: time('removed_at').notNull(),
	restoredAt: time('restored_at'),
	restoredBy: text('restored_by').references(() => person.id)
});

/** When a person last looked at a document. */
export const seen = pgTable(
	'seen',
	{
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		at: time('at').notNull()
	},
	(t) => [primaryKey({ columns: [t.personId, t.documentId] })]
);

/* The trail. */

export const chainHead = pgTable('chain_head', {
	projectId: text('project_id')
		.primaryKey()
		.references(() => project.id),
	seq: bigint({ mode: 'number' }).notNull(),
	hash: text().notNull()
});

export const event = pgTable(
	'event',
	{
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		seq: bigint({ mode: 'number' }).notNull(),
		at: time('at').notNull(),
		/** Id of the person, `pass:ID`, or null for the system itself. */
		actor: text(),
		actorName: text('actor_name').notNull(),
		kind: text().notNull(),
		placeId: text('place_id'),
		documentId: text('document_id'),
		releaseId: text('release_id'),
		details: jsonb().$type<Record<string, unknown>>().notNull(),
		previous: text().notNull(),
		hash: text().notNull()
	},
	(t) => [
		primaryKey({ columns: [t.projectId, t.seq] }),
		index('event_by_document').on(t.documentId, t.seq),
		index('event_by_place').on(t.placeId, t.seq),
		index('event_by_release').on(t.releaseId, t.seq)
	]
);

/* Releases, passes and verdicts. */

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

export type ReleaseState = 'building' | 'in-review' | 'approved' | 'issued' | 'superseded';

export const release = pgTable(
	'release',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		number: integer().notNull(),
		title: text().notNull(),
		purpose: text().$type<Purpose>().notNull(),
		state: text().$type<ReleaseState>().notNull(),
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
		issuedAt: time('issued_at'),
		issuedBy: text('issued_by').references(() => person.id),
		manifest: jsonb().$type<Manifest>(),
		manifestHash: text('manifest_hash'),
		/** Ed25519 over the manifest's canonical JSON, base64. */
		manifestSignature: text('manifest_signature'),
		coverNoteHash: text('cover_note_hash').references(() => content.hash)
	},
	(t) => [uniqueIndex('release_number').on(t.projectId, t.number)]
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

export const pass = pgTable('pass', {
	id: text().primaryKey(),
	projectId: text('project_id')
		.notNull()
		.references(() => project.id),
	releaseId: text('release_id')
		.notNull()
		.references(() => release.id),
	secretHash: text('secret_hash').notNull().unique(),
	holderName: text('holder_name').notNull(),
	holderEmail: text('holder_email').notNull(),
	endsAt: time('ends_at').notNull(),
	withdrawnAt: time('withdrawn_at'),
	withdrawnBy: text('withdrawn_by').references(() => person.id),
	uses: integer().notNull().default(0),
	lastUsedAt: time('last_used_at'),
	receivedAt: time('received_at'),
	createdAt: created()
});

export const verdict = pgTable(
	'verdict',
	{
		passId: text('pass_id')
			.notNull()
			.references(() => pass.id),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		code: text().$type<Verdict>(),
		remark: text().notNull().default(''),
		/** Null while only saved for later. */
		signedAt: time('signed_at'),
		signedName: text('signed_name')
	},
	(t) => [primaryKey({ columns: [t.passId, t.documentId] })]
);

/* Mail. */

export const mail = pgTable(
	'mail',
	{
		id: text().primaryKey(),
		projectId: text('project_id').references(() => project.id),
		toName: text('to_name').notNull(),
		toAddress: text('to_address').notNull(),
		subject: text().notNull(),
		body: text().notNull(),
		state: text().$type<'waiting' | 'sent' | 'failed'>().notNull().default('waiting'),
		/** Why it has not gone out yet. */
		trouble: text(),
		createdAt: created(),
		sentAt: time('sent_at'),
		/** When the demo's own mail server took it in. */
		receivedAt: time('received_at')
	},
	(t) => [index('mail_by_project').on(t.projectId, t.createdAt)]
);

/** Things known about the installation itself, such as the hash of the first controller's code. */
export const installation = pgTable('installation', { key: text().primaryKey(), value: text().notNull() });
