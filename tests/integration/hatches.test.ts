import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { zipSync } from 'fflate';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { closePlace } from '../../src/lib/server/access/acts-standing';
import { makeFolder } from '../../src/lib/server/places/acts';
import {
	closeHatches,
	dropFiles,
	makeHatch,
	openArrival,
	putThroughHatch,
	refuseArrival,
	sortArrival,
	sortAsVersion
} from '../../src/lib/server/hatches/acts';
import { giveBackLock, takeLock } from '../../src/lib/server/locks/acts';
import { chooseNotices, readNotices } from '../../src/lib/server/notices/acts';
import { removePlace } from '../../src/lib/server/removed/acts';
import { checkOne } from '../../src/lib/server/hatches/check';
import { cleanUploads, receive } from '../../src/lib/server/content/content';
import { arrival, content, mail, notice } from '../../src/lib/server/platform/db/schema';
import { checkArrival, type Scanner } from '../../src/lib/server/formats/scan';
import { sendDigests } from '../../src/lib/server/locks/reminders';
import { documentView } from '../../src/lib/server/documents/views';
import { notices } from '../../src/lib/server/notices/views';
import { arrivals, hatchView } from '../../src/lib/server/passes/views';
import { shelves } from '../../src/lib/server/places/views-tree';
import { refused, TestWorld } from './world';

let world: TestWorld;
let folder = '';
let doc = { id: '', number: '' };
beforeAll(async () => {
	world = await TestWorld.open();
	folder = (await world.act('oke', makeFolder, { parent: world.shelf, name: 'For outside' })).id;
	doc = await world.add('oke', 'first words', folder);
});
afterAll(() => world.close());

const UNTIL = '2027-11-30';
const lastMail = async (address: string) =>
	(await world.db.select().from(mail).where(eq(mail.toAddress, address)).orderBy(mail.createdAt)).at(-1)!;

