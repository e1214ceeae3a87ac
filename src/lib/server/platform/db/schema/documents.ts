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
	uniqueIndex
} from 'drizzle-orm/pg-core';
import type { TitleBlock } from '../../../../core/dxf/title-block';
import type { SheetWord } from '../../../../core/documents/title-block';
import { DOCUMENT_KINDS } from '../../../../core/live/live';
import { STATES } from '../../../../core/documents/state';
import { created, oneOf, time } from './columns';
import { person } from './people';
import { place } from './places';
import { project } from './project';

const PREVIEWS = ['waiting', 'made', 'none', 'failed'] as const;
const LOCK_ENDS = ['handed-in', 'given-back', 'handed-over', 'broken'] as const;
const SIDE_STATES = ['open', 'merged', 'discarded'] as const;

/** What inspecting a stored file showed. */
export interface Inspection {
	/** What is wrong with the file, or null. */
	fault: string | null;
	/** The kind of file is not opened by the inspection. */
	unchecked: boolean;
	pages?: number;
	titleBlock?: TitleBlock;
	/** Whether the first page is wider than high, as sheets are; not known of what was inspected long ago. */
	wide?: boolean;
	/** Words on the first sheet that could be a number or a revision, with where they stand, in shares of the sheet. */
	sheetWords?: SheetWord[];
}

export const content = pgTable(
	'content',
	{
		/** SHA-256 in hex. */
		hash: text().primaryKey(),
		size: bigint({ mode: 'number' }).notNull(),
		mediaType: text('media_type').notNull(),
		inspection: jsonb().$type<Inspection>(),
		/** State of the previews: null not asked for, waiting, made, none (nothing to show), failed. */
		preview: text({ enum: PREVIEWS }),
		createdAt: created()
	},
	(t) => [oneOf(t.preview, PREVIEWS)]
);

/** Content that a person has sent and not yet used; acts refer to it, so that nobody can claim content by its hash. */
export const upload = pgTable(
	'upload',
	{
		id: text().primaryKey(),
		/** Who sent it: a person, or whoever came through a hatch, or answers by a pass. */
		personId: text('person_id').references(() => person.id),
		hatchId: text('hatch_id'),
		passId: text('pass_id'),
		hash: text()
			.notNull()
			.references(() => content.hash),
		fileName: text('file_name').notNull(),
		createdAt: created()
	},
	(t) => [index('upload_hash').on(t.hash)]
);

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
		kind: text({ enum: DOCUMENT_KINDS }).notNull().default('file'),
		/** Name of the room in which it is edited together, or null. */
		room: text(),
		state: text({ enum: STATES }).notNull().default('wip'),
		currentVersionId: text('current_version_id').notNull(),
		versions: integer().notNull().default(1),
		changedAt: time('changed_at').notNull(),
		changedBy: text('changed_by').references(() => person.id),
		tags: text().array().notNull().default([]),
		/** False while removed: a number is free again for others. */
		live: boolean().notNull().default(true)
	},
	(t) => [
		oneOf(t.state, STATES),
		oneOf(t.kind, DOCUMENT_KINDS),
		uniqueIndex('document_number')
			.on(t.projectId, t.number)
			.where(sql`live`),
		index('document_changed').on(t.projectId, t.changedAt),
		// Of the number itself it would be taken for finding whole ones too, one after the other through all that are alike.
		index('document_number_words').using('gin', sql`upper(number) gin_trgm_ops`)
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
		index('version_hash').on(t.hash),
		index('version_issued')
			.on(t.createdAt, t.id)
			.where(sql`issued`)
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
		/** The version that was the newest when it was taken: what its holder works from. */
		baseVersionId: text('base_version_id'),
		endedAt: time('ended_at'),
		endedHow: text('ended_how', { enum: LOCK_ENDS }),
		/** When the former holder of a broken lock said what became of their work. */
		answeredAt: time('answered_at')
	},
	(t) => [
		oneOf(t.endedHow, LOCK_ENDS),
		uniqueIndex('lock_one_open')
			.on(t.documentId)
			.where(sql`ended_at is null`),
		index('lock_by_holder')
			.on(t.holderId)
			.where(sql`ended_at is null`)
	]
);

/** Who waits for a lock to end: to be told, or having asked its holder for it. */
export const lockWish = pgTable(
	'lock_wish',
	{
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		asked: boolean().notNull(),
		note: text().notNull(),
		createdAt: created()
	},
	(t) => [primaryKey({ columns: [t.documentId, t.personId] })]
);

/** Content handed in without the lock: kept beside the line until somebody merges or drops it (L4, L5). */
export const sideVersion = pgTable(
	'side_version',
	{
		id: text().primaryKey(),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		/** Counts the side versions of a document. */
		number: integer().notNull(),
		/** The version it was made from, as far as that is known. */
		baseVersionId: text('base_version_id').references(() => version.id),
		hash: text()
			.notNull()
			.references(() => content.hash),
		fileName: text('file_name').notNull(),
		note: text().notNull(),
		createdBy: text('created_by')
			.notNull()
			.references(() => person.id),
		/** From whom it is, where it came by a pass: they have no account. */
		fromName: text('from_name'),
		createdAt: created(),
		state: text({ enum: SIDE_STATES }).notNull().default('open'),
		decidedBy: text('decided_by').references(() => person.id),
		decidedAt: time('decided_at'),
		reason: text()
	},
	(t) => [
		oneOf(t.state, SIDE_STATES),
		uniqueIndex('side_version_number').on(t.documentId, t.number),
		index('side_version_hash').on(t.hash)
	]
);

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
