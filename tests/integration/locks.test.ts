import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { restoreVersion } from '../../src/lib/server/documents/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { giveBackLock, takeLock } from '../../src/lib/server/locks/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

describe('locks (L1 to L3)', () => {
	it('of fifty tries at once, one wins and forty-nine are told who has it', async () => {
		const { id } = await world.add();
		const names = ['oke', 'rhosyn', 'ines'];
		const tries = await Promise.allSettled(
			Array.from({ length: 50 }, (_, i) =>
				world.act(names[i % 3]!, takeLock, { document: id, purpose: `try ${i}` })
			)
		);
		const won = tries.flatMap((t, i) => (t.status === 'fulfilled' ? [names[i % 3]!] : []));
		expect(won).toHaveLength(1);
		const holder = world.people[won[0]!]!.person.name;
		for (const [i, t] of tries.entries()) {
			if (t.status === 'fulfilled') continue;
			if (names[i % 3] === won[0]) expect(t.reason).toMatchObject({ code: 'conflict' });
			else expect(t.reason).toMatchObject({ code: 'in-hand', facts: { holder } });
		}
	});

	it('keep what others hand in beside the line, and show them the last version', async () => {
		const { id } = await world.add();
		await world.act('oke', takeLock, { document: id, purpose: 'pit wall' });
		const upload = await world.send('rhosyn', 'something else');
		expect(await world.act('rhosyn', handIn, { document: id, upload, note: 'mine' })).toEqual({
			kept: 'beside',
			side: 1
		});
		expect(await world.revise(id, 'oke', 'kept', true)).toBe('P01.2');
		const seen = await world.read('rhosyn', documentView, { document: id });
		expect(seen.row).toMatchObject({ label: 'P01.2', lock: { holder: 'Oke Lindvar', mine: false } });
		expect(seen.versions[0]).toMatchObject({ lockKept: true });
	});

	it('are needed for handing in on the line, and end with it', async () => {
		const { id } = await world.add();
		const upload = await world.send('oke', 'without a lock');
		expect(await world.act('oke', handIn, { document: id, upload, note: 'x' })).toMatchObject({
			kept: 'beside'
		});
		expect(await world.revise(id)).toBe('P01.2');
		expect((await world.read('oke', documentView, { document: id })).row.lock).toBeNull();
	});

	it('can be given back by their holder only', async () => {
		const { id } = await world.add();
		await world.act('oke', takeLock, { document: id, purpose: '' });
		expect(await refused(world.act('rhosyn', giveBackLock, { document: id }))).toMatchObject({
			code: 'in-hand'
		});
		await world.act('oke', giveBackLock, { document: id });
		expect(await refused(world.act('oke', giveBackLock, { document: id }))).toMatchObject({
			code: 'conflict'
		});
	});

	it('refuse an end in the past', async () => {
		const { id } = await world.add();
		expect(
			await refused(
				world.act('oke', takeLock, { document: id, purpose: '', expectedEnd: '2020-01-01T00:00:00Z' })
			)
		).toMatchObject({ code: 'invalid' });
	});

	it('become stale after their end', async () => {
		const { id } = await world.add();
		const before = new Date(Date.now() - 3 * 86_400_000);
		await world.act(
			'oke',
			takeLock,
			{ document: id, purpose: '', expectedEnd: new Date(Date.now() - 86_400_000).toISOString() },
			before
		);
		expect((await world.read('rhosyn', documentView, { document: id })).row.lock).toMatchObject({
			stale: true
		});
	});
});

describe('versions (L6 to L8)', () => {
	it('of the same bytes are not made twice: the lock ends and nothing else happens', async () => {
		const { id } = await world.add('oke', 'the same');
		await world.act('oke', takeLock, { document: id, purpose: '' });
		const upload = await world.send('oke', 'the same');
		const same = { kept: 'as-it-was', label: 'P01.1' };
		const saved = { document: id, upload, note: 'x', keepLock: true };
		expect(await world.act('oke', handIn, saved)).toEqual(same);
		expect((await world.read('oke', documentView, { document: id })).row.lock?.mine).toBe(true);
		expect(await world.act('oke', handIn, { document: id, upload, note: 'x' })).toEqual(same);
		const { row, versions, sides } = await world.read('oke', documentView, { document: id });
		expect([row.lock, versions.length, sides]).toEqual([null, 1, []]);
		expect(
			await refused(
				world.act('rhosyn', handIn, {
					document: id,
					upload: await world.send('rhosyn', 'the same'),
					note: 'x'
				})
			)
		).toMatchObject({ code: 'conflict' });
	});

	it('restore an older one as a new one and keep all between', async () => {
		const { id } = await world.add('oke', 'one');
		await world.revise(id, 'oke', 'two');
		const { label } = await world.act('oke', restoreVersion, { document: id, label: 'P01.1' });
		const { versions } = await world.read('oke', documentView, { document: id });
		expect(label).toBe('P01.3');
		expect(versions.map((v) => v.label)).toEqual(['P01.3', 'P01.2', 'P01.1']);
		expect(versions[0]!.hash).toBe(versions[2]!.hash);
		expect(await refused(world.act('oke', restoreVersion, { document: id, label: 'P01.1' }))).toMatchObject({
			code: 'conflict'
		});
	});

	it('cannot be made from content somebody else sent', async () => {
		const { id } = await world.add();
		await world.act('rhosyn', takeLock, { document: id, purpose: '' });
		const upload = await world.send('petra', 'secret of Architecture');
		expect(await refused(world.act('rhosyn', handIn, { document: id, upload, note: 'x' }))).toMatchObject({
			code: 'invalid'
		});
	});

	it('count without gaps or repeats when many hand in at once, and the chain holds', async () => {
		const ids = await Promise.all([world.add(), world.add(), world.add()]);
		const people = ['oke', 'rhosyn', 'ines'];
		await Promise.all(
			Array.from({ length: 60 }, async (_, i) => {
				const who = people[i % 3]!;
				const { id } = ids[Math.floor(i / 3) % 3]!;
				await world.act(who, takeLock, { document: id, purpose: '' }).then(
					() => world.revise(id, who, `bytes ${i}`),
					() => {}
				);
			})
		);
		for (const { id } of ids) {
			const { versions, row } = await world.read('ines', documentView, { document: id });
			expect(versions.map((v) => v.label).reverse()).toEqual(versions.map((_, i) => `P01.${i + 1}`));
			expect(row.lock).toBeNull();
		}
		expect(await world.verify()).toMatchObject({ fault: null });
	});
});
