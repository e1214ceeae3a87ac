import postgres from 'postgres';
import { log } from '../../src/lib/server/platform/log';
import { Jobs } from '../../src/lib/server/platform/jobs/jobs';
import { migrateDatabase } from '../../src/lib/server/platform/db/migrate';

/** The server that `npm test` started, and the migrated database that every test file copies. */
export const TEMPLATE = 'cupboard_template';

export function address(database: string): string {
	const url = new URL(process.env.DATABASE_URL!);
	url.pathname = `/${database}`;
	return url.toString();
}

export default async function setup(): Promise<void> {
	if (!process.env.DATABASE_URL)
		throw new Error('Run the tests with “npm test”, which starts PostgreSQL and sets DATABASE_URL.');
	const client = postgres(process.env.DATABASE_URL, { max: 1, onnotice: () => {} });
	await client.unsafe(`drop database if exists ${TEMPLATE} with (force)`);
	await client.unsafe(`create database ${TEMPLATE}`);
	await client.end();
	await migrateDatabase(address(TEMPLATE));
	// The tables of jobs, too: each start would make them anew.
	const jobs = new Jobs(address(TEMPLATE), log);
	await jobs.open();
	await jobs.close();
}
