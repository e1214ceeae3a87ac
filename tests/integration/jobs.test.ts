import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Jobs, type Handlers } from '../../src/lib/server/platform/jobs/jobs';
import { log } from '../../src/lib/server/platform/log';
import { TestWorld } from './world';

const HOUR = 3_600;

let world: TestWorld;
const open: Jobs[] = [];
/** The queue as another process has it. */
async function opened(): Promise<Jobs> {
	const jobs = new Jobs(world.config.databaseUrl, log);
	open.push(jobs);
	await jobs.open();
	return jobs;
}
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(async () => {
	await Promise.all(open.map((jobs) => jobs.close()));
	await world.close();
});

it('who works is told of a job when it is there, whoever put it in', async () => {
	const [works, puts] = [await opened(), await opened()];
	const { db, client } = world.services.database;
	const done: string[] = [];
	await works.work(
		{ 'draw-preview': ({ hash }) => Promise.resolve(void done.push(hash)) } as Handlers,
		client,
		HOUR
	);
	for (const hash of ['first', 'second']) {
		await puts.enqueue(db, 'draw-preview', { hash });
		await expect.poll(() => done.at(-1)).toBe(hash);
	}
	await db
		.transaction(async (tx) => {
			await puts.enqueue(tx, 'draw-preview', { hash: 'taken back' });
			throw new Error('something else cannot be done');
		})
		.catch(() => {});
	await puts.enqueue(db, 'draw-preview', { hash: 'third' });
	await expect.poll(() => done).toEqual(['first', 'second', 'third']);

	// A line that breaks is made again, and what was put in meanwhile is found.
	const broken = await db.execute(sql`select pg_terminate_backend(pid) from pg_stat_activity
		where datname = current_database() and query ilike 'listen%' and pid <> pg_backend_pid()`);
	expect(broken.length).toBeGreaterThan(0);
	await puts.enqueue(db, 'draw-preview', { hash: 'last' });
	await expect.poll(() => done, { timeout: 60_000 }).toEqual(['first', 'second', 'third', 'last']);
});

it('a job that fails takes none with it: what was fetched beside it is done once, and it alone is tried again', async () => {
	const names = ['a', 'bad', 'b', 'c', 'd', 'e', 'f', 'g'];
	const jobs = await opened();
	await world.services.database.db.transaction(async (tx) => {
		for (const hash of names) await jobs.enqueue(tx, 'read-content', { hash });
	});
	const done = new Map<string, number>();
	await jobs.work(
		{
			'read-content': async ({ hash }) => {
				done.set(hash, (done.get(hash) ?? 0) + 1);
				if (hash === 'bad') throw new Error('it cannot be read');
			}
		} as Handlers,
		world.services.database.client
	);
	await expect.poll(() => done.get('bad'), { timeout: 40_000 }).toBe(3);
	expect(Object.fromEntries(done)).toEqual(
		Object.fromEntries(names.map((name) => [name, name === 'bad' ? 3 : 1]))
	);
});
