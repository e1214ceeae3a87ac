import { afterAll, beforeAll, expect, it } from 'vitest';
import { Jobs, type Handlers } from '../../src/lib/server/platform/jobs/jobs';
import { log } from '../../src/lib/server/platform/log';
import { TestWorld } from './world';

let world: TestWorld;
let jobs: Jobs;
beforeAll(async () => {
	world = await TestWorld.open();
	jobs = new Jobs(world.config.databaseUrl, log);
	await jobs.open();
});
afterAll(async () => {
	await jobs.close();
	await world.close();
});

it('a job that fails takes none with it: what was fetched beside it is done once, and it alone is tried again', async () => {
	const names = ['a', 'bad', 'b', 'c', 'd', 'e', 'f', 'g'];
	await world.services.database.db.transaction(async (tx) => {
		for (const hash of names) await jobs.enqueue(tx, 'read-content', { hash });
	});
	const done = new Map<string, number>();
	await jobs.work({
		'read-content': async ({ hash }) => {
			done.set(hash, (done.get(hash) ?? 0) + 1);
			if (hash === 'bad') throw new Error('it cannot be read');
		}
	} as Handlers);
	await expect.poll(() => done.get('bad'), { timeout: 40_000 }).toBe(3);
	expect(Object.fromEntries(done)).toEqual(
		Object.fromEntries(names.map((name) => [name, name === 'bad' ? 3 : 1]))
	);
});
