import { bigint, boolean, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { AUDIENCES } from '../../../../core/passes/passes';
import { created, oneOf, time } from './columns';
import { content } from './documents';
import { person } from './people';
import { place } from './places';
import { project } from './project';

const ARRIVAL_STATES = ['checking', 'waiting', 'unsafe', 'sorted', 'refused'] as const;

/** A link to one release, folder or document for people without an account. Its address is kept as a hash, and encrypted for its maker. */
export const pass = pgTable(
	'pass',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		/** Exactly one of release and place. */
		releaseId: text('release_id'),
		placeId: text('place_id').references(() => place.id),
		secretHash: text('secret_hash').notNull().unique(),
		/** Its address, encrypted with the installation's secret, so that its maker can look it up again. */
		sealedSecret: text('sealed_secret'),
		/** For whom it was made, as its maker says. */
		holderName: text('holder_name').notNull(),
		holderEmail: text('holder_email'),
		audience: text({ enum: AUDIENCES }).notNull().default('anyone'),
		passwordHash: text('password_hash'),
		endsAt: time('ends_at').notNull(),
		/** Most openings; null for no limit. */
		maxUses: integer('max_uses'),
		/** Whether files may be taken, or only looked at. */
		mayDownload: boolean('may_download').notNull().default(true),
		/** Exactly this version of a document; null follows the newest. */
		versionId: text('version_id'),
		/** Whether what is taken carries a stamp with the holder's name and the day. */
		stamped: boolean().notNull().default(false),
		/** Whether marks on the sheets are burned into what is taken. */
		withMarks: boolean('with_marks').notNull().default(false),
		/** Whether its maker chose the ending of the address, which is easier to guess. */
		ownEnding: boolean('own_ending').notNull().default(false),
		/** Whether web pages elsewhere may show it in a frame. */
		embeddable: boolean().notNull().default(false),
		/** The pass whose part of a release it opens too: of a colleague of its holder, who answers along or in their stead. */
		alongWith: text('along_with'),
		createdBy: text('created_by').references(() => person.id),
		withdrawnAt: time('withdrawn_at'),
		withdrawnBy: text('withdrawn_by').references(() => person.id),
		uses: integer().notNull().default(0),
		lastUsedAt: time('last_used_at'),
		receivedAt: time('received_at'),
		createdAt: created()
	},
	(t) => [
		oneOf(t.audience, AUDIENCES),
		index('pass_by_project').on(t.projectId, t.createdAt),
		index('pass_by_release').on(t.releaseId),
		index('pass_by_place').on(t.placeId)
	]
);

/** The people a pass names, and the code by which one of them proves the mail address. */
export const passPerson = pgTable(
	'pass_person',
	{
		passId: text('pass_id')
			.notNull()
			.references(() => pass.id),
		email: text().notNull(),
		codeHash: text('code_hash'),
		codeEndsAt: time('code_ends_at'),
		tries: integer().notNull().default(0)
	},
	(t) => [primaryKey({ columns: [t.passId, t.email] })]
);

/** A pass that only lets files in. */
export const hatch = pgTable(
	'hatch',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		placeId: text('place_id')
			.notNull()
			.references(() => place.id),
		title: text().notNull(),
		secretHash: text('secret_hash').notNull().unique(),
		endsAt: time('ends_at').notNull(),
		maxFileBytes: bigint('max_file_bytes', { mode: 'number' }).notNull(),
		maxFiles: integer('max_files').notNull(),
		/** File name endings that are let in; none lets in every kind. */
		endings: text().array().notNull(),
		createdBy: text('created_by')
			.notNull()
			.references(() => person.id),
		withdrawnAt: time('withdrawn_at'),
		lastUsedAt: time('last_used_at'),
		createdAt: created()
	},
	(t) => [index('hatch_by_project').on(t.projectId, t.createdAt)]
);

/** What the checks of an arrival found. */
export interface Scan {
	/** Name of the scanner, or null when none is installed. */
	scanner: string | null;
	/** What is wrong, or null. */
	fault: string | null;
}

/** A file that came in through a hatch and waits outside the shelves until somebody sorts it. */
export const arrival = pgTable(
	'arrival',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		/** The hatch it came in by; null when somebody with Drop put it in. */
		hatchId: text('hatch_id').references(() => hatch.id),
		/** The folder it is meant for. */
		placeId: text('place_id')
			.notNull()
			.references(() => place.id),
		sender: text().notNull(),
		senderEmail: text('sender_email'),
		note: text().notNull(),
		fileName: text('file_name').notNull(),
		hash: text()
			.notNull()
			.references(() => content.hash),
		state: text({ enum: ARRIVAL_STATES }).notNull(),
		scan: jsonb().$type<Scan>(),
		documentId: text('document_id'),
		decidedBy: text('decided_by').references(() => person.id),
		decidedAt: time('decided_at'),
		reason: text(),
		createdAt: created()
	},
	(t) => [
		oneOf(t.state, ARRIVAL_STATES),
		index('arrival_by_hatch').on(t.hatchId),
		index('arrival_by_project').on(t.projectId, t.createdAt),
		index('arrival_hash').on(t.hash)
	]
);
