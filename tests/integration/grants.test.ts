import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { bringIn, changeAccess, endAccess, letIn } from '../../src/lib/server/access/acts';
import {
	closePlace,
	freezePlace,
	openPlace,
	thawPlace,
	tryAs
} from '../../src/lib/server/access/acts-standing';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { makeFolder, moveFolder } from '../../src/lib/server/places/acts';
import { takeLock } from '../../src/lib/server/locks/acts';
import { removePlace } from '../../src/lib/server/removed/acts';
import { grant, mail } from '../../src/lib/server/platform/db/schema';
import { access, why } from '../../src/lib/server/access/views';
import { activity } from '../../src/lib/server/trail/views';
import { documentView } from '../../src/lib/server/documents/views';
import { effectOfClosing, effectOfEnding } from '../../src/lib/server/access/views-effects';
import { notices } from '../../src/lib/server/notices/views';
import { folder, shelves } from '../../src/lib/server/places/views-tree';
import { refused, TestWorld } from './world';

let world: TestWorld;
let doc = '';
const id = (who: string) => world.people[who]!.person.id;
const personLine = (who: string, level: string, more = {}) => ({
	subject: { kind: 'person', id: id(who) },
	level,
	...more
});
const grantOf = async (at: string, subject: string, who = 'oke') =>
	(await world.read(who, access, { place: at })).rows.find((r) => r.subject === subject && r.here)!.grant!;
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

describe('letting people in', () => {
	it('lets many in at once, each with a level of its own, and tells them', async () => {
		const answer = await world.act('oke', letIn, {
			place: at,
			note: 'for the crane',
			lines: [
				personLine('petra', 'view'),
				personLine('halla', 'work'),
				{ subject: { email: 'b.hollin@tarnsteel.example', name: 'Bo Hollin' }, level: 'download' }
			]
		});
		expect(answer).toMatchObject({ lines: 3, reached: 3, fresh: 1 });
		// What was given can be changed at once, line by line.
		const { rows } = await world.read('oke', access, { place: at });
		expect(answer.grants.map((grant) => rows.find((r) => r.grant === grant)?.name)).toEqual([
			'Petra Quill',
			'Halla Brandt',
			'Bo Hollin'
		]);
		expect([await levelOf('petra', at), await levelOf('halla', at)]).toEqual(['view', 'work']);
		const told = await world.db.select().from(mail).where(eq(mail.toAddress, 'petra@vennholm.example'));
		expect(told.at(-1)!.body).toContain('for the crane');
		const links = await world.db.select().from(mail).where(eq(mail.toAddress, 'b.hollin@tarnsteel.example'));
		expect(links.map((m) => m.body).join()).toMatch(/\/invited\/\S+/);
		const { notices: bell } = await world.read('petra', notices, { project: 'VFT' });
		expect(bell[0]).toMatchObject({
			kind: 'access-given',
			sentence: expect.stringContaining('Oke Lindvar let you into')
		});
	});

	it.each([
		[
			'the same person twice',
			() => [personLine('petra', 'view'), personLine('petra', 'work')],
			'named twice'
		],
		[
			'an end date in the past',
			() => [personLine('petra', 'view', { until: '2020-01-01' })],
			'lies in the past'
		],
		[
			'somebody who is not in the project',
			() => [{ subject: { kind: 'person', id: 'zzzzzzzzzz' }, level: 'view' }],
			'not in this project'
		],
		['a bar on oneself', () => [personLine('oke', 'barred')], 'cannot bar yourself'],
		[
			'more for outsiders than the project gives',
			() => [{ subject: { email: 'x@far.example' }, level: 'work' }],
			'people outside Download at most'
		],
		[
			'exactly for a department',
			() => [{ subject: { kind: 'department', id: world.departments.AR! }, level: 'view', exactly: true }],
			'Only a personal grant'
		]
	])('refuses %s with its sentence, and nothing is half done', async (_, lines, sentence) => {
		const before = await world.db.select().from(grant).where(eq(grant.placeId, at));
		const others = [personLine('halla', 'view')];
		const error = await refused(world.act('oke', letIn, { place: at, lines: [...others, ...lines()] }));
		expect(error.sentence).toContain(sentence);
		expect(await world.db.select().from(grant).where(eq(grant.placeId, at))).toEqual(before);
		expect(await levelOf('halla', at)).toBeNull();
	});

	it('needs Manage: Organise is not enough', async () => {
		await world.act('oke', letIn, { place: at, lines: [personLine('halla', 'organise')] });
		expect(
			await refused(world.act('halla', letIn, { place: at, lines: [personLine('petra', 'view')] }))
		).toMatchObject({
			code: 'needs-level',
			facts: { needed: 'manage', held: 'organise' }
		});
	});

	it('keeps the last Manage but document control', async () => {
		const bar = world.act('ines', letIn, { place: at, lines: [personLine('oke', 'barred')] });
		expect((await refused(bar)).sentence).toContain('last with Manage here');
		await world.act('ines', letIn, {
			place: at,
			lines: [personLine('halla', 'manage'), personLine('oke', 'barred')]
		});
		expect(await levelOf('oke', at)).toBeNull();
	});

	it('ends on its day', async () => {
		const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
		await world.act('oke', letIn, { place: at, lines: [personLine('petra', 'view', { until: day })] });
		expect(await levelOf('petra', at)).toBe('view');
		await world.db
			.update(grant)
			.set({ endsAt: new Date(Date.now() - 1_000) })
			.where(eq(grant.subjectId, id('petra')));
		expect(await levelOf('petra', at)).toBeNull();
	});

	it('fifty at the same time all hold, once each', async () => {
		const levels = ['view', 'download', 'remark', 'work', 'organise'];
		await Promise.all(
			Array.from({ length: 50 }, (_, i) =>
				world.act('oke', letIn, { place: at, lines: [personLine(i % 2 ? 'petra' : 'halla', levels[i % 5]!)] })
			)
		);
		const rows = await world.db.select().from(grant).where(eq(grant.placeId, at));
		expect(rows.map((r) => r.subjectId).sort()).toEqual([id('halla'), id('petra')].sort());
	});
});

