/** The project that `npm run bench` measures on, made small: a change of the tables must not leave it behind. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { FOLDER, makeLargeProject, READER } from '../../bench/large-project';
import { find } from '../../src/lib/server/find/views';
import { documentsIn } from '../../src/lib/server/places/views';
import { TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
	await makeLargeProject(world.config.databaseUrl, { documents: 500, inOne: 200 });
	world.people.reader = {
		person: { id: READER.id, name: 'The Reader', email: 'reader@big.example' },
		via: 'token'
	};
});
afterAll(() => world.close());

it('shows the folder that is opened, and finds by a number', async () => {
	const { rows } = await world.read('reader', documentsIn, { place: FOLDER, limit: 500 });
	expect(rows).toHaveLength(200);
	const found = await world.read('reader', find, { project: 'BIG', q: 'BIG-00000042' });
	expect(found.rows.map((row) => row.number)).toEqual(['BIG-00000042']);
});
