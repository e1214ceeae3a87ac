import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { endAccess, letIn } from '../../src/lib/server/access/acts';
import { issueRevision } from '../../src/lib/server/documents/acts-revising';
import { openDocument } from '../../src/lib/server/documents/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { takeLock } from '../../src/lib/server/locks/acts';
import { markProjectSeen } from '../../src/lib/server/people/acts';
import { folder } from '../../src/lib/server/places/views-tree';
import { issued } from '../../src/lib/server/register/views-issued';
import { addRemark } from '../../src/lib/server/remarks/acts';
import { removePlace, restorePlace } from '../../src/lib/server/removed/acts';
import { endAtHand, keepAtHand } from '../../src/lib/server/today/acts';
import { atHand, latelyOpen, newToYou, waiting } from '../../src/lib/server/today/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
const project = 'VFT';
const idOf = (who: string) => world.people[who]!.person.id;
const hand = async (who: string) => (await world.read(who, atHand, { project })).rows;
const counts = (who: string) => world.read(who, waiting, { project });

beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

describe('what one keeps at hand', () => {
	it('is one’s own, kept once, and kept no longer', async () => {
		const { id, number } = await world.add();
		await world.act('oke', keepAtHand, { place: id });
		await world.act('oke', keepAtHand, { place: id });
		await world.act('oke', keepAtHand, { place: world.folder });
		expect((await hand('oke')).map((row) => [row.place, row.kind, row.state])).toEqual(
			expect.arrayContaining([
				[id, 'document', 'there'],
				[world.folder, 'folder', 'there']
			])
		);
		expect((await hand('oke')).find((row) => row.place === id)!.name).toContain(number);
		expect((await world.read('oke', documentView, { document: id })).atHand).toBe(true);
		expect((await world.read('oke', folder, { place: world.folder })).place.atHand).toBe(true);
		expect(await hand('rhosyn')).toEqual([]);
		expect((await counts('oke')).atHand).toBe(2);
		for (const place of [id, world.folder]) await world.act('oke', endAtHand, { project, place });
		expect(await hand('oke')).toEqual([]);
	});

	it('says that it is removed, and is there again when it is restored', async () => {
		const { id } = await world.add();
		await world.act('rhosyn', keepAtHand, { place: id });
		await world.act('oke', removePlace, { place: id, reason: 'replaced' });
		expect(await hand('rhosyn')).toMatchObject([{ place: id, state: 'removed' }]);
		await world.act('oke', restorePlace, { place: id });
		expect(await hand('rhosyn')).toMatchObject([{ place: id, state: 'there', removedAt: null }]);
		await world.act('rhosyn', endAtHand, { project, place: id });
	});

	it('tells nothing but what one knew, once access has ended, and can then be ended (A10, A11)', async () => {
		const { id, number } = await world.add();
		const { grants } = await world.act('oke', letIn, {
			place: id,
			lines: [{ subject: { kind: 'person', id: idOf('petra') }, level: 'view' }]
		});
		await world.act('petra', keepAtHand, { place: id });
		await world.act('oke', endAccess, { place: id, grant: grants[0]! });
		const [row] = await hand('petra');
		expect(row).toMatchObject({ place: id, state: 'gone', way: [], removedAt: null });
		expect(row!.name).toContain(number);
		expect((await refused(world.act('petra', keepAtHand, { place: id }))).code).toBe('not-found');
		await world.act('petra', endAtHand, { project, place: id });
		expect(await hand('petra')).toEqual([]);
	});
});

describe('what waits and what is new', () => {
	it('is counted as it is listed, and only as far as one may look', async () => {
		await world.act('rhosyn', markProjectSeen, { project });
		const before = await counts('rhosyn');
		expect(before.fresh).toBe(0);
		const { id } = await world.add();
		await world.act('oke', addRemark, {
			document: id,
			anchor: { on: 'whole' },
			text: 'Whose level is this?',
			assign: { kind: 'person', id: idOf('rhosyn') }
		});
		await world.act('rhosyn', takeLock, { document: id, purpose: 'levels' });
		const after = await counts('rhosyn');
		expect(after).toEqual({
			...before,
			forYou: before.forYou + 2,
			inHand: before.inHand + 1,
			remarks: before.remarks + 1,
			fresh: 1
		});
		const fresh = await world.read('rhosyn', newToYou, { project });
		expect(fresh).toMatchObject({ total: 1, rows: [{ id, place: 'Linkspan', isNew: true }] });
		// Petra may look at nothing here: none of it is there for her.
		expect(await counts('petra')).toMatchObject({ forYou: 0, inHand: 0, fresh: 0 });
		expect((await world.read('petra', newToYou, { project })).rows).toEqual([]);
		await world.act('rhosyn', openDocument, { document: id });
		expect((await world.read('rhosyn', newToYou, { project })).rows).toEqual([]);
		expect((await world.read('rhosyn', latelyOpen, { project })).rows[0]).toMatchObject({ id });
	});
});

describe('what is issued', () => {
	it('is each document once, at its last issue, newest first and in pages', async () => {
		const made: { id: string }[] = [];
		for (let i = 0; i < 3; i++) made.push(await world.add());
		for (const { id } of made)
			await world.act('ines', issueRevision, { document: id, purpose: 'information', note: 'for all' });
		await world.revise(made[0]!.id);
		const all = (await world.read('oke', issued, { project })).rows;
		const mine = all.filter((row) => made.some(({ id }) => id === row.document));
		expect(mine).toHaveLength(3);
		expect(mine.map((row) => row.release)).toEqual([null, null, null]);
		expect(mine.find((row) => row.document === made[0]!.id)!.since).toMatch(/^P02/);
		expect(mine.find((row) => row.document === made[1]!.id)!.since).toBeNull();

		const paged = [];
		let after: string | undefined;
		do {
			const page = await world.read('oke', issued, { project, limit: 1, ...(after ? { after } : {}) });
			paged.push(...page.rows);
			after = page.next;
		} while (after);
		expect(paged).toEqual(all);
		expect((await world.read('petra', issued, { project })).rows).toEqual([]);
		for (const wrong of ['nonsense', '2026-99-99T00:00:00.000Z X', "2026-11-27T00:00:00.000Z'"])
			expect((await refused(world.read('oke', issued, { project, after: wrong }))).code).toBe('invalid');
	});
});