describe('what one sees of it', () => {
	it('a folder given alone shows neither the shelf around it nor its name', async () => {
		await world.act('oke', letIn, { place: at, lines: [personLine('petra', 'view')] });
		const seen = await world.read('petra', folder, { place: at });
		expect(seen.way.map((w) => w.id)).toEqual([at]);
		expect(JSON.stringify(seen)).not.toContain('Marine works');
		const mine = await world.read('petra', shelves, { project: 'VFT' });
		expect(mine.alone.map((a) => a.id)).toContain(at);
		expect(mine.shelves.map((s) => s.id)).not.toContain(world.shelf);
		const reason = await world.read('petra', why, { place: at, person: id('rhosyn') });
		expect(reason.reasons.join(' ')).not.toContain('Marine works, given on Marine works');
	});

	it('names who reaches a place, how far, and where it comes from; and counts agree', async () => {
		await world.act('oke', letIn, { place: at, lines: [personLine('petra', 'remark')] });
		const { rows, people } = await world.read('rhosyn', access, { place: at });
		expect(people.map((p) => [p.name, p.level, p.through])).toEqual([
			['Ines Maddock', 'manage', 'document controller'],
			['Oke Lindvar', 'manage', 'Leads of Marine works'],
			['Rhosyn Hale', 'work', 'Marine works'],
			['Petra Quill', 'remark', 'a personal grant']
		]);
		expect(rows.find((r) => r.subject === id('petra'))).toMatchObject({
			here: true,
			by: 'Oke Lindvar',
			level: 'remark'
		});
		expect(rows.find((r) => r.subject === world.departments.MW)).toMatchObject({
			from: { name: 'Marine works' }
		});
	});

	it('says what ending a grant means before it is done, and that is what happens', async () => {
		await world.act('oke', letIn, { place: at, lines: [personLine('petra', 'work')] });
		await world.act('petra', takeLock, { document: doc, purpose: 'checking' });
		const grantId = await grantOf(at, id('petra'));
		expect(await world.read('oke', effectOfEnding, { place: at, grant: grantId })).toMatchObject({
			people: 1,
			documents: 1,
			inHand: 1,
			lines: [{ name: 'Petra Quill', lost: 1 }]
		});
		await world.act('oke', endAccess, { place: at, grant: grantId });
		expect(await levelOf('petra', at)).toBeNull();
		expect(await refused(world.read('petra', documentView, { document: doc }))).toMatchObject({
			code: 'not-found'
		});
		expect(JSON.stringify(await world.read('petra', activity, { project: 'VFT' }))).not.toContain(at);
	});
});

