import { and, eq, isNull, like, sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDocument } from '../../src/lib/server/documents/acts';
import { makeFolder, makeShelf, moveFolder, renameFolder } from '../../src/lib/server/places/acts';
import { breakLock, takeLock } from '../../src/lib/server/locks/acts';
import { removePlace, restorePlace } from '../../src/lib/server/removed/acts';
import { document, place } from '../../src/lib/server/platform/db/schema';
import { sameBytes } from '../../src/lib/server/content/content';
import { loadReach } from '../../src/lib/server/access/reach';
import { documentView } from '../../src/lib/server/documents/views';
import { documentsIn, numbersInUse, proposals } from '../../src/lib/server/places/views';
import { folders, shelves } from '../../src/lib/server/places/views-tree';
import { removed } from '../../src/lib/server/people/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const numbers = async (who: string, at: string) =>
	(await world.read(who, documentsIn, { place: at })).rows.map((r) => r.number);

/** How many documents are on the shelves under numbers of a form. */
const numbersLive = (form: string) => {
	const { db } = world.services.database;
	const found = db.select({ id: document.id }).from(document).innerJoin(place, eq(place.id, document.id));
	return db.$count(
		found.where(and(like(document.number, form), document.live, isNull(place.removalId))).as('found')
	);
};

describe('the list of a folder', () => {
	it('comes in pages that go on after the last row, whatever is added or removed meanwhile', async () => {
		const folder = (await world.act('oke', makeFolder, { parent: world.folder, name: 'Pages' })).id;
		const made: Record<number, string> = {};
		const put = async (serial: number) => {
			const upload = await world.send('oke', `sketch ${serial}`);
			made[serial] = (
				await world.act('oke', addDocument, {
					folder,
					upload,
					number: `VFT-MW-LS-00-MO-${String(serial).padStart(4, '0')}`,
					title: `Sketch ${serial}`
				})
			).id;
		};
		for (const serial of [2, 10, 4, 6, 8]) await put(serial);
		const page = (after?: string) => world.read('oke', documentsIn, { place: folder, limit: 2, after });
		const serials = (rows: { number: string }[]) => rows.map((r) => Number(r.number.slice(-4)));
		const first = await page();
		expect(serials(first.rows)).toEqual([2, 4]);
		await put(3);
		await world.act('oke', removePlace, { place: made[2]!, reason: 'gone' });
		const second = await page(first.next);
		expect(serials(second.rows)).toEqual([6, 8]);
		const third = await page(second.next);
		expect(serials(third.rows)).toEqual([10]);
		expect(third).not.toHaveProperty('next');
	});
});

