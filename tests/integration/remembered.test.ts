import { randomBytes } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { decide, type Step } from '../../src/lib/core/access/decide';
import { idsOf, loadReach } from '../../src/lib/server/access/reach';
import type { Querier } from '../../src/lib/server/platform/db';
import { grant, place } from '../../src/lib/server/platform/db/schema';
import { TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

const DAY = 86_400_000;
const rhosyn = () => world.people.rhosyn!.person.id;
const reach = (db: Querier = world.db, now = new Date()) =>
	loadReach(db, world.project, rhosyn(), now).then((r) => r!);

const give = (db: Querier, placeId: string, level: 'view' | 'organise' | null, endsAt: Date | null = null) =>
	db.insert(grant).values({
		id: randomBytes(5).toString('hex'),
		placeId,
		subjectKind: 'person',
		subjectId: rhosyn(),
		level,
		endsAt
	});
const take = (db: Querier, placeId: string) =>
	db.delete(grant).where(sql`${grant.placeId} = ${placeId} and ${grant.subjectId} = ${rhosyn()}`);

/** The same decision from everything read anew, with nothing remembered. */
async function anew(now: Date): Promise<Map<string, string>> {
	const { subject } = await reach(world.db, now);
	const [places, grants] = [await world.db.select().from(place), await world.db.select().from(grant)];
	const levels = new Map<string, string>();
	for (const at of places.filter((p) => p.scope === p.id)) {
		const way: Step[] = idsOf(at.path)
			.reverse()
			.map((id) => ({
				closed: places.find((p) => p.id === id)!.closed,
				entries: grants
					.filter((g) => g.placeId === id)
					.map((g) => ({ ...g, endsAt: g.endsAt?.getTime() ?? null }))
			}));
		const level = decide(subject, way, now.getTime());
		if (level) levels.set(at.id, level);
	}
	return levels;
}

describe('what is remembered of access', () => {
	it('is dropped with every kind of change, at once', async () => {
		const changes: [string, () => Promise<unknown>][] = [
			['an entry', () => give(world.db, world.shelf, 'view')],
			[
				'another level',
				() => world.db.update(grant).set({ level: 'organise' }).where(eq(grant.subjectId, rhosyn()))
			],
			['no entry', () => take(world.db, world.shelf)],
			[
				'a scope',
				() => world.db.update(place).set({ scope: world.folder }).where(eq(place.id, world.folder))
			],
			['a bar', () => give(world.db, world.folder, null)],
			['a closing', () => world.db.update(place).set({ closed: true }).where(eq(place.id, world.folder))],
			['the bar gone', () => take(world.db, world.folder)],
			[
				'another way up',
				() =>
					world.db
						.update(place)
						.set({ path: world.other + world.folder, parentId: world.other })
						.where(eq(place.id, world.folder))
			]
		];
		for (const [what, change] of changes) {
			await reach();
			await change();
			const now = new Date();
			expect(Object.fromEntries((await reach(world.db, now)).levels), what).toEqual(
				Object.fromEntries(await anew(now))
			);
		}
	});

	it('ends with the first entry that ends', async () => {
		const now = new Date();
		await give(world.db, world.other, 'organise', new Date(now.getTime() + DAY));
		expect((await reach(world.db, now)).level(world.other)).toBe('organise');
		expect((await reach(world.db, new Date(now.getTime() + 2 * DAY))).level(world.other)).toBe('view');
		expect((await reach(world.db, now)).level(world.other)).toBe('organise');
		await take(world.db, world.other);
	});

	it('never comes from a change that was taken back', async () => {
		const before = await reach();
		await world.db
			.transaction(async (tx) => {
				await give(tx, world.other, 'organise');
				expect((await reach(tx)).level(world.other)).toBe('organise');
				expect((await reach()).level(world.other)).toBe(before.level(world.other));
				throw new Error('taken back');
			})
			.catch(() => {});
		expect(await reach()).toEqual(before);
		await give(world.db, world.other, null);
		expect((await reach()).level(world.other)).toBeNull();
	});
});
