import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import postgres from 'postgres';
import { startServices } from '../../src/lib/server/api/start';
import { migrateDatabase } from '../../src/lib/server/platform/db/migrate';
import { found, handOn, testConfig } from './founding';

/** The server that `npm test` started, and the database with a small project that every test file copies. */
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
	const home = await mkdtemp(join(tmpdir(), 'cupboard-founded-'));
	// Starting makes the tables of jobs, too, which each start would make anew.
	const services = await startServices(testConfig(address(TEMPLATE), home), { work: false });
	handOn(await found(services));
	await services.close();
	await rm(home, { recursive: true });
}