describe('adding', () => {
	it('refuses empty and over-large files, bad names and numbers, and keeps nothing of them', async () => {
		expect(await refused(world.send('oke', ''))).toMatchObject({
			code: 'invalid',
			sentence: expect.stringContaining('empty')
		});
		expect(await refused(world.send('oke', 'x'.repeat(100), 'a.txt', 99))).toMatchObject({
			code: 'too-large'
		});
		expect(await refused(world.send('oke', 'x', '../../etc/passwd'))).toMatchObject({ code: 'invalid' });
		const upload = await world.send('oke', 'fine');
		expect(
			await refused(
				world.act('oke', addDocument, {
					folder: world.folder,
					upload,
					number: 'VFT-XX-LS-00-DR-0001',
					title: 'A'
				})
			)
		).toMatchObject({ code: 'invalid', facts: { field: 'number' } });
		expect(
			await refused(
				world.act('oke', addDocument, {
					folder: world.folder,
					upload,
					number: 'VFT-MW-LS-00-DR-9000',
					title: 'a/b'
				})
			)
		).toMatchObject({ code: 'invalid' });
	});

	it('gives a number to one of two who want it at once', async () => {
		const uploads = await Promise.all([world.send('oke', 'a'), world.send('rhosyn', 'b')]);
		const both = await Promise.allSettled(
			['oke', 'rhosyn'].map((who, i) =>
				world.act(who, addDocument, {
					folder: world.folder,
					upload: uploads[i],
					number: 'VFT-MW-LS-00-DR-0777',
					title: 'Race'
				})
			)
		);
		expect(both.filter((b) => b.status === 'fulfilled')).toHaveLength(1);
		expect(both.find((b) => b.status === 'rejected')).toMatchObject({ reason: { code: 'conflict' } });
	});

	it('makes one document of what is asked again because no answer came, also while the first is still made', async () => {
		const asked = {
			folder: world.folder,
			upload: await world.send('oke', 'pile cap 4 before the pour'),
			title: 'Pile cap 4 before the pour'
		};
		const ask = (number: string, again = true) =>
			world.act('oke', addDocument, { ...asked, number: `VFT-MW-LS-00-PH-${number}`, again });
		const [first, second] = await Promise.all([ask('0701'), ask('0702')]);
		expect(second).toEqual(first);
		// Sent anew, since the picture was not kept so long.
		const sent = await world.send('oke', 'pile cap 4 before the pour');
		expect(
			await world.act('oke', addDocument, {
				...asked,
				upload: sent,
				number: 'VFT-MW-LS-00-PH-0703',
				again: true
			})
		).toEqual(first);
		// The same again on purpose, by somebody else, or after it was removed, is a document of its own.
		const others = [await ask('0704', false)];
		await world.act('oke', removePlace, { place: first.id, reason: 'twice' });
		await world.act('oke', removePlace, { place: others[0]!.id, reason: 'twice' });
		others.push(await ask('0705'));
		expect(new Set([first, ...others].map(({ id }) => id)).size).toBe(3);
	});

	it('notices the same bytes, but only in what the person may look at', async () => {
		const { number } = await world.add('oke', 'twice the same bytes');
		const reachOf = async (who: string) =>
			(await loadReach(world.db, world.project, world.people[who]!.person.id, new Date()))!;
		const { createHash } = await import('node:crypto');
		const hash = createHash('sha256').update('twice the same bytes').digest('hex');
		expect((await sameBytes(world.db, await reachOf('rhosyn'), hash)).map((d) => d.number)).toEqual([number]);
		expect(await sameBytes(world.db, await reachOf('petra'), hash)).toEqual([]);
	});

	it('proposes numbers like those already in the folder', async () => {
		const { proposals: made } = await world.read('oke', proposals, {
			place: world.folder,
			files: ['hinge plan.dxf', 'pit plan.dxf']
		});
		expect(made[0]!.number).toMatch(/^VFT-MW-LS-00-DR-\d{4}$/);
		expect(made[1]!.number).not.toBe(made[0]!.number);
	});

	it('proposes the number of a document here that came under the same file name, if one may look at it', async () => {
		const upload = await world.send('oke', 'tide readings', 'tides.csv');
		const number = 'VFT-MW-LS-00-SH-8200';
		const { id } = await world.act('oke', addDocument, {
			folder: world.folder,
			upload,
			number,
			title: 'Tides'
		});
		const ask = async (who: string) =>
			(await world.read(who, proposals, { place: world.folder, files: ['tides.csv'] })).proposals[0];
		expect(await ask('oke')).toEqual({ file: 'tides.csv', number, title: 'Tides', from: 'file' });
		await world.act('oke', removePlace, { place: id, reason: 'replaced' });
		expect(await ask('oke')).toMatchObject({ from: 'next' });
	});

	it('says which numbers are in use, and of what only to those who may work on it', async () => {
		const { id, number } = await world.add('oke', 'numbered');
		const ask = async (who: string) =>
			(await world.read(who, numbersInUse, { project: 'VFT', numbers: [number, 'VFT-MW-LS-00-DR-9999'] }))
				.inUse;
		const [free] = await ask('oke');
		expect(free).toMatchObject({ number, document: { id, holder: null, mine: false, label: 'P01.1' } });
		expect(free!.free).toMatch(/^VFT-MW-LS-00-DR-\d{4}$/);
		await world.act('rhosyn', takeLock, { document: id, purpose: 'mine' });
		expect((await ask('oke'))[0]!.document).toMatchObject({ holder: 'Rhosyn Hale', mine: false });
		expect((await ask('rhosyn'))[0]!.document).toMatchObject({ mine: true });
		expect(await ask('petra')).toEqual([{ number, free: free!.free, document: null }]);
	});

	it('keeps the tags that a document is added with, and refuses what is none', async () => {
		const upload = await world.send('oke', 'tagged');
		const what = { folder: world.folder, upload, number: 'VFT-MW-LS-00-DR-8100', title: 'Tagged' };
		expect(await refused(world.act('oke', addDocument, { ...what, tags: ['#no'] }))).toMatchObject({
			code: 'invalid'
		});
		const { id } = await world.act('oke', addDocument, { ...what, tags: ['Steel', 'fender', 'steel'] });
		expect((await world.read('oke', documentView, { document: id })).row.tags).toEqual(['fender', 'steel']);
	});
});

