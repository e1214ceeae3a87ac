import { pgTable, text } from 'drizzle-orm/pg-core';

/** Things known about the installation itself, such as the hash of the first controller's code. */
export const installation = pgTable('installation', { key: text().primaryKey(), value: text().notNull() });
