import { randomBytes } from 'node:crypto';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { downloadDocument, openDocument } from '../../src/lib/server/documents/acts';
import { discardSide, handIn, mergeSide, takeSide } from '../../src/lib/server/documents/acts-hand-in';
import {
	answerBrokenLock,
	askForLock,
	breakLock,
	endWish,
	extendLock,
	giveBackLock,
	handOverLock,
	takeLock,
	takeLocks,
	waitForLock
} from '../../src/lib/server/locks/acts';
import { event, lock, notice, sideVersion, version } from '../../src/lib/server/platform/db/schema';
import { remindStaleLocks } from '../../src/lib/server/locks/reminders';
import {
	documentView,
	everythingInHand,
	handInBase,
	handInCheck
} from '../../src/lib/server/documents/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

const DAY = 86_400_000;
const later = (days: number) => new Date(Date.now() + days * DAY).toISOString();
const person = (who: string) => world.people[who]!.person.id;
const told = (who: string, kind: string) =>
	world.db
		.select()
		.from(notice)
		.where(and(eq(notice.personId, person(who)), eq(notice.kind, kind as never)));
const hold = async (who = 'oke') => {
	const made = await world.add();
	await world.act(who, takeLock, { document: made.id, purpose: 'a change' });
	return made.id;
};

describe('waiting for a lock', () => {
	it('tells the holder who asks, and those who wait when it is free', async () => {
		const document = await hold();
		await world.act('rhosyn', askForLock, { document, note: 'for the pit wall' });
		await world.act('ines', waitForLock, { document });
		// Whoever asked and waits besides still asks, with what they said.
		await world.act('rhosyn', waitForLock, { document });
		expect((await told('oke', 'lock-asked')).at(-1)!.sentence).toContain('for the pit wall');
		expect((await world.read('oke', documentView, { document })).waiting).toEqual({
			asked: [{ name: 'Rhosyn Hale', note: 'for the pit wall' }],
			mine: null
		});
		expect(await refused(world.act('rhosyn', askForLock, { document }))).toMatchObject({
			code: 'conflict'
		});
		await world.act('oke', giveBackLock, { document });
		expect((await told('rhosyn', 'lock-free')).at(-1)!.sentence).toContain('gave it back');
		expect(await told('ines', 'lock-free')).toHaveLength(1);
		expect((await world.read('rhosyn', documentView, { document })).waiting.mine).toBeNull();
		expect(await refused(world.act('rhosyn', askForLock, { document }))).toMatchObject({
			code: 'conflict',
			sentence: 'Nobody has this in hand; it is free.'
		});
	});
	it('asks for Work before one may ask, and for View before one may be told', async () => {
		const document = await hold();
		const line = { subject: { kind: 'person', id: person('petra') }, level: 'view' };
		expect(await refused(world.act('petra', waitForLock, { document }))).toMatchObject({
			code: 'not-found'
		});
		await world.act('oke', letIn, { place: document, lines: [line], note: '' });
		expect(await refused(world.act('petra', askForLock, { document }))).toMatchObject({
			code: 'needs-level'
		});
		await world.act('petra', waitForLock, { document });
		await world.act('petra', endWish, { document });
		await world.act('oke', giveBackLock, { document });
		expect(await told('petra', 'lock-free')).toHaveLength(0);
	});
});

