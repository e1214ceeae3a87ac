import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	index,
	integer,
	pgTable,
	primaryKey,
	text,
	uniqueIndex,
	type AnyPgColumn
} from 'drizzle-orm/pg-core';
import { PLACE_KINDS } from '../../../../contract/act';
import { SUBJECT_KINDS } from '../../../../core/access/decide';
import { LEVELS } from '../../../../core/access/levels';
import { created, oneOf, time } from './columns';
import { person } from './people';
import { department, project } from './project';

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
		kind: text({ enum: PLACE_KINDS }).notNull(),
		name: text().notNull(),
		nameKey: text('name_key').notNull(),
		/** The nearest place upward, itself included, that has entries of its own or is closed. */
		scope: text().notNull(),
		closed: boolean().notNull().default(false),
		/** The department that owns a shelf; null is the project's own. */
		departmentId: text('department_id').references(() => department.id),
		/** Whose desk a shelf is: their own place, for what is not ready for others. Nobody else is let in (A5). */
		deskOf: text('desk_of').references(() => person.id),
		removalId: text('removal_id'),
		/** A freeze: nobody below Manage changes anything here or beneath until it is thawed (A6). */
		frozenAt: time('frozen_at'),
		frozenBy: text('frozen_by').references(() => person.id),
		frozenReason: text('frozen_reason'),
		/** Content that no pass may reach by an address somebody thought up. */
		sensitive: boolean().notNull().default(false),
		createdBy: text('created_by').references(() => person.id),
		createdAt: created()
	},
	(t) => [
		oneOf(t.kind, PLACE_KINDS),
		uniqueIndex('place_live_name')
			.on(sql`coalesce(parent_id, project_id)`, t.nameKey)
			.where(sql`removal_id is null and kind <> 'document'`),
		check('place_desk_is_shelf', sql`desk_of is null or kind = 'shelf'`),
		uniqueIndex('place_one_desk')
			.on(t.projectId, t.deskOf)
			.where(sql`desk_of is not null`),
		index('place_children').on(t.parentId, t.kind),
		index('place_subtree').on(t.projectId, sql`path collate "C"`),
		index('place_scope').on(t.scope),
		index('place_is_scope')
			.on(t.projectId)
			.where(sql`scope = id`),
		index('place_frozen')
			.on(t.projectId)
			.where(sql`frozen_at is not null`),
		index('place_listed')
			.on(t.parentId, t.nameKey, t.id)
			.where(sql`kind = 'document' and removal_id is null`),
		index('place_folders')
			.on(t.projectId)
			.where(sql`kind <> 'document'`),
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
		subjectKind: text('subject_kind', { enum: SUBJECT_KINDS }).notNull(),
		subjectId: text('subject_id').notNull(),
		/** Null is a bar. */
		level: text({ enum: LEVELS }),
		exactly: boolean().notNull().default(false),
		endsAt: time('ends_at'),
		grantedBy: text('granted_by').references(() => person.id),
		/** The grant whose holder brought this person in; ending that ends this (A8). */
		underId: text('under_id').references((): AnyPgColumn => grant.id, { onDelete: 'cascade' }),
		/** How many others the holder may bring in, and at what level at most. */
		bringCount: integer('bring_count').notNull().default(0),
		bringLevel: text('bring_level', { enum: LEVELS }),
		createdAt: created()
	},
	(t) => [
		oneOf(t.bringLevel, LEVELS),
		oneOf(t.level, LEVELS),
		oneOf(t.subjectKind, SUBJECT_KINDS),
		uniqueIndex('grant_one').on(t.placeId, t.subjectKind, t.subjectId),
		index('grant_by_subject').on(t.subjectId),
		index('grant_under').on(t.underId)
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

/** How many documents lie directly in a folder, by scope; kept by triggers, so that counts need no walk over documents. */
export const folderCount = pgTable(
	'folder_count',
	{
		folderId: text('folder_id')
			.notNull()
			.references(() => place.id),
		scope: text().notNull(),
		documents: integer().notNull(),
		/** When a document here changed last, and who did it. */
		lastAt: time('last_at'),
		lastBy: text('last_by')
	},
	(t) => [primaryKey({ columns: [t.folderId, t.scope] })]
);
