import { drizzle } from 'drizzle-orm/postgres-js';
import { migrate } from 'drizzle-orm/postgres-js/migrator';
import postgres from 'postgres';

/** Brings the database at `url` to the newest schema; several starting servers wait for one another. */
export async function migrateDatabase(url: string, folder = 'drizzle'): Promise<void> {
	const client = postgres(url, { max: 1, onnotice: () => {} });
	try {
		await client`select pg_advisory_lock(4680)`;
		await migrate(drizzle(client), { migrationsFolder: folder });
	} finally {
		await client.end();
	}
}