describe('a lock in its life', () => {
	it('is kept longer by its holder only, up to 90 days', async () => {
		const document = await hold();
		await world.act('oke', extendLock, { document, expectedEnd: later(3) });
		expect(await refused(world.act('oke', extendLock, { document, expectedEnd: later(91) }))).toMatchObject({
			code: 'invalid'
		});
		expect(await refused(world.act('oke', extendLock, { document, expectedEnd: later(-1) }))).toMatchObject({
			code: 'invalid'
		});
		expect(await refused(world.act('ines', extendLock, { document, expectedEnd: later(1) }))).toMatchObject({
			code: 'in-hand'
		});
	});
	it('goes over to a colleague who may work here, and to nobody else', async () => {
		const document = await hold();
		expect(await refused(world.act('oke', handOverLock, { document, to: person('petra') }))).toMatchObject({
			code: 'invalid'
		});
		await world.act('oke', handOverLock, { document, to: person('rhosyn'), note: 'hinge is yours' });
		expect((await told('rhosyn', 'lock-came')).at(-1)!.sentence).toContain('hinge is yours');
		expect((await world.read('oke', documentView, { document })).row.lock?.holder).toBe('Rhosyn Hale');
		expect(await refused(world.act('oke', giveBackLock, { document }))).toMatchObject({ code: 'in-hand' });
		await world.act('rhosyn', giveBackLock, { document });
	});
	it('is taken for many documents at once, or for none', async () => {
		const documents = [await world.add(), await world.add(), await world.add()].map((d) => d.id);
		await world.act('rhosyn', takeLock, { document: documents[1], purpose: '' });
		const problem = await refused(
			world.act('oke', takeLocks, { project: 'VFT', documents, purpose: 'joint change' })
		);
		expect(problem).toMatchObject({ code: 'in-hand' });
		expect(problem.sentence).toContain('Rhosyn Hale has');
		const open = () =>
			world.db
				.select()
				.from(lock)
				.where(and(isNull(lock.endedAt), eq(lock.purpose, 'joint change')));
		expect(await open()).toHaveLength(0);
		await world.act('rhosyn', giveBackLock, { document: documents[1] });
		expect(await world.act('oke', takeLocks, { project: 'VFT', documents, purpose: 'joint change' })).toEqual(
			{
				locked: 3,
				left: []
			}
		);
		expect(await open()).toHaveLength(3);
		const { rows } = await world.read('oke', everythingInHand, { project: 'VFT' });
		expect(rows.filter((r) => documents.includes(r.id)).every((r) => r.lock?.mine)).toBe(true);
		expect(
			await refused(world.act('petra', takeLocks, { project: 'VFT', documents, purpose: '' }))
		).toMatchObject({
			code: 'not-found'
		});
		for (const document of documents) await world.act('oke', giveBackLock, { document });
	});
	it('past its end is brought to mind once to the holder, and a day later once to the leads', async () => {
		const document = await hold('rhosyn');
		const stale = async (who: string) =>
			(await told(who, 'lock-stale')).filter((n) => n.placeId === document).length;
		const at = (days: number) => remindStaleLocks(world.services, new Date(Date.now() + days * DAY));
		await at(1);
		expect([await stale('rhosyn'), await stale('oke')]).toEqual([0, 0]);
		await at(5.5);
		await at(5.6);
		expect([await stale('rhosyn'), await stale('oke')]).toEqual([1, 0]);
		await at(6.5);
		await at(9);
		expect([await stale('rhosyn'), await stale('oke')]).toEqual([1, 1]);
		await world.act('rhosyn', giveBackLock, { document });
	});
});

describe('a broken lock', () => {
	it('needs Manage and a reason, tells its holder, and loses nothing of what they bring later', async () => {
		const document = await hold('rhosyn');
		await world.act('rhosyn', downloadDocument, { document, label: 'P01.1', ranged: false });
		expect(await refused(world.act('rhosyn', breakLock, { document, reason: 'x' }))).toMatchObject({
			code: 'needs-level'
		});
		expect(await refused(world.act('oke', breakLock, { document, reason: ' ' }))).toMatchObject({
			code: 'invalid'
		});
		await world.act('oke', breakLock, { document, reason: 'needed for release 0042' });
		expect((await told('rhosyn', 'lock-broken')).at(-1)!.sentence).toContain('needed for release 0042');
		await world.revise(document, 'oke');
		const upload = await world.send('rhosyn', 'what Rhosyn drew meanwhile');
		const brought = await world.act('rhosyn', handIn, { document, upload, note: 'my week' });
		expect(brought).toEqual({ kept: 'beside', side: 1 });
		const view = await world.read('oke', documentView, { document });
		expect(view.versions).toHaveLength(2);
		expect(view.sides).toMatchObject([
			{ number: 1, by: 'Rhosyn Hale', base: 'P01.1', note: 'my week', state: 'open' }
		]);
		expect((await told('oke', 'side-version')).at(-1)!.sentence).toContain('side version 1');
		expect(await refused(world.act('rhosyn', handIn, { document, upload, note: 'again' }))).toMatchObject({
			code: 'conflict'
		});
		const opened = await world.act('oke', takeSide, { document, side: 1, how: 'downloaded' });
		expect(opened.hash).toBe(view.sides[0]!.hash);
	});
	it('is shown to its holder until they have answered, by a file or by saying that nothing comes', async () => {
		const document = await hold('rhosyn');
		const broken = async (who: string) => (await world.read(who, documentView, { document })).broken;
		expect(await broken('rhosyn')).toBeNull();
		await world.act('oke', breakLock, { document, reason: 'the berth opens' });
		expect(await broken('rhosyn')).toMatchObject({ by: 'Oke Lindvar', reason: 'the berth opens' });
		expect(await broken('oke')).toBeNull();
		// Taking it in hand again is no answer.
		await world.act('rhosyn', takeLock, { document, purpose: '' });
		await world.act('rhosyn', giveBackLock, { document });
		expect(await broken('rhosyn')).not.toBeNull();
		const upload = await world.send('rhosyn', 'after all');
		await world.act('rhosyn', handIn, { document, upload, note: 'after all' });
		expect(await broken('rhosyn')).toBeNull();

		await world.act('rhosyn', takeLock, { document, purpose: '' });
		await world.act('oke', breakLock, { document, reason: 'again' });
		expect(await broken('rhosyn')).toMatchObject({ reason: 'again' });
		await world.act('rhosyn', answerBrokenLock, { document });
		expect(await broken('rhosyn')).toBeNull();
		expect(await refused(world.act('rhosyn', answerBrokenLock, { document }))).toMatchObject({
			code: 'conflict'
		});
	});
	it('lets a side version be merged by who holds the lock, once, or dropped with a reason', async () => {
		const document = await hold('oke');
		const side = async (content: string) =>
			world.act('rhosyn', handIn, {
				document,
				upload: await world.send('rhosyn', content),
				note: content,
				base: 'P01.1'
			});
		expect([await side('one'), await side('two')]).toEqual([
			{ kept: 'beside', side: 1 },
			{ kept: 'beside', side: 2 }
		]);
		expect(await refused(world.act('rhosyn', mergeSide, { document, side: 1 }))).toMatchObject({
			code: 'in-hand'
		});
		expect(await world.act('oke', mergeSide, { document, side: 1 })).toEqual({ label: 'P01.2' });
		expect(await refused(world.act('oke', mergeSide, { document, side: 1 }))).toMatchObject({
			code: 'conflict'
		});
		const joined = await world.send('oke', 'two joined with one');
		expect(await world.act('oke', mergeSide, { document, side: 2, upload: joined })).toEqual({
			label: 'P01.3'
		});
		expect(await side('three')).toEqual({ kept: 'beside', side: 3 });
		await world.act('oke', discardSide, { document, side: 3, reason: 'drawn on the wrong grid' });
		expect((await told('rhosyn', 'side-version')).at(-1)!.sentence).toContain('wrong grid');
		const { sides, versions, row } = await world.read('oke', documentView, { document });
		expect(sides.map((s) => s.state)).toEqual(['discarded', 'merged', 'merged']);
		expect(versions.map((v) => v.label)).toEqual(['P01.3', 'P01.2', 'P01.1']);
		expect(row.lock?.mine).toBe(true);
	});
});

