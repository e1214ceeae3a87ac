import { and, eq, lt, sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { standing } from '../../src/lib/server/platform/db/standing';
import { project } from '../../src/lib/server/platform/db/schema';
import { TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

const named = standing(['id', 'most'], (db, { id, most }) =>
	db
		.select({ name: project.name, settings: project.settings })
		.from(project)
		.where(and(eq(project.id, id), lt(project.nextRelease, most)))
);
const rename = standing(['id', 'name'], (db, { id, name }) =>
	db
		.update(project)
		.set({ name: sql`${name}` })
		.where(eq(project.id, id))
		.returning({ name: project.name })
);

describe('a standing statement', () => {
	it('is asked of the transaction that it is wanted in, and of no other', async () => {
		const { db } = world.services.database;
		const at = { id: world.project, most: 99 };
		const [before] = await named(db, at);
		await db
			.transaction(async (tx) => {
				expect(await rename(tx, { id: world.project, name: 'Another' })).toEqual([{ name: 'Another' }]);
				expect((await named(tx, at))[0]!.name).toBe('Another');
				await tx.transaction(async (inner) => {
					expect((await named(inner, at))[0]!.name).toBe('Another');
				});
				// Others see nothing of it, before its end and after it was taken back.
				expect(await named(db, at)).toEqual([before]);
				throw new Error('taken back');
			})
			.catch((error: Error) => expect(error.message).toBe('taken back'));
		expect(await named(db, at)).toEqual([before]);
		expect(before!.settings).toBeTypeOf('object');
	});

	it('keeps many who ask at once apart', async () => {
		const { db } = world.services.database;
		const asked = await Promise.all(
			Array.from({ length: 40 }, (_, i) =>
				named(db, {
					id: i % 4 === 0 ? 'nowhere' : world.project,
					most: i % 4 === 1 ? 0 : 99
				})
			)
		);
		expect(asked.map((rows) => rows.length)).toEqual(
			Array.from({ length: 40 }, (_, i) => (i % 4 < 2 ? 0 : 1))
		);
	});
});
