import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js';
import type { ExtractTablesWithRelations } from 'drizzle-orm';
import type { PgTransaction } from 'drizzle-orm/pg-core';
import type { PostgresJsQueryResultHKT } from 'drizzle-orm/postgres-js';
import postgres from 'postgres';
import * as schema from './schema';

export type Db = PostgresJsDatabase<typeof schema>;
export type Tx = PgTransaction<
	PostgresJsQueryResultHKT,
	typeof schema,
	ExtractTablesWithRelations<typeof schema>
>;
/** Anything that can be queried: the pool or a transaction. */
export type Querier = Db | Tx;

/** An open connection pool and the raw client behind it (for LISTEN). */
export interface Database {
	db: Db;
	client: postgres.Sql;
	close(): Promise<void>;
}

/** Opens a pool to a PostgreSQL address. Connects on first use. */
export function openDatabase(url: string, max = 12): Database {
	const client = postgres(url, { max, onnotice: () => {}, connection: { application_name: 'cupboard' } });
	return { db: drizzle(client, { schema }), client, close: () => client.end({ timeout: 5 }) };
}