describe('an old file (L5)', () => {
	/** Rhosyn downloads, her lock is broken, Oke stores a version, and she takes it in hand again. */
	async function overtaken() {
		const document = await hold('rhosyn');
		await world.act('rhosyn', downloadDocument, { document, label: 'P01.1', ranged: false });
		await world.act('oke', breakLock, { document, reason: 'urgent' });
		await world.revise(document, 'oke');
		await world.act('rhosyn', takeLock, { document, purpose: 'again' });
		const upload = await world.send('rhosyn', randomBytes(8));
		return { document, upload, note: 'my week' };
	}
	const line = async (document: string) => {
		const { versions, sides, row } = await world.read('rhosyn', documentView, { document });
		return [versions[0]!.label, sides.map((s) => s.base), row.lock?.mine ?? false];
	};

	it('under a new lock buries nothing: its sender is told what came, and by whom, before it is stored', async () => {
		const file = await overtaken();
		const told = await refused(world.act('rhosyn', handIn, file));
		expect(told).toMatchObject({ code: 'stale-base', facts: { base: 'P01.1', newest: 'P01.2' } });
		expect(told.sentence).toContain('Oke Lindvar stored P01.2');
		const known = await world.read('rhosyn', handInBase, { document: file.document });
		expect(known).toMatchObject({ label: 'P01.1', since: [{ label: 'P01.2', by: 'Oke Lindvar' }] });
		expect(await line(file.document)).toEqual(['P01.2', [], true]);
	});
	it('is kept beside when its sender says so, and the lock stays for merging', async () => {
		const file = await overtaken();
		expect(await world.act('rhosyn', handIn, { ...file, beside: true })).toMatchObject({ side: 1 });
		expect(await line(file.document)).toEqual(['P01.2', ['P01.1'], true]);
	});
	it('goes on the line when its sender says that it was made from the newest after all', async () => {
		const file = await overtaken();
		expect(await world.act('rhosyn', handIn, { ...file, base: 'P01.2' })).toMatchObject({ label: 'P01.3' });
		expect(await line(file.document)).toEqual(['P01.3', [], false]);
		const wrong = await world.send('rhosyn', 'x');
		const what = { document: file.document, upload: wrong, note: 'x', base: 'P09.9' };
		expect(await refused(world.act('rhosyn', handIn, what))).toMatchObject({ code: 'invalid' });
	});
	it('is new once the newest was downloaded', async () => {
		const file = await overtaken();
		await world.act('rhosyn', openDocument, { document: file.document, label: 'P01.2' });
		expect(await refused(world.act('rhosyn', handIn, file))).toMatchObject({ code: 'stale-base' });
		await world.act('rhosyn', downloadDocument, { document: file.document, label: 'P01.2', ranged: false });
		expect(await world.act('rhosyn', handIn, file)).toMatchObject({ label: 'P01.3' });
	});
	it('of somebody who never had one is asked about, too', async () => {
		const document = await hold('rhosyn');
		const upload = await world.send('rhosyn', 'from somewhere');
		const told = await refused(world.act('rhosyn', handIn, { document, upload, note: 'n' }));
		expect(told).toMatchObject({ code: 'stale-base', facts: { base: null } });
	});
});

