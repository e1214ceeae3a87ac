import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { endSharing, letIn } from '../../src/lib/server/access/acts';
import { makeFolder } from '../../src/lib/server/places/acts';
import { makeGroup, endGroup } from '../../src/lib/server/people/acts-groups';
import { takeLock } from '../../src/lib/server/locks/acts';
import { leavePerson, setDepartments } from '../../src/lib/server/people/acts-membership';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { makePass } from '../../src/lib/server/passes/acts';
import { makeToken } from '../../src/lib/server/people/acts-account';
import { apiToken, lock, notice, person, place, session } from '../../src/lib/server/platform/db/schema';
import { documentView } from '../../src/lib/server/documents/views';
import { effectOfDepartments } from '../../src/lib/server/access/views-effects';
import { sharing } from '../../src/lib/server/access/views-sharing';
import { folder, shelves } from '../../src/lib/server/places/views-tree';
import { refused, TestWorld } from './world';

let world: TestWorld;
let doc = '';
const id = (who: string) => world.people[who]!.person.id;
const personLine = (who: string, level: string | null, more = {}) => ({
	subject: { kind: 'person', id: id(who) },
	level,
	...more
});
const levelOf = async (who: string, at = world.folder) =>
	world.read(who, folder, { place: at }).then(
		(f) => f.level,
		() => null
	);
let serial = 0;
/** A folder of its own for a test, with one document. */
async function fresh(): Promise<string> {
	const { id: at } = await world.act('oke', makeFolder, { parent: world.shelf, name: `Box ${++serial}` });
	doc = (await world.add('oke', undefined, at)).id;
	return at;
}

beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());
let at = '';
beforeEach(async () => {
	at = await fresh();
});

describe('people come and go', () => {
	it('a group lets its people in, and ending it ends that', async () => {
		const made = await world.act('ines', makeGroup, {
			project: 'VFT',
			name: `G${serial}`,
			people: [id('petra')]
		});
		await world.act('oke', letIn, {
			place: at,
			lines: [{ subject: { kind: 'group', id: made.id }, level: 'download' }]
		});
		expect(await levelOf('petra', at)).toBe('download');
		await world.act('ines', endGroup, { project: 'VFT', group: made.id });
		expect(await levelOf('petra', at)).toBeNull();
		const [row] = await world.db.select().from(place).where(eq(place.id, at));
		expect(row!.scope).toBe(world.shelf);
	});

	it('moving between departments is said before and holds after', async () => {
		const effect = await world.read('ines', effectOfDepartments, {
			project: 'VFT',
			person: id('edda'),
			departments: `${world.departments.MW}*`
		});
		expect(effect).toMatchObject({ people: 1 });
		expect(effect.lines[0]!.gained).toBe(effect.documents);
		await world.act('ines', setDepartments, {
			project: 'VFT',
			person: id('edda'),
			departments: [{ department: world.departments.MW, lead: true }]
		});
		expect(await levelOf('edda', at)).toBe('manage');
	});

	it('who leaves is closed whole: sessions, tokens, grants and passes end, locks go to the lead, nothing is lost', async () => {
		const mine = await world.add('edda', 'her words', at);
		await world.act('edda', takeLock, { document: mine.id, purpose: 'half done' });
		await world.act('edda', makeToken, { name: 't' });
		await world.act('edda', makePass, {
			place: at,
			for: 'Somebody',
			audience: 'anyone',
			until: '2027-12-31'
		});
		await world.act('oke', letIn, { place: at, lines: [personLine('edda', 'work')] });
		await world.db.insert(session).values({
			id: `s${serial}`,
			token: `t${serial}`,
			userId: id('edda'),
			expiresAt: new Date(Date.now() + 1e9)
		});
		const left = await world.act('ines', leavePerson, {
			project: 'VFT',
			person: id('edda'),
			reason: 'New work'
		});
		expect(left).toMatchObject({ locks: 1, passes: 1, grants: 1, closed: true });
		expect(
			await world.db
				.select()
				.from(session)
				.where(eq(session.userId, id('edda')))
		).toEqual([]);
		const [token] = await world.db
			.select()
			.from(apiToken)
			.where(eq(apiToken.personId, id('edda')));
		expect(token!.withdrawnAt).not.toBeNull();
		const [held] = await world.db
			.select()
			.from(lock)
			.where(sql`document_id = ${mine.id} and ended_at is null`);
		expect(held!.holderId).toBe(id('oke'));
		expect((await world.read('oke', documentView, { document: mine.id })).versions).toHaveLength(1);
		expect(await refused(world.read('edda', shelves, { project: 'VFT' }))).toMatchObject({
			code: 'not-found'
		});
		const [row] = await world.db
			.select()
			.from(person)
			.where(eq(person.id, id('edda')));
		expect(row!.closedAt).not.toBeNull();
		const told = await world.db
			.select()
			.from(notice)
			.where(eq(notice.personId, id('oke')));
		expect(told.map((n) => n.kind)).toContain('lock-came');
	});

	it('the last document controller stays', async () => {
		expect(
			(
				await refused(
					world.act('ines', setDepartments, {
						project: 'VFT',
						person: id('ines'),
						departments: [],
						controller: false
					})
				)
			).sentence
		).toContain('last document controller');
		expect(
			await refused(world.act('ines', leavePerson, { project: 'VFT', person: id('ines'), reason: 'r' }))
		).toMatchObject({ code: 'conflict' });
	});
});