describe('closing (A3)', () => {
	it('stops what was given above, apart from Manage, for documents inside too', async () => {
		expect(await world.read('oke', effectOfClosing, { place: at })).toMatchObject({
			people: 1,
			documents: 1
		});
		await world.act('oke', closePlace, { place: at });
		expect([await levelOf('rhosyn', at), await levelOf('oke', at), await levelOf('ines', at)]).toEqual([
			null,
			'manage',
			'manage'
		]);
		expect(await refused(world.read('rhosyn', documentView, { document: doc }))).toMatchObject({
			code: 'not-found'
		});
		const boxes = (await world.read('rhosyn', shelves, { project: 'VFT' })).shelves.find(
			(s) => s.id === world.shelf
		)!.boxes;
		expect(boxes.map((b) => b.id)).not.toContain(at);
		await world.act('oke', openPlace, { place: at });
		expect(await levelOf('rhosyn', at)).toBe('work');
	});

	it('keeps somebody from removing a folder that holds what they do not reach', async () => {
		const inner = await world.act('oke', makeFolder, { parent: at, name: 'Private' });
		await world.act('oke', closePlace, { place: inner.id });
		await world.act('oke', letIn, { place: at, lines: [personLine('rhosyn', 'organise')] });
		const error = await refused(world.act('rhosyn', removePlace, { place: at, reason: 'tidying' }));
		expect(error.sentence).not.toContain('Private');
		expect(error.code).toBe('needs-level');
		await world.act('oke', removePlace, { place: at, reason: 'tidying' });
	});
});

describe('freezing (A6)', () => {
	it('leaves Manage alone and stops everybody below, with who, since when and why', async () => {
		await world.act('rhosyn', takeLock, { document: doc, purpose: 'before the freeze' });
		await world.act('oke', freezePlace, { place: at, reason: 'with the client' });
		const upload = await world.send('rhosyn', 'later');
		const error = await refused(world.act('rhosyn', handIn, { document: doc, upload, note: 'n' }));
		expect(error).toMatchObject({ code: 'frozen', facts: { by: 'Oke Lindvar', reason: 'with the client' } });
		expect((await world.read('rhosyn', folder, { place: at })).level).toBe('remark');
		expect((await world.read('rhosyn', documentView, { document: doc })).row.frozen).toMatchObject({
			by: 'Oke Lindvar'
		});
		await world.add('oke', undefined, at);
		await world.act('oke', thawPlace, { place: at });
		await world.act('rhosyn', handIn, { document: doc, upload, note: 'n', base: 'P01.1' });
	});

	it('cannot be gone round by moving a folder in', async () => {
		const other = await fresh();
		await world.act('oke', letIn, { place: other, lines: [personLine('rhosyn', 'organise')] });
		await world.act('oke', freezePlace, { place: at, reason: 'still' });
		expect(await refused(world.act('rhosyn', moveFolder, { folder: other, to: at }))).toMatchObject({
			code: 'frozen'
		});
	});
});

describe('bringing others in (A8)', () => {
	it('goes up to the count and the ceiling, and ends with the grant it hangs on', async () => {
		await world.act('oke', letIn, {
			place: at,
			lines: [personLine('halla', 'work', { bringCount: 2, bringLevel: 'remark' })]
		});
		const under = await grantOf(at, id('halla'));
		const bring = (who: object, level = 'view') =>
			world.act('halla', bringIn, { place: at, under, who, level });
		expect((await refused(bring({ person: id('petra') }, 'work'))).sentence).toContain('Remark at most');
		await bring({ person: id('petra') }, 'remark');
		await bring({ email: 'new@far.example', name: 'New One' });
		expect((await refused(bring({ person: id('edda') }))).sentence).toContain('2 are in');
		expect(await levelOf('petra', at)).toBe('remark');
		expect(
			await refused(world.act('petra', bringIn, { place: at, under, who: { person: id('edda') } }))
		).toMatchObject({
			code: 'needs-level'
		});
		await world.act('oke', changeAccess, {
			place: at,
			grant: under,
			level: 'work',
			bringCount: 2,
			bringLevel: 'view'
		});
		expect(await levelOf('petra', at)).toBe('view');
		await world.act('oke', endAccess, { place: at, grant: under });
		expect([await levelOf('halla', at), await levelOf('petra', at)]).toEqual([null, null]);
	});
});

