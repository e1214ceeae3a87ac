import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import postgres from 'postgres';
import { found, testConfig, type Founded } from '../tests/integration/founding';
import { startServices } from '../src/lib/server/api/start';
import { migrateDatabase } from '../src/lib/server/platform/db/migrate';
import type { Services } from '../src/lib/server/platform/services';

/** Measures in a Cupboard of its own, with a database by that name and a small project; both are gone afterwards. */
export async function inOwnProject<T>(
	database: string,
	measure: (own: { services: Services; founded: Founded; home: string; url: string }) => Promise<T>
): Promise<T> {
	const sql = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
	await sql.unsafe(`drop database if exists ${database} with (force)`);
	await sql.unsafe(`create database ${database}`);
	const url = new URL(process.env.DATABASE_URL!);
	url.pathname = `/${database}`;
	await migrateDatabase(url.href);
	const home = await mkdtemp(join(tmpdir(), 'cupboard-bench-'));
	const services = await startServices(testConfig(url.href, home), { work: false });
	try {
		return await measure({ services, founded: await found(services), home, url: url.href });
	} finally {
		await services.close();
		await sql.unsafe(`drop database if exists ${database} with (force)`);
		await sql.end();
		await rm(home, { recursive: true, force: true });
	}
}