it('warns of a file of another kind, of bytes seen before, and of another number in the title block', async () => {
	const document = await hold();
	const dxf = (number: string) =>
		`0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\n0\n66\n1\n2\nTITLE\n10\n0\n20\n0\n0\nATTRIB\n8\n0\n10\n0\n20\n0\n40\n2\n2\nNUMBER\n1\n${number}\n0\nSEQEND\n0\nENDSEC\n0\nEOF\n`;
	const check = async (upload: string) =>
		(await world.read('oke', handInCheck, { document, upload })).warnings.join(' ');
	const warned = await check(await world.send('oke', dxf('VFT-XX-9999'), 'a.dxf'));
	expect(warned).toContain('another kind');
	expect(warned).toContain('VFT-XX-9999');
	const { row } = await world.read('oke', documentView, { document });
	expect(await check(await world.send('oke', `content of ${row.number}`))).toContain('very bytes of P01.1');
	expect(await check(await world.send('oke', 'something new'))).toBe('');
});

it('200 hand-ins, locks, breaks and givings back at once lose nothing and overlap nowhere', async () => {
	const documents: string[] = [];
	for (let i = 0; i < 20; i++) documents.push((await world.add()).id);
	const people = ['oke', 'rhosyn', 'ines'];
	const sent = new Set<string>();
	let seed = 7;
	const pick = <T>(list: T[]): T => list[(seed = (seed * 48271) % 2147483647) % list.length]!;
	const one = async () => {
		const [document, who] = [pick(documents), pick(people)];
		const what = pick(['lock', 'lock', 'hand in', 'hand in', 'save', 'back', 'break']);
		const done =
			what === 'lock'
				? world.act(who, takeLock, { document, purpose: '' })
				: what === 'back'
					? world.act(who, giveBackLock, { document })
					: what === 'break'
						? world.act('ines', breakLock, { document, reason: 'x' })
						: world.send(who, randomBytes(9)).then(async (upload) => {
								const [stored] = await world.db.execute<{ hash: string }>(
									`select hash from upload where id = '${upload}'` as never
								);
								const file = { document, upload, note: 'n', keepLock: what === 'save' };
								await world.act(who, handIn, file).catch((error: { code?: string; facts?: object }) => {
									if (error.code !== 'stale-base') throw error;
									const { newest } = error.facts as { newest: string };
									return world.act(who, handIn, { ...file, base: newest });
								});
								sent.add(`${document}:${stored!.hash}`);
							});
		await done.catch((error: { code?: string }) => {
			// Being too late is an answer; anything else is a fault.
			if (!['in-hand', 'conflict'].includes(error.code ?? '')) throw error;
		});
	};
	await Promise.all(Array.from({ length: 200 }, one));
	expect(sent.size).toBeGreaterThan(30);
	for (const document of documents) {
		const locks = await world.db
			.select()
			.from(lock)
			.where(eq(lock.documentId, document))
			.orderBy(asc(lock.takenAt));
		expect(locks.filter((l) => l.endedAt === null).length).toBeLessThanOrEqual(1);
		// The trail is the order in which things happened: it must read as one lock after the other.
		const events = await world.db
			.select()
			.from(event)
			.where(eq(event.documentId, document))
			.orderBy(asc(event.seq));
		let holder: string | null = null;
		for (const e of events) {
			if (e.kind === 'lock.taken') {
				expect(holder).toBeNull();
				holder = e.actor;
			} else if (['version.handed-in', 'lock.given-back', 'version.saved'].includes(e.kind)) {
				expect(e.actor).toBe(holder);
				if (e.kind !== 'version.saved') holder = null;
			} else if (e.kind === 'lock.broken') {
				expect(holder).not.toBeNull();
				holder = null;
			}
		}
		const versions = await world.db.select().from(version).where(eq(version.documentId, document));
		expect(versions.map((v) => v.seq).sort((a, b) => a - b)).toEqual(versions.map((_, i) => i + 1));
		const sides = await world.db.select().from(sideVersion).where(eq(sideVersion.documentId, document));
		const kept = new Set([...versions, ...sides].map((v) => `${document}:${v.hash}`));
		for (const one of sent) if (one.startsWith(document)) expect(kept.has(one)).toBe(true);
	}
	expect((await world.verify()).fault).toBeNull();
});