describe('settings', () => {
	it('lowering what outsiders get takes effect at once', async () => {
		await world.act('oke', letIn, {
			place: at,
			lines: [{ subject: { email: 'kaja@tarn.example', name: 'Kaja' }, level: 'download' }]
		});
		const [kaja] = await world.db.select().from(person).where(eq(person.email, 'kaja@tarn.example'));
		world.people.kaja = { person: { id: kaja!.id, name: 'Kaja', email: kaja!.email }, via: 'session' };
		expect(await levelOf('kaja', at)).toBe('download');
		await world.act('ines', changeSettings, {
			project: 'VFT',
			outsideLevel: null,
			manageNeedsTwoStep: false
		});
		expect(await levelOf('kaja', at)).toBeNull();
		await world.act('ines', changeSettings, {
			project: 'VFT',
			outsideLevel: 'download',
			manageNeedsTwoStep: false
		});
		expect((await world.read('kaja', shelves, { project: 'VFT' })).alone).toHaveLength(1);
	});

	it('Manage needs two steps where the project says so, and nobody locks themselves out', async () => {
		const strict = { project: 'VFT', outsideLevel: 'download', manageNeedsTwoStep: true };
		expect((await refused(world.act('ines', changeSettings, strict))).sentence).toContain(
			'for yourself first'
		);
		await world.db
			.update(person)
			.set({ twoFactorEnabled: true })
			.where(eq(person.id, id('ines')));
		await world.act('ines', changeSettings, strict);
		expect(await levelOf('oke', at)).toBe('organise');
		expect(await levelOf('ines', at)).toBe('manage');
		await world.act('ines', changeSettings, { ...strict, manageNeedsTwoStep: false });
		expect(await levelOf('oke', at)).toBe('manage');
	});
});

describe('given to me, given by me', () => {
	it('lists both, and ends many at once or none', async () => {
		await world.act('oke', letIn, {
			place: at,
			lines: [personLine('petra', 'view'), personLine('halla', 'download')]
		});
		const toPetra = (await world.read('petra', sharing, { project: 'VFT' })).toMe.find(
			(r) => r.place === at
		)!;
		expect(toPetra).toMatchObject({ level: 'View', by: 'Oke Lindvar', changed: 0 });
		await world.revise(doc);
		expect(
			(await world.read('petra', sharing, { project: 'VFT' })).toMe.find((r) => r.place === at)!.changed
		).toBe(1);
		const byOke = (await world.read('oke', sharing, { project: 'VFT' })).byMe
			.filter((r) => r.place === at)
			.map((r) => r.id);
		expect(byOke).toHaveLength(2);
		expect(await refused(world.act('petra', endSharing, { project: 'VFT', grants: byOke }))).toMatchObject({
			code: 'conflict'
		});
		expect(
			await refused(world.act('oke', endSharing, { project: 'VFT', grants: [...byOke, 'zzzzzzzzzz'] }))
		).toMatchObject({ code: 'conflict' });
		expect(await levelOf('petra', at)).toBe('view');
		await world.act('oke', endSharing, { project: 'VFT', grants: byOke });
		expect([await levelOf('petra', at), await levelOf('halla', at)]).toEqual([null, null]);
	});
});
