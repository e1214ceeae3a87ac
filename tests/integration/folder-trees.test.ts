import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { closePlace } from '../../src/lib/server/access/acts-standing';
import { makeFolders } from '../../src/lib/server/places/acts';
import { folder } from '../../src/lib/server/places/views-tree';
import { removePlace } from '../../src/lib/server/removed/acts';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

const make = (ways: string[][], who = 'oke') => world.act(who, makeFolders, { parent: world.folder, ways });
/** Names in a folder, as somebody sees them. */
const within = async (place: string, who = 'oke') => {
	const { tree } = await world.read(who, folder, { place });
	return tree
		.filter((one) => one.parentId === place)
		.map((one) => one.name)
		.sort();
};

describe('a tree of folders', () => {
	it('is made at once; what is there already is gone into, also when it is written again in other letters', async () => {
		const first = await make([['Drawings'], ['Drawings', 'General'], ['Calculations', 'Fatigue']]);
		expect(first.made).toBe(4);
		expect(await within(world.folder)).toEqual(expect.arrayContaining(['Calculations', 'Drawings']));
		const again = await make([
			['drawings', 'Details'],
			['Drawings', 'General']
		]);
		expect(again.made).toBe(1);
		expect(again.folders[1]).toBe(first.folders[1]);
		expect(await within(first.folders[0]!)).toEqual(['Details', 'General']);
	});

	it('takes no folder that was removed for one that is there', async () => {
		const { folders } = await make([['Old']]);
		await world.act('oke', removePlace, { place: folders[0]!, reason: 'not needed' });
		const again = await make([['Old']]);
		expect(again.made).toBe(1);
		expect(again.folders[0]).not.toBe(folders[0]);
	});

	it('is all or none: too deep, nothing of it is made', async () => {
		const deep = Array.from({ length: 29 }, (_, i) => `deep ${i}`);
		expect((await refused(make([['Shallow'], deep]))).sentence).toContain('deep at most');
		expect(await within(world.folder)).not.toContain('Shallow');
	});

	it('goes into nothing that is hidden, and makes nothing where somebody may only look', async () => {
		const { folders } = await make([['Private'], ['Looked at']]);
		await world.act('oke', closePlace, { place: folders[0]! });
		expect((await refused(make([['Private', 'In']], 'rhosyn'))).code).toBe('conflict');
		await world.act('oke', closePlace, { place: folders[1]! });
		await world.act('oke', letIn, {
			place: folders[1],
			lines: [{ subject: { kind: 'person', id: world.people.rhosyn!.person.id }, level: 'view' }]
		});
		expect(await refused(make([['Looked at', 'In']], 'rhosyn'))).toMatchObject({ code: 'needs-level' });
		expect((await make([['Looked at', 'In']])).made).toBe(1);
	});
});