describe('folders', () => {
	it('take their contents along when moved, and access follows the new place', async () => {
		const outer = await world.act('ines', makeFolder, { parent: world.shelf, name: 'To move' });
		const inner = await world.act('ines', makeFolder, { parent: outer.id, name: 'Inside' });
		const { id } = await world.add('ines', 'moved along', inner.id);
		expect(await refused(world.read('petra', documentView, { document: id }))).toMatchObject({
			code: 'not-found'
		});
		await world.act('ines', moveFolder, { folder: outer.id, to: world.other });
		expect((await world.read('petra', documentView, { document: id })).way.map((w) => w.name)).toEqual([
			'Architecture',
			'To move',
			'Inside'
		]);
		const [row] = await world.db.select().from(place).where(eq(place.id, id));
		expect(row).toMatchObject({ scope: world.other, path: world.other + outer.id + inner.id + id });
	});

	it('never go into themselves, even when two moves meet', async () => {
		const a = await world.act('ines', makeFolder, { parent: world.shelf, name: 'A' });
		const b = await world.act('ines', makeFolder, { parent: world.shelf, name: 'B' });
		expect(await refused(world.act('ines', moveFolder, { folder: a.id, to: a.id }))).toMatchObject({
			code: 'conflict'
		});
		const moves = await Promise.allSettled([
			world.act('ines', moveFolder, { folder: a.id, to: b.id }),
			world.act('ines', moveFolder, { folder: b.id, to: a.id })
		]);
		expect(moves.filter((m) => m.status === 'fulfilled')).toHaveLength(1);
		const all = (await world.read('ines', folders, { project: 'VFT' })).folders;
		const ways = all.map((f) => f.way).filter((way) => /(^| )[AB]$/.test(way));
		expect(ways).toHaveLength(2);
		expect(ways.filter((way) => way.endsWith('A / B') || way.endsWith('B / A'))).toHaveLength(1);
	});

	it('keep names apart whatever their case', async () => {
		await world.act('oke', makeFolder, { parent: world.shelf, name: 'Fenders' });
		expect(
			await refused(world.act('oke', makeFolder, { parent: world.shelf, name: 'FENDERS' }))
		).toMatchObject({ code: 'conflict' });
		expect(
			await refused(world.act('rhosyn', renameFolder, { folder: world.folder, name: 'Mine' }))
		).toMatchObject({ code: 'needs-level' });
	});
});

