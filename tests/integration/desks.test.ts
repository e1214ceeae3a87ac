import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import type { Notice } from '../../src/lib/core/documents/rows';
import { dayOf } from '../../src/lib/core/time/days';
import { DAY, daysLater } from '../../src/lib/core/time/spans';
import { VIEWS } from '../../src/lib/server/api/views';
import { closePlace, freezePlace } from '../../src/lib/server/access/acts-standing';
import { access, why } from '../../src/lib/server/access/views';
import { documentView } from '../../src/lib/server/documents/views';
import { find } from '../../src/lib/server/find/views';
import { remindStaleLocks } from '../../src/lib/server/locks/reminders';
import { takeLock } from '../../src/lib/server/locks/acts';
import { tellNotices } from '../../src/lib/server/notices/tell';
import { makePass } from '../../src/lib/server/passes/acts';
import { leavePerson } from '../../src/lib/server/people/acts-membership';
import { makeFolder, moveFolder, renameFolder } from '../../src/lib/server/places/acts';
import { copyDocuments } from '../../src/lib/server/places/acts-copies';
import { openDesk } from '../../src/lib/server/places/acts-desk';
import { organiseDocuments } from '../../src/lib/server/places/acts-organise';
import { desk } from '../../src/lib/server/places/views-desk';
import { folder, shelves } from '../../src/lib/server/places/views-tree';
import { project, grant } from '../../src/lib/server/platform/db/schema';
import { addDeliverables } from '../../src/lib/server/register/acts';
import { register } from '../../src/lib/server/register/views';
import { registerGaps } from '../../src/lib/server/register/views-figures';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { removePlace } from '../../src/lib/server/removed/acts';
import { refused, TestWorld } from './world';

let world: TestWorld;
let rhosyns: string;
beforeAll(async () => {
	world = await TestWorld.open();
	rhosyns = (await world.act('rhosyn', openDesk, { project: 'VFT' })).id;
});
afterAll(() => world.close());

const on = (desk: string, who = 'rhosyn', content?: string) => world.add(who, content, desk);
const move = (who: string, documents: string[], to: string) =>
	world.act(who, organiseDocuments, { project: 'VFT', documents, folders: [], to });

describe('a desk', () => {
	it('is made once a person, however often and at once it is asked for', async () => {
		expect((await world.read('petra', desk, { project: 'VFT' })).id).toBeNull();
		const made = await Promise.all(
			Array.from({ length: 8 }, () => world.act('petra', openDesk, { project: 'VFT' }))
		);
		expect(new Set(made.map((one) => one.id)).size).toBe(1);
		expect((await world.read('petra', desk, { project: 'VFT' })).id).toBe(made[0]!.id);
		expect(made[0]!.id).not.toBe(rhosyns);
	});

	it('is a folder to its person, who keeps nobody out and lets nobody in', async () => {
		const { id } = await on(rhosyns);
		const { can, place, level } = await world.read('rhosyn', folder, { place: rhosyns });
		expect(place).toMatchObject({ name: 'Desk of Rhosyn Hale', onDesk: true });
		expect(level).toBe('organise');
		expect(can.addDocument.may).toBe(true);
		expect(can.makeFolder.may).toBe(true);
		for (const name of ['letIn', 'makePass', 'makeHatch', 'freezePlace', 'closePlace'] as const)
			expect(can[name]).toMatchObject({ may: false });
		expect(
			(await refused(world.act('rhosyn', makePass, { place: id, for: 'Maren', until: '2099-01-01' }))).code
		).toBe('needs-level');
		const shut = await refused(world.act('rhosyn', freezePlace, { place: rhosyns, reason: 'Tender' }));
		expect(shut.sentence).toMatch(/one person’s own/);
		expect(
			(await refused(world.act('rhosyn', renameFolder, { folder: rhosyns, name: 'Mine' }))).sentence
		).toMatch(/not renamed/);
		expect(
			(await refused(world.act('rhosyn', removePlace, { place: rhosyns, reason: 'x' }))).sentence
		).toMatch(/not removed/);
		const who = await world.read('rhosyn', access, { place: rhosyns });
		expect(who.people.map((one) => one.name)).toEqual(['Rhosyn Hale']);
		expect(who.rows.some((row) => row.kind === 'controllers')).toBe(false);
		const ines = world.people.ines!.person.id;
		expect(await world.read('rhosyn', why, { place: id, person: ines })).toMatchObject({ level: null });
	});

	it('does not exist for anybody else, document controllers neither, in no view of the project', async () => {
		const words = 'gannetry rookwing';
		const inside = await world.act('rhosyn', makeFolder, { parent: rhosyns, name: 'Oystercatcher' });
		const { id, number } = await on(inside.id, 'rhosyn', words);
		const hidden = [id, number, inside.id, rhosyns, 'Oystercatcher', 'gannetry'];
		let asked = 0;
		for (const who of ['ines', 'oke', 'halla']) {
			for (const view of VIEWS) {
				if (view.at.kind !== 'project' && view.at.kind !== 'self') continue;
				const known = view.input.safeParse({ project: 'VFT' });
				if (!known.success) continue;
				const answer = await world.read(who, view as never, { project: 'VFT' }).catch(() => null);
				if (answer === null) continue;
				asked++;
				const said = JSON.stringify(answer);
				for (const one of hidden) expect(said, `${view.name} as ${who}`).not.toContain(one);
			}
			expect((await world.read(who, find, { project: 'VFT', q: number })).rows).toEqual([]);
			expect((await refused(world.read(who, documentView, { document: id }))).code).toBe('not-found');
			expect((await refused(world.read(who, folder, { place: rhosyns }))).code).toBe('not-found');
			expect((await refused(world.act(who, takeLock, { document: id, purpose: 'x' }))).code).toBe(
				'not-found'
			);
		}
		expect(asked).toBeGreaterThan(60);
		expect((await world.read('rhosyn', find, { project: 'VFT', q: number })).rows).toHaveLength(1);
	});

	it('is not seen by looking as its person', async () => {
		const ines = world.people.ines!;
		const trying = {
			...ines,
			trying: { projectId: world.project, personId: world.people.rhosyn!.person.id }
		};
		world.people.inesAsRhosyn = trying as never;
		expect(await world.read('inesAsRhosyn', desk, { project: 'VFT' })).toMatchObject({ id: null });
		expect((await refused(world.read('inesAsRhosyn', folder, { place: rhosyns }))).code).toBe('not-found');
	});
});

