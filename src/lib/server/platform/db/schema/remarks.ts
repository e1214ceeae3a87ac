import { sql } from 'drizzle-orm';
import { date, index, integer, jsonb, pgTable, text, uniqueIndex } from 'drizzle-orm/pg-core';
import type { Anchor } from '../../../../core/remarks/remarks';
import { created, time } from './columns';
import { document, version } from './documents';
import { person } from './people';
import { department } from './project';

/** A remark on a document. It stays with the document from version to version, until it is settled and after. */
export const remark = pgTable(
	'remark',
	{
		id: text().primaryKey(),
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		number: integer().notNull(),
		versionId: text('version_id')
			.notNull()
			.references(() => version.id),
		anchor: jsonb().$type<Anchor>().notNull(),
		quote: text().notNull().default(''),
		text: text().notNull(),
		createdBy: text('created_by')
			.notNull()
			.references(() => person.id),
		/** Who said it, where that is nobody with an account: a client. */
		fromName: text('from_name'),
		/** The release that a client answered, or from within which it was said; null for what was said at the document. */
		releaseId: text('release_id'),
		createdAt: created(),
		assignedPerson: text('assigned_person').references(() => person.id),
		assignedDepartment: text('assigned_department').references(() => department.id),
		due: date({ mode: 'string' }),
		settledBy: text('settled_by').references(() => person.id),
		settledAt: time('settled_at'),
		settledNote: text('settled_note')
	},
	(t) => [
		uniqueIndex('remark_number').on(t.documentId, t.number),
		index('remark_open')
			.on(t.documentId)
			.where(sql`settled_at is null`),
		index('remark_by_person').on(t.assignedPerson),
		index('remark_of_release')
			.on(t.releaseId)
			.where(sql`release_id is not null`)
	]
);

export const remarkAnswer = pgTable(
	'remark_answer',
	{
		id: text().primaryKey(),
		remarkId: text('remark_id')
			.notNull()
			.references(() => remark.id),
		text: text().notNull(),
		createdBy: text('created_by')
			.notNull()
			.references(() => person.id),
		createdAt: created()
	},
	(t) => [index('remark_answer_of').on(t.remarkId, t.createdAt)]
);
