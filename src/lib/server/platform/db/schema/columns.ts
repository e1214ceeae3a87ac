import { getTableName, sql } from 'drizzle-orm';
import { check, timestamp, type AnyPgColumn } from 'drizzle-orm/pg-core';

/** A moment, kept in UTC to the millisecond. */
export const time = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 });
export const created = () => time('created_at').notNull().defaultNow();

/** Has the database refuse any other word than these, which are those that the column is declared with. */
export function oneOf(column: AnyPgColumn, words: readonly string[]) {
	const listed = words.map((word) => `'${word}'`).join(', ');
	return check(`${getTableName(column.table)}_${column.name}`, sql`${column} in (${sql.raw(listed)})`);
}