describe('what lies on a desk', () => {
	it('goes to a shelf and back while it is its person’s alone, and stays once others opened it', async () => {
		const { id } = await on(rhosyns);
		await move('rhosyn', [id], world.folder);
		expect((await world.read('rhosyn', documentView, { document: id })).row.folder).toBe(world.folder);
		await move('rhosyn', [id], rhosyns);
		expect((await refused(world.read('oke', documentView, { document: id }))).code).toBe('not-found');
		await move('rhosyn', [id], world.folder);
		await world.act('oke', takeLock, { document: id, purpose: 'to look' });
		await world.db.execute(
			`update lock set ended_at = now(), ended_how = 'given-back' where document_id = '${id}'`
		);
		const stays = await refused(move('rhosyn', [id], rhosyns));
		expect(stays).toMatchObject({ code: 'conflict' });
		expect(stays.sentence).toMatch(/not yours alone/);
	});

	it('is not made of what others put into a folder of one’s own', async () => {
		const mine = await world.act('rhosyn', makeFolder, { parent: world.folder, name: 'Hinges' });
		await on(mine.id);
		const { id } = await on(mine.id, 'oke');
		await world.act('oke', removePlace, { place: id, reason: 'twice' });
		// Removed or not, it is theirs to bring back.
		expect((await refused(world.act('rhosyn', moveFolder, { folder: mine.id, to: rhosyns }))).code).toBe(
			'conflict'
		);
	});

	it('has nothing that only Manage could undo', async () => {
		const ines = (await world.act('ines', openDesk, { project: 'VFT' })).id;
		const here = async () =>
			(await world.act('ines', makeFolder, { parent: world.folder, name: `Tried ${++tried}` })).id;
		let tried = 0;
		const refusal = async (place: string) =>
			(await refused(world.act('ines', moveFolder, { folder: place, to: ines }))).sentence;
		const closed = await here();
		await world.act('ines', closePlace, { place: closed });
		expect(await refusal(closed)).toMatch(/access of its own/);
		const frozen = await here();
		await world.act('ines', freezePlace, { place: frozen, reason: 'Tender' });
		expect(await refusal(frozen)).toMatch(/is frozen/);
		const given = await here();
		const until = dayOf(daysLater(new Date(), 30), 'UTC');
		await world.act('ines', makePass, { place: given, for: 'Maren', until, audience: 'anyone' });
		expect(await refusal(given)).toMatch(/pass or hatch/);
		await world.act('ines', moveFolder, { folder: await here(), to: ines });
	});

	it('goes into no release and is not counted in the register', async () => {
		const ines = (await world.act('ines', openDesk, { project: 'VFT' })).id;
		const draft = await on(ines, 'ines');
		const built = await refused(
			world.act('ines', buildRelease, {
				project: 'VFT',
				title: 'Linkspan',
				purpose: 'approval',
				recipients: [{ recipient: world.recipient }],
				route: oneStep(world.people.halla!.person.id),
				documents: [draft.id]
			})
		);
		expect(built.sentence).toMatch(/lies on your desk/);
		const gaps = await world.read('ines', registerGaps, { project: 'VFT' });
		expect(gaps.documents.map((one) => one.number)).not.toContain(draft.number);
		const theirs = await on(rhosyns);
		await world.act('ines', addDeliverables, {
			project: 'VFT',
			deliverables: [theirs, draft].map(({ number }) => ({
				number,
				title: 'Planned',
				planned: { comment: '2099-01-01' }
			}))
		});
		for (const who of ['ines', 'oke', 'rhosyn']) {
			const { rows } = await world.read(who, register, { project: 'VFT' });
			const known = rows.filter((row) => [theirs.number, draft.number].includes(row.number));
			expect(known.map((row) => row.document)).toEqual([null, null]);
		}
		await move('ines', [draft.id], world.folder);
		const { rows } = await world.read('oke', register, { project: 'VFT' });
		expect(rows.find((row) => row.number === draft.number)?.document?.id).toBe(draft.id);
	});

	it('can be a copy of what others made', async () => {
		const { id } = await world.add('oke');
		const { documents } = await world.act('rhosyn', copyDocuments, {
			project: 'VFT',
			documents: [id],
			folders: [],
			to: rhosyns
		});
		const copy = documents[0]!.id;
		expect((await world.read('rhosyn', documentView, { document: copy })).row.folder).toBe(rhosyns);
		expect((await refused(world.read('oke', documentView, { document: copy }))).code).toBe('not-found');
		await world.act('rhosyn', removePlace, { place: copy, reason: 'done with it' });
	});

	it('is told of in the application only: the outbox is read by others', async () => {
		const { id } = await on(rhosyns);
		const context = {
			tx: world.db as never,
			services: world.services,
			project: (await world.db.select().from(project))[0]!,
			now: new Date(),
			newId: () => `n${Math.random().toString(36).slice(2, 11)}`
		};
		const before = (await world.mailsTo('rhosyn@vennholm.example')).length;
		await tellNotices(context, {
			kind: 'remark-assigned',
			people: [world.people.rhosyn!.person.id],
			placeId: id,
			sentence: 'A remark is yours.',
			way: `document/${id}`
		});
		await world.act('rhosyn', takeLock, { document: id, purpose: 'to finish it' });
		await remindStaleLocks(world.services, new Date(Date.now() + 90 * DAY));
		expect(await world.mailsTo('rhosyn@vennholm.example')).toHaveLength(before);
	});
});