describe('a hatch', () => {
	const hatch = async (more: object = {}) => {
		const made = await world.act('oke', makeHatch, {
			place: folder,
			title: 'Shop drawings',
			until: UNTIL,
			...more
		});
		return { ...made, secret: made.link.split('/hatch/')[1]! };
	};
	const through = async (hatchId: string, text: string | Uint8Array, name = 'tower.txt') => {
		const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text;
		const one = (async function* () {
			yield bytes;
		})();
		return (await receive(world.services, { hatchId }, name, one, 1e9)).upload;
	};
	const put = (secret: string, uploads: string[], more: object = {}) =>
		world.act(null, putThroughHatch, {
			secret,
			sender: 'Kaja Dorn, Tarn',
			email: 'k@tarn.example',
			uploads,
			...more
		});
	const came = async (hatchId: string) => world.db.select().from(arrival).where(eq(arrival.hatchId, hatchId));

	it('lets files in and tells nothing of the place: no name, no list, no sizes', async () => {
		const { id, secret } = await hatch();
		const seen = JSON.stringify(await world.read(null, hatchView, { secret }));
		for (const hidden of ['For outside', folder, 'Marine works', doc.number])
			expect(seen).not.toContain(hidden);
		await put(secret, [await through(id, 'tower one'), await through(id, 'tower two')]);
		expect(JSON.stringify(await world.read(null, hatchView, { secret }))).not.toContain('tower');
		expect(await came(id)).toHaveLength(2);
		const bell = await world.read('oke', notices, { project: 'VFT' });
		expect(bell.notices[0]).toMatchObject({
			kind: 'hatch-arrival',
			sentence: expect.stringContaining('2 files')
		});
		expect(JSON.stringify(await world.read('rhosyn', arrivals, { project: 'VFT' }))).not.toContain('tower');
	});

	it('uses only files that were sent through it, and only as many as it takes', async () => {
		const [a, b] = [await hatch({ maxFiles: 1 }), await hatch()];
		const upload = await through(a.id, 'mine');
		expect(await refused(put(b.secret, [upload]))).toMatchObject({ code: 'invalid' });
		expect(await refused(put(a.secret, [upload, await through(a.id, 'more')]))).toMatchObject({
			code: 'too-many'
		});
		await put(a.secret, [upload]);
		const race = await hatch({ maxFiles: 3 });
		const uploads = await Promise.all(Array.from({ length: 8 }, (_, i) => through(race.id, `race ${i}`)));
		await Promise.allSettled(uploads.map((one) => put(race.secret, [one])));
		expect(await came(race.id)).toHaveLength(3);
	});

	it('what came in waits until it is checked, and is sorted in with number and title, or refused with a reply', async () => {
		const { id, secret } = await hatch();
		await put(secret, [await through(id, 'good drawing'), await through(id, 'not wanted')]);
		const [good, bad] = await came(id);
		const sort = {
			place: folder,
			arrival: good!.id,
			folder,
			number: 'VFT-MW-LS-00-DR-0777',
			title: 'Tower T1'
		};
		expect(await refused(world.act('oke', sortArrival, sort))).toMatchObject({ code: 'busy' });
		for (const one of [good!, bad!]) await checkOne(world.services, one.id);
		expect(await refused(world.act('rhosyn', sortArrival, sort))).toMatchObject({ code: 'needs-level' });
		expect(await world.act('oke', openArrival, { place: folder, arrival: good!.id })).toMatchObject({
			hash: good!.hash
		});
		const made = await world.act('oke', sortArrival, sort);
		const view = await world.read('rhosyn', documentView, { document: made.id });
		expect(view.row.hash).toBe(good!.hash);
		expect(view.versions[0]!.note).toBe('Received from Kaja Dorn, Tarn');
		expect(
			await refused(world.act('oke', sortArrival, { ...sort, number: 'VFT-MW-LS-00-DR-0778' }))
		).toMatchObject({ code: 'conflict' });
		await world.act('oke', refuseArrival, { place: folder, arrival: bad!.id, reason: 'Wrong project' });
		expect((await lastMail('k@tarn.example')).body).toContain('Wrong project');
		// What was made of it to show it goes with it.
		const preview = world.services.inspector.previewPath(bad!.hash);
		const drawn = [preview, preview.replace(/webp$/, 'pdf')];
		mkdirSync(dirname(preview), { recursive: true });
		for (const path of drawn) writeFileSync(path, 'shows it');
		await cleanUploads(world.services, new Date(Date.now() + 4 * 86_400_000));
		expect(drawn.filter((path) => existsSync(path))).toEqual([]);
		expect(await world.db.select().from(content).where(eq(content.hash, bad!.hash))).toEqual([]);
		expect(await world.services.store.has(bad!.hash)).toBe(false);
		expect(await world.services.store.holds(good!.hash)).toBe(true);
	});

	it('what came in becomes the next version of what is there, past nobody’s lock', async () => {
		const { id, secret } = await hatch();
		await put(secret, [await through(id, 'a newer sheet'), await through(id, 'first words')]);
		const [newer, same] = await came(id);
		for (const one of [newer!, same!]) await checkOne(world.services, one.id);
		const sort = { place: folder, arrival: newer!.id, document: doc.id };
		await world.act('rhosyn', takeLock, { document: doc.id, purpose: 'mine' });
		expect(await refused(world.act('oke', sortAsVersion, sort))).toMatchObject({ code: 'in-hand' });
		await world.act('rhosyn', giveBackLock, { document: doc.id });
		expect(await refused(world.act('rhosyn', sortAsVersion, sort))).toMatchObject({ code: 'needs-level' });
		const twin = { ...sort, arrival: same!.id };
		expect(await refused(world.act('oke', sortAsVersion, twin))).toMatchObject({ code: 'conflict' });
		expect(await world.act('oke', sortAsVersion, sort)).toMatchObject({ number: doc.number, label: 'P01.2' });
		const { row, versions } = await world.read('rhosyn', documentView, { document: doc.id });
		expect([row.hash, row.lock, versions[0]!.note]).toEqual([
			newer!.hash,
			null,
			'Received from Kaja Dorn, Tarn'
		]);
		expect(await refused(world.act('oke', sortAsVersion, sort))).toMatchObject({ code: 'conflict' });
	});

	it('closed says so, and takes nothing more', async () => {
		const { id, secret } = await hatch();
		await world.act('oke', closeHatches, { project: 'VFT', hatches: [id] });
		expect((await refused(put(secret, ['zzzzzzzzzz']))).sentence).toContain('was closed');
	});

	it('Drop is the same for people with an account: in, and blind', async () => {
		await world.act('oke', letIn, {
			place: folder,
			lines: [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'drop' }]
		});
		const mine = await world.read('petra', shelves, { project: 'VFT' });
		expect(mine.drops).toEqual([{ id: folder, by: 'Oke Lindvar' }]);
		expect(JSON.stringify(mine)).not.toContain('For outside');
		await world.act('petra', dropFiles, { place: folder, uploads: [await world.send('petra', 'dropped')] });
		const rows = (await world.read('oke', arrivals, { project: 'VFT' })).rows;
		expect(rows.find((r) => r.hatch === null)).toMatchObject({ sender: 'Petra Quill' });
	});
});

