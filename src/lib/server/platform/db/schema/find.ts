import { customType, index, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { content, document } from './documents';
import { project } from './project';

/** Words for finding, as PostgreSQL keeps them. */
const words = customType<{ data: string }>({ dataType: () => 'tsvector' });

/** What stands written in stored content, for finding it by its words. Content without any is kept with empty text. */
export const contentText = pgTable('content_text', {
	hash: text()
		.primaryKey()
		.references(() => content.hash, { onDelete: 'cascade' }),
	text: text().notNull(),
	words: words().notNull()
});

/**
 * The words by which a document is found: those of its number, title and tags, and with them those in its newest
 * version. Kept by triggers, so that no act can forget it.
 */
export const findable = pgTable(
	'findable',
	{
		documentId: text('document_id')
			.primaryKey()
			.references(() => document.id, { onDelete: 'cascade' }),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		/** The scope of its place, which tells who may look at it; null while it is removed. */
		scope: text(),
		name: words().notNull(),
		words: words().notNull()
	},
	(t) => [index('findable_words').using('gin', t.words)]
);

/** Documents whose words have yet to be learnt. */
export const unlearnt = pgTable('unlearnt', { documentId: text('document_id').notNull() });

/** The words without digits that a project's documents hold, for finding with typing errors and by parts of words. */
export const findWord = pgTable(
	'find_word',
	{
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		word: text().notNull()
	},
	(t) => [
		primaryKey({ columns: [t.projectId, t.word] }),
		index('find_word_near').using('gin', t.word.op('gin_trgm_ops'))
	]
);