describe('what is moved out of somebody’s sight', () => {
	it('is told to whoever saw it where it was, without a name', async () => {
		const closed = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Tender' });
		await world.act('oke', closePlace, { place: closed.id });
		const { id } = await world.add('rhosyn');
		const told: Record<string, Notice[]> = { oke: [], rhosyn: [], petra: [] };
		const stops = Object.entries(told).map(([who, notices]) =>
			world.services.live.watch(world.project, world.people[who]!.person.id, (notice) => notices.push(notice))
		);
		const nameless = (who: string) => told[who]!.filter((one) => one.seq === 0 && one.place === null).length;
		// From a common folder onto a desk.
		await move('rhosyn', [id], rhosyns);
		await expect.poll(() => nameless('oke')).toBe(1);
		// From a desk nobody missed anything.
		await move('rhosyn', [id], world.folder);
		await expect.poll(() => told.oke!.some((one) => one.document === id)).toBe(true);
		// Into a closed folder, where a lead still sees it and others do not.
		await move('oke', [id], closed.id);
		await expect.poll(() => nameless('rhosyn')).toBe(1);
		expect(nameless('oke')).toBe(1);
		expect(told.petra).toEqual([]);
		stops.forEach((stop) => stop());
	});
});

describe('when its person leaves', () => {
	it('becomes a shelf of the project, and a later one of theirs is another', async () => {
		const edda = (await world.act('edda', openDesk, { project: 'VFT' })).id;
		const { id } = await on(edda, 'edda');
		expect((await world.read('ines', shelves, { project: 'VFT' })).shelves.map((s) => s.id)).not.toContain(
			edda
		);
		await world.act('ines', leavePerson, {
			project: 'VFT',
			person: world.people.edda!.person.id,
			reason: 'New job'
		});
		const { shelves: now } = await world.read('ines', shelves, { project: 'VFT' });
		expect(now.find((s) => s.id === edda)).toMatchObject({ name: 'Desk of Edda Norrow', documents: 1 });
		expect((await world.read('ines', documentView, { document: id })).row.id).toBe(id);
		expect((await refused(world.read('oke', documentView, { document: id }))).code).toBe('not-found');
		expect(await world.db.select().from(grant).where(eq(grant.placeId, edda))).toEqual([]);
		await world.act('ines', renameFolder, { folder: edda, name: 'Left by Edda' });
	});
});