describe('controllers (A5)', () => {
	it('leave a trail where they use their power, and none where they need not', async () => {
		const away = await world.add('ines', undefined, at);
		const rows = (await world.read('ines', activity, { project: 'VFT' })).events.filter(
			(e) => e.document === away.id
		);
		expect(rows[0]!.details).toMatchObject({ power: true });
		await world.add('oke', undefined, at);
		const own = (await world.read('oke', activity, { project: 'VFT', actor: id('oke') })).events[0]!;
		expect(own.details.power).toBeUndefined();
	});
});

describe('looking as somebody else', () => {
	it('shows exactly what they see, changes nothing, and is recorded', async () => {
		await world.act('ines', tryAs, { project: 'VFT', person: id('petra') });
		const asPetra = { ...world.people.ines!, trying: { projectId: world.project, personId: id('petra') } };
		world.people.inesAsPetra = asPetra;
		expect(await world.read('inesAsPetra', shelves, { project: 'VFT' })).toEqual(
			await world.read('petra', shelves, { project: 'VFT' })
		);
		expect(await levelOf('inesAsPetra', at)).toBeNull();
		expect(
			await refused(world.act('inesAsPetra', makeFolder, { parent: world.other, name: 'X' }))
		).toMatchObject({
			facts: { trying: true }
		});
		const { events } = await world.read('ines', activity, { project: 'VFT' });
		expect(events[0]).toMatchObject({ kind: 'access.tried', actor: 'Ines Maddock' });
	});

	it('opens nothing new to a lead, and is not for others', async () => {
		expect(await refused(world.act('rhosyn', tryAs, { project: 'VFT', person: id('petra') }))).toMatchObject({
			code: 'needs-level'
		});
		await world.act('halla', tryAs, { project: 'VFT', person: id('rhosyn') });
		world.people.hallaAsRhosyn = {
			...world.people.halla!,
			trying: { projectId: world.project, personId: id('rhosyn') }
		};
		expect(
			(await world.read('hallaAsRhosyn', shelves, { project: 'VFT' })).shelves.map((s) => s.name)
		).toEqual(['Architecture']);
		expect(await levelOf('hallaAsRhosyn', at)).toBeNull();
	});
});

describe('scopes in the database', () => {
	it('follow any history of grants, closings, endings and moves', async () => {
		const random = (seed: number) => () => (seed = (seed * 16807) % 2147483647) / 2147483647;
		for (let round = 0; round < 6; round++) {
			const next = random(round + 11);
			const among = <T>(list: T[]): T => list[Math.floor(next() * list.length)]!;
			const root = await fresh();
			const folders = [root];
			for (let i = 0; i < 25; i++) {
				const here = among(folders);
				const doing = next();
				const attempt = (promise: Promise<unknown>) => promise.catch(() => {});
				if (doing < 0.35)
					folders.push((await world.act('ines', makeFolder, { parent: here, name: `f${round}-${i}` })).id);
				else if (doing < 0.55)
					await attempt(
						world.act('ines', letIn, {
							place: here,
							lines: [
								personLine(among(['petra', 'halla', 'rhosyn']), among(['view', 'work', 'barred', 'manage']))
							]
						})
					);
				else if (doing < 0.65) await attempt(world.act('ines', closePlace, { place: here }));
				else if (doing < 0.72) await attempt(world.act('ines', openPlace, { place: here }));
				else if (doing < 0.85) {
					const rows = (await world.read('ines', access, { place: here })).rows.filter((r) => r.here);
					if (rows.length)
						await attempt(world.act('ines', endAccess, { place: here, grant: among(rows).grant }));
				} else await attempt(world.act('ines', moveFolder, { folder: here, to: among(folders) }));
				if (next() < 0.3) await world.add('ines', undefined, here);
			}
			// Every place must carry the nearest place upward that is a shelf, is closed, or has entries.
			const wrong = await world.db.execute(sql`
				select p.id, p.scope from place p where p.project_id = ${world.project} and p.scope <> (
					select q.id from place q where p.path like q.path || '%' and (q.kind = 'shelf' or q.closed
						or exists (select 1 from access_grant g where g.place_id = q.id))
					order by length(q.path) desc limit 1)`);
			expect([...wrong]).toEqual([]);
		}
		const counts = await world.db.execute(sql`
			select * from (select folder_id, scope, documents from folder_count where documents <> 0) c full join
			(select parent_id, scope, count(*)::int as n from place where kind = 'document' and removal_id is null group by 1, 2) t
			on t.parent_id = c.folder_id and t.scope = c.scope where c.documents is distinct from t.n`);
		expect([...counts]).toEqual([]);
	});
});
