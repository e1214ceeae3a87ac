import { timestamp } from 'drizzle-orm/pg-core';

/** A moment, kept in UTC to the millisecond. */
export const time = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 });
export const created = () => time('created_at').notNull().defaultNow();
