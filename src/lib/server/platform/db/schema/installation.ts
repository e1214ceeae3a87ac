import { integer, pgTable, text } from 'drizzle-orm/pg-core';
import { time } from './columns';

/** Things known about the installation itself, such as the hash of the first controller's code. */
export const installation = pgTable('installation', { key: text().primaryKey(), value: text().notNull() });

/** How often something was tried of late, counted for all processes together. */
export const tries = pgTable('tries', {
	key: text().primaryKey(),
	points: integer().notNull(),
	expire: time('expire')
});
