import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js';
import type { ExtractTablesWithRelations } from 'drizzle-orm';
import { sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTransaction } from 'drizzle-orm/pg-core';
import type { PostgresJsQueryResultHKT } from 'drizzle-orm/postgres-js';
import postgres from 'postgres';
import * as schema from './schema';

type Db = PostgresJsDatabase<typeof schema>;
export type Tx = PgTransaction<
	PostgresJsQueryResultHKT,
	typeof schema,
	ExtractTablesWithRelations<typeof schema>
>;
/** Anything that can be queried: the pool or a transaction. */
export type Querier = Db | Tx;

/** Open connection pools and the raw client behind the first (for LISTEN). */
export interface Database {
	db: Db;
	/**
	 * The connections of acts and of nothing else: what an act asks of the others while it runs (counting a try, a live
	 * room, reading a file) then never waits for a connection that only acts waiting for it could give back.
	 */
	acting: Db;
	client: postgres.Sql;
	close(): Promise<void>;
}

/** Statements without lists, of one row where they write: their text does not vary, and neither does the best plan. */
const STEADY = /^\s*(?:select|insert|update|delete)\b(?!.*(?: in \(\$|any\(\$|\), \(\$))/s;

/** What can be asked: a client, or one that is within a transaction. */
type Client = postgres.Sql | postgres.TransactionSql;

/**
 * A client with its steady statements prepared once a connection, within transactions too. That saves parsing and
 * planning them every time, and going twice to the database: what is not prepared is described before it is asked.
 */
function preparing<C extends Client>(client: C): C {
	return new Proxy(client, {
		get(target, name, receiver) {
			if (name === 'unsafe')
				return (text: string, values: never[]) => target.unsafe(text, values, { prepare: STEADY.test(text) });
			if (name === 'begin' || name === 'savepoint') {
				const within = Reflect.get(target, name, receiver) as (...given: unknown[]) => unknown;
				return (...given: unknown[]) => {
					const run = given.pop() as (inner: postgres.TransactionSql) => unknown;
					return within(...given, (inner: postgres.TransactionSql) => run(preparing(inner)));
				};
			}
			return Reflect.get(target, name, receiver) as unknown;
		}
	});
}

/** Opens pools to a PostgreSQL address, each of so many connections at most. Connects on first use. */
export function openDatabase(url: string, max = 10): Database {
	const [client, acting] = [connect(url, max), connect(url, max)];
	return {
		db: drizzle(preparing(client), { schema }),
		acting: drizzle(preparing(acting), { schema }),
		client,
		async close() {
			await Promise.all([client.end({ timeout: 5 }), acting.end({ timeout: 5 })]);
		}
	};
}

function connect(url: string, max: number): postgres.Sql {
	return postgres(url, {
		max,
		onnotice: () => {},
		// A machine that gives us no time for some seconds has not lost its database.
		connect_timeout: 15,
		// When the database comes back, it is asked again within half a second.
		backoff: (tries: number) => Math.min(0.5, tries / 10),
		connection: {
			application_name: 'cupboard',
			jit: false,
			// Room for the places of a common word; without it every page that holds one is read through.
			work_mem: '16MB',
			// A swapped pair in the middle of a short word leaves few of its letters in threes.
			'pg_trgm.similarity_threshold': '0.2'
		} as Record<string, string | boolean>
	});
}

/** Condition for one of many ids, sent as one array: a parameter for each of thousands is slow to read and to plan. */
export function among(column: PgColumn, ids: Iterable<string>): SQL {
	return sql`${column} = any(${sql.param([...ids])}::text[])`;
}