describe('the check of what comes in', () => {
	const dir = mkdtempSync(join(tmpdir(), 'cupboard-scan-'));
	afterAll(() => rmSync(dir, { recursive: true }));
	const file = (name: string, bytes: Uint8Array) => {
		writeFileSync(join(dir, name), bytes);
		return join(dir, name);
	};
	const finds: Scanner = { name: 'a scanner', scan: async () => 'Worm.X' };

	it('says what the scanner found, and when there is none', async () => {
		const path = file('a.txt', new TextEncoder().encode('x'));
		expect(await checkArrival(path, 'text/plain', finds)).toEqual({
			scanner: 'a scanner',
			fault: 'a scanner found Worm.X.'
		});
		expect(await checkArrival(path, 'text/plain', null)).toEqual({ scanner: null, fault: null });
	});

	it('refuses archives that unpack to far more than they are, damaged and endless ones', async () => {
		const bomb = zipSync({ 'zeros.bin': new Uint8Array(80_000_000) });
		expect((await checkArrival(file('b.zip', bomb), 'application/zip', null)).fault).toContain(
			'far more than its size'
		);
		const fine = zipSync({ 'a.txt': new TextEncoder().encode('hello') });
		expect((await checkArrival(file('c.zip', fine), 'application/zip', null)).fault).toBeNull();
		expect(
			(await checkArrival(file('d.zip', fine.subarray(0, 20)), 'application/zip', null)).fault
		).toContain('damaged');
		const many = zipSync(
			Object.fromEntries(Array.from({ length: 10_001 }, (_, i) => [`f${i}`, new Uint8Array(0)]))
		);
		expect((await checkArrival(file('e.zip', many), 'application/zip', null)).fault).toContain('10,000');
	});
});

describe('notices', () => {
	it('go out as each has chosen: at once, with the day’s mail, or never', async () => {
		const id = world.people.halla!.person.id;
		const give = async (level: string) => {
			const { id: at } = await world.act('oke', makeFolder, { parent: world.shelf, name: `Given ${level}` });
			await world.act('oke', letIn, { place: at, lines: [{ subject: { kind: 'person', id }, level }] });
			return at;
		};
		const mails = async () =>
			(await world.db.select().from(mail).where(eq(mail.toAddress, 'halla@vennholm.example'))).length;
		const before = await mails();
		await give('view');
		expect(await mails()).toBe(before + 1);
		await world.act('halla', chooseNotices, { kind: 'access-given', choice: 'never' });
		await give('download');
		expect(await mails()).toBe(before + 1);
		await world.act('halla', chooseNotices, { kind: 'access-given', choice: 'digest' });
		await give('remark');
		const gone = await give('work');
		await world.act('oke', closePlace, { place: gone });
		await world.act('oke', removePlace, { place: gone, reason: 'r' });
		expect(await mails()).toBe(before + 1);
		await sendDigests(world.services, new Date());
		expect(await mails()).toBe(before + 2);
		expect((await lastMail('halla@vennholm.example')).body).toContain('Given remark');
		await sendDigests(world.services, new Date());
		expect(await mails()).toBe(before + 2);
		expect((await world.read('halla', notices, { project: 'VFT' })).unread).toBeGreaterThanOrEqual(4);
		await world.act('halla', readNotices, { project: 'VFT' });
		expect((await world.read('halla', notices, { project: 'VFT' })).unread).toBe(0);
	});

	it('tell nothing of what their reader may no longer look at', async () => {
		const id = world.people.petra!.person.id;
		const { id: at } = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Quicksilver' });
		const { id: doc } = await world.add('oke', undefined, at);
		await world.act('oke', letIn, {
			place: doc,
			lines: [{ subject: { kind: 'person', id }, level: 'view' }]
		});
		expect(JSON.stringify(await world.read('petra', notices, { project: 'VFT' }))).toContain(doc);
		await world.act('oke', letIn, {
			place: doc,
			lines: [{ subject: { kind: 'person', id }, level: 'barred' }]
		});
		expect(JSON.stringify(await world.read('petra', notices, { project: 'VFT' }))).not.toContain(doc);
		expect(await world.db.select().from(notice).where(eq(notice.placeId, doc))).toHaveLength(1);
	});
});
