import { sql } from 'drizzle-orm';
import { bigint, index, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { time } from './columns';
import { project } from './project';

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
		index('event_by_release').on(t.releaseId, t.seq),
		// The register reads actual days from these (G2).
		index('event_of_issue')
			.on(t.projectId, t.documentId)
			.where(sql`kind in ('document.issued', 'document.revised')`)
	]
);