describe('removing and restoring (R1, R2)', () => {
	it('hides a folder as one act and brings it back with everything', async () => {
		const made = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Dredging' });
		const docs = [await world.add('oke', undefined, made.id), await world.add('oke', undefined, made.id)];
		await world.revise(docs[0]!.id);
		await world.act('oke', removePlace, { place: made.id, reason: 'not needed' });
		expect(await refused(world.read('oke', documentView, { document: docs[0]!.id }))).toMatchObject({
			code: 'not-found'
		});
		const { rows } = await world.read('oke', removed, { project: world.project });
		expect(rows.filter((r) => r.root && r.reason === 'not needed')).toMatchObject([
			{ name: 'Dredging', documents: 2, mayRestore: true }
		]);
		expect(
			(await world.read('petra', removed, { project: world.project })).rows.some(
				(r) => r.reason === 'not needed'
			)
		).toBe(false);
		await world.act('oke', restorePlace, { place: made.id });
		expect(await numbers('oke', made.id)).toEqual(docs.map((d) => d.number).sort());
		expect((await world.read('oke', documentView, { document: docs[0]!.id })).versions).toHaveLength(2);
	});

	it('is restored by a controller although whoever removed it has it in hand', async () => {
		const { id } = await world.add('rhosyn');
		await world.act('rhosyn', takeLock, { document: id, purpose: 'the last change' });
		await world.act('rhosyn', removePlace, { place: id, reason: 'not wanted' });
		await world.act('ines', restorePlace, { place: id });
		expect((await world.read('rhosyn', documentView, { document: id })).row.lock?.mine).toBe(true);
	});

	it('restores one document of a removed folder, and the folder with it, but not the rest', async () => {
		const made = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Surveys' });
		const [one, two] = [
			await world.add('oke', undefined, made.id),
			await world.add('oke', undefined, made.id)
		];
		await world.act('oke', removePlace, { place: made.id, reason: 'r' });
		expect(await world.act('oke', restorePlace, { place: one.id })).toMatchObject({ folders: ['Surveys'] });
		expect(await numbers('oke', made.id)).toEqual([one.number]);
		await world.act('oke', restorePlace, { place: two.id });
		expect(await numbers('oke', made.id)).toEqual([one.number, two.number].sort());
	});

	it('leaves removed what had been removed before its folder', async () => {
		const made = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Lanes' });
		const [one, two] = [
			await world.add('oke', undefined, made.id),
			await world.add('oke', undefined, made.id)
		];
		await world.act('oke', removePlace, { place: one.id, reason: 'first' });
		await world.act('oke', removePlace, { place: made.id, reason: 'then' });
		await world.act('oke', restorePlace, { place: made.id });
		expect(await numbers('oke', made.id)).toEqual([two.number]);
	});

	it('comes back with a suffix and says so when name or number is taken', async () => {
		const made = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Twin' });
		const { id, number } = await world.add('oke', undefined, made.id);
		await world.act('oke', removePlace, { place: made.id, reason: 'r' });
		await world.act('oke', makeFolder, { parent: world.shelf, name: 'twin' });
		const upload = await world.send('oke', 'takes the number');
		await world.act('oke', addDocument, { folder: world.folder, upload, number, title: 'Newer' });
		const { renamed } = await world.act('oke', restorePlace, { place: made.id });
		expect(renamed).toEqual(['Twin → Twin (restored)', `${number} → ${number}-R1`]);
		expect((await world.read('oke', documentView, { document: id })).row.number).toBe(`${number}-R1`);
	});

	it('goes and comes back whole, however many; only what was taken meanwhile gets another number', async () => {
		const made = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Soundings' });
		const { id, number } = await world.add('oke', undefined, made.id);
		const more = 400;
		const { db } = world.services.database;
		await db.execute(sql`insert into place select (jsonb_populate_record(one, jsonb_build_object(
			'id', 'm' || lpad(n::text, 9, '0'), 'path', left(one.path, -10) || 'm' || lpad(n::text, 9, '0'), 'name_key', 'm' || n)
			)).* from place one, generate_series(1, ${more}::int) n where one.id = ${id}`);
		await db.execute(sql`insert into document select (jsonb_populate_record(one, jsonb_build_object(
			'id', 'm' || lpad(n::text, 9, '0'), 'number', one.number || '-' || n)
			)).* from document one, generate_series(1, ${more}::int) n where one.id = ${id}`);
		const gone = await world.act('oke', removePlace, { place: made.id, reason: 'surveyed anew' });
		expect(gone).toEqual({ documents: more + 1 });
		expect(await numbersLive(`${number}%`)).toBe(0);
		const upload = await world.send('oke', 'takes one of the numbers');
		await world.act('oke', addDocument, { folder: world.folder, upload, number, title: 'Newer' });
		expect(await world.act('oke', restorePlace, { place: made.id })).toMatchObject({
			documents: more + 1,
			renamed: [`${number} → ${number}-R1`]
		});
		expect(await numbersLive(`${number}-%`)).toBe(more + 1);
	});

	it('asks for Organise where others’ documents are concerned, and leaves alone what others have in hand', async () => {
		const { id } = await world.add('oke');
		expect(await refused(world.act('rhosyn', removePlace, { place: id, reason: 'r' }))).toMatchObject({
			code: 'needs-level'
		});
		const own = await world.add('rhosyn');
		await world.act('oke', takeLock, { document: own.id, purpose: '' });
		expect(await refused(world.act('rhosyn', removePlace, { place: own.id, reason: 'r' }))).toMatchObject({
			code: 'in-hand'
		});
		// Manage too: a lock caps everyone but its holder (A6); it is broken first.
		expect(await refused(world.act('ines', removePlace, { place: own.id, reason: 'r' }))).toMatchObject({
			code: 'in-hand'
		});
		await world.act('ines', breakLock, { document: own.id, reason: 'in the way' });
		await world.act('ines', removePlace, { place: own.id, reason: 'now free' });
	});

	it('ends with the retention time', async () => {
		const { id } = await world.add('oke');
		await world.act(
			'oke',
			removePlace,
			{ place: id, reason: 'long ago' },
			new Date(Date.now() - 61 * 86_400_000)
		);
		expect(await refused(world.act('oke', restorePlace, { place: id }))).toMatchObject({ code: 'conflict' });
	});
});

describe('counts on the shelves', () => {
	it('are those of the person who looks', async () => {
		const ines = await world.read('ines', shelves, { project: 'VFT' });
		const petra = await world.read('petra', shelves, { project: 'VFT' });
		const edda = await world.read('edda', shelves, { project: 'VFT' });
		expect(ines.shelves.map((s) => s.name).sort()).toEqual(['Architecture', 'Marine works']);
		expect(petra.shelves.map((s) => s.name)).toEqual(['Architecture']);
		expect(edda.shelves).toEqual([]);
		const sum = ines.shelves.find((s) => s.name === 'Marine works')!;
		const [{ n } = { n: 0 }] = await world.services.database.client<
			{ n: number }[]
		>`select count(*)::int as n from place where kind = 'document' and removal_id is null and path like ${world.shelf + '%'}`;
		expect(sum.documents).toBe(n);
	});

	it('need departments of the project for a shelf', async () => {
		expect(
			await refused(
				world.act('ines', makeShelf, { project: world.project, name: 'X', department: 'zzzzzzzzzz' })
			)
		).toMatchObject({ code: 'invalid' });
		expect(await refused(world.act('oke', makeShelf, { project: world.project, name: 'X' }))).toMatchObject({
			code: 'needs-level'
		});
	});
});
