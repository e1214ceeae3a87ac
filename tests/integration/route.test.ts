import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Step } from '../../src/lib/core/releases';
import { dayOf, plusDays } from '../../src/lib/core/time/days';
import { letIn } from '../../src/lib/server/access/acts';
import { makeGroup } from '../../src/lib/server/people/acts-groups';
import {
	event,
	group as groups,
	notice,
	person as people,
	project,
	release,
	standIn
} from '../../src/lib/server/platform/db/schema';
import { onRoute, speakersOf } from '../../src/lib/server/platform/runner/on-route';
import { addToRelease, changeRelease } from '../../src/lib/server/releases/acts';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { approveRelease, askApproval, sendBack } from '../../src/lib/server/releases/acts-approval';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { tellLateSteps } from '../../src/lib/server/releases/late';
import { endStandIn, nameStandIn } from '../../src/lib/server/releases/acts-stand-ins';
import { projectFrame } from '../../src/lib/server/places/views';
import { standIns } from '../../src/lib/server/releases/views-stand-ins';
import { releases, releaseView } from '../../src/lib/server/releases/views';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { settings } from '../../src/lib/server/settings/views';
import { waiting } from '../../src/lib/server/today/views';
import { activity } from '../../src/lib/server/trail/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
	const email = 'kaja@tarn.example';
	await world.act('ines', letIn, {
		place: world.folder,
		lines: [{ subject: { email, name: 'Kaja Dorn', company: 'Tarn Steelwork' }, level: 'view' }]
	});
	const [kaja] = await world.db.select().from(people).where(eq(people.email, email));
	world.people.tarn = { person: { id: kaja!.id, name: kaja!.name, email }, via: 'session' };
});
afterAll(() => world.close());

const id = (who: string) => world.people[who]!.person.id;
const person = (who: string) => ({ kind: 'person' as const, id: id(who) });
const step = (name: string, needs: Step['needs'], of: Step['of'], days: number | null = null): Step => ({
	name,
	of,
	needs,
	days
});
const see = (made: { number: number }, who = 'ines') =>
	world.read(who, releaseView, { project: 'VFT', number: made.number });
async function build(route: Step[], asked = true) {
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }],
		route,
		documents: [(await world.add()).id]
	});
	if (asked) await world.act('ines', askApproval, { release: made.id });
	return made;
}
const today = () => dayOf(new Date(), 'UTC');
const waits = async (who: string) => (await world.read(who, waiting, { project: 'VFT' })).forYou;
const toldOf = async (made: { id: string }, who: string) =>
	(
		await world.db
			.select({ sentence: notice.sentence, person: notice.personId })
			.from(notice)
			.where(eq(notice.releaseId, made.id))
	)
		.filter((one) => one.person === id(who))
		.map((one) => one.sentence);

describe('a route (T3)', () => {
	it('asks one step after the other, shows whose turn it is, and is issued when all have approved', async () => {
		const made = await build([
			step('Check', 'all', [person('rhosyn')]),
			step('Lead approval', 2, [person('halla'), person('oke'), person('petra')], 2)
		]);
		expect(await waits('rhosyn')).toBe(1);
		expect(await waits('halla')).toBe(0);
		expect((await see(made)).route.map((one) => one.state)).toEqual(['now', 'later']);
		expect((await see(made, 'halla')).can.approveRelease).toMatchObject({ may: false });
		expect(await refused(world.approve('halla', made))).toMatchObject({ code: 'conflict' });
		expect(await toldOf(made, 'halla')).toEqual([]);
		await world.approve('rhosyn', made);
		expect((await toldOf(made, 'halla'))[0]).toMatch(/step 2 of 2, Lead approval; by /);
		await world.approve('halla', made);
		expect(await refused(world.approve('halla', made))).toMatchObject({
			sentence: 'You have approved this step already.'
		});
		expect(
			await refused(world.act('ines', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({ code: 'conflict' });
		const { releases: rows } = await world.read('ines', releases, { project: 'VFT' });
		expect(rows.find((one) => one.id === made.id)).toMatchObject({
			steps: 2,
			approved: 1,
			turn: 'Lead approval'
		});
		await world.approve('petra', made);
		expect(await toldOf(made, 'ines')).toEqual([expect.stringContaining('Its route is done')]);
		await world.act('ines', issueRelease, { release: made.id, number: made.number });
		const [row] = await world.db.select().from(release).where(eq(release.id, made.id));
		expect(row!.manifest!.approvedBy).toBe('Rhosyn Hale, Halla Brandt, Petra Quill');
		expect((await see(made)).route.map((one) => one.given.map((g) => g.by))).toEqual([
			['Rhosyn Hale'],
			['Halla Brandt', 'Petra Quill']
		]);
	});

	it('two who approve the last place at one moment are one approval', async () => {
		const made = await build([step('Approval', 'any', [person('halla'), person('petra')])]);
		const { digest } = await see(made, 'halla');
		const done = await Promise.allSettled(
			['halla', 'petra'].map((who) => world.act(who, approveRelease, { release: made.id, digest }))
		);
		expect(done.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
		expect((await see(made)).route[0]!.given).toHaveLength(1);
	});

	it('is asked again from its first step after a change, and says what changed since', async () => {
		const made = await build([
			step('Check', 'all', [person('rhosyn')]),
			step('Approval', 'all', [person('halla')])
		]);
		await world.approve('rhosyn', made);
		const more = await world.add();
		await world.act('ines', addToRelease, { release: made.id, documents: [more.id] });
		await world.act('ines', askApproval, { release: made.id });
		const view = await see(made, 'rhosyn');
		expect(view.route.map((one) => one.state)).toEqual(['now', 'later']);
		expect(view.last).toMatchObject({
			by: 'Rhosyn Hale',
			changes: [expect.stringContaining(`${more.number} P01.1 is new in it`)]
		});
		expect(await refused(world.approve('halla', made))).toMatchObject({ code: 'conflict' });
		await world.approve('rhosyn', made);
		await world.approve('halla', made);
		expect((await see(made)).release.state).toBe('approved');
	});

	it('who sends it back asks their own step again; what stands before it stands', async () => {
		const made = await build([
			step('Check', 'all', [person('rhosyn')]),
			step('Approval', 'all', [person('halla'), person('petra')])
		]);
		expect(
			await refused(world.act('halla', sendBack, { release: made.id, reason: 'Too early' }))
		).toMatchObject({ code: 'conflict' });
		await world.approve('rhosyn', made);
		await world.approve('halla', made);
		const { items } = await see(made);
		const wrong = { document: items[0]!.documentId, reason: 'No bar beside the section' };
		expect(
			await refused(
				world.act('petra', sendBack, {
					release: made.id,
					reason: 'Scale missing',
					documents: [wrong, { document: made.id, reason: 'It is not in it' }]
				})
			)
		).toMatchObject({ code: 'conflict' });
		await world.act('petra', sendBack, { release: made.id, reason: 'Scale missing', documents: [wrong] });
		expect(await toldOf(made, 'ines')).toEqual([
			expect.stringContaining('Scale missing (and says what is wrong with 1 document)')
		]);
		expect((await see(made)).last).toMatchObject({ says: 'sent-back', documents: [wrong] });
		// Who was asked is told where it is; for who was not, and for everybody else, it does not exist.
		for (const who of ['rhosyn', 'petra'])
			expect(await refused(see(made, who))).toMatchObject({
				code: 'not-found',
				facts: { heading: 'Back with its builder' }
			});
		expect((await refused(see(made, 'oke'))).facts).toEqual({});
		// What they were just about to do is refused with that, too.
		const approve = (who: string) =>
			refused(world.act(who, approveRelease, { release: made.id, digest: 'a'.repeat(64) }));
		expect((await approve('petra')).sentence).toMatch(/is being built again/);
		expect((await approve('oke')).sentence).toMatch(/There is nothing here/);
		const told = await world.read('ines', activity, { project: 'VFT' });
		expect(told.events.find((one) => one.kind === 'release.sent-back')!.details).toMatchObject({
			documents: [{ number: items[0]!.number, reason: wrong.reason }]
		});
		await world.act('ines', askApproval, { release: made.id });
		expect((await see(made)).route.map((one) => [one.state, one.given.length])).toEqual([
			['done', 1],
			['now', 0]
		]);
	});

	it('takes departments by their leads and groups by their people, and nobody outside by either', async () => {
		await world.act('ines', makeGroup, {
			project: 'VFT',
			name: 'Coordination',
			people: [id('rhosyn'), id('tarn')]
		});
		const { id: group } = (await world.db.select().from(groups)).find((one) => one.name === 'Coordination')!;
		const made = await build([
			step('Lead', 'all', [{ kind: 'department', id: world.departments.AR! }]),
			step('Coordination', 'any', [{ kind: 'group', id: group }])
		]);
		// Rhosyn is of that department and no lead of it.
		expect(await refused(world.approve('rhosyn', made))).toMatchObject({ code: 'conflict' });
		await world.approve('halla', made);
		expect(await refused(see(made, 'tarn'))).toMatchObject({ code: 'not-found' });
		await world.approve('rhosyn', made);
		expect((await see(made)).route[1]!.given).toMatchObject([{ by: 'Rhosyn Hale', of: 'Coordination' }]);
	});

	it('waits for nobody who had a hand in it, and is not asked for when nobody else is left', async () => {
		const group = async (name: string, people: string[]) =>
			(await world.act('ines', makeGroup, { project: 'VFT', name, people: people.map(id) })).id;
		const [alone, two] = [
			await group('Control', ['ines']),
			await group('Control and lead', ['ines', 'petra'])
		];
		const stuck = await build([step('Control', 'any', [{ kind: 'group', id: alone }])], false);
		expect(await refused(world.act('ines', askApproval, { release: stuck.id }))).toMatchObject({
			code: 'conflict',
			sentence: expect.stringContaining('“Control” has nobody left')
		});
		const before = { ines: await waits('ines'), petra: await waits('petra') };
		const made = await build([step('Control', 'any', [{ kind: 'group', id: two }])]);
		expect(await waits('ines')).toBe(before.ines);
		expect(await waits('petra')).toBe(before.petra + 1);
		await world.approve('petra', made);
	});

	it('refuses whom the project does not know, steps that cannot be met, and who has a hand in it', async () => {
		for (const [route, says] of [
			[[step('Check', 'all', [{ kind: 'person', id: 'zzzzzzzzzz' }])], /not in this project/],
			[[step('Check', 3, [person('halla'), person('oke')])], /asks for 3 approvals/],
			[[step('Check', 'all', [person('ines')])], /has a hand in this build/]
		] as const)
			expect(await refused(build(route as unknown as Step[]))).toMatchObject({
				code: 'invalid',
				sentence: expect.stringMatching(says),
				facts: { field: 'route' }
			});
	});
});

describe('a stand-in (T10)', () => {
	it('decides for who is away, in their days only, and the trail names both', async () => {
		const made = await build([step('Approval', 'all', [person('halla')])]);
		expect(await refused(see(made, 'petra'))).toMatchObject({ code: 'not-found' });
		const before = await waits('petra');
		const { id: entry } = await world.act('halla', nameStandIn, {
			project: 'VFT',
			standIn: id('petra'),
			from: today(),
			until: plusDays(today(), 3)
		});
		expect(await waits('petra')).toBe(before + 1);
		const view = await see(made, 'petra');
		expect(view).toMatchObject({
			decidesFor: 'Halla Brandt',
			can: { approveRelease: { may: true } },
			route: [{ of: [{ away: { standIn: 'Petra Quill' } }] }]
		});
		expect((await world.read('petra', releases, { project: 'VFT' })).releases[0]).toMatchObject({
			id: made.id,
			waitsForMe: true
		});
		await world.approve('petra', made);
		const [told] = (await world.db.select().from(event).where(eq(event.releaseId, made.id))).filter(
			(one) => one.kind === 'release.approved'
		);
		expect(told).toMatchObject({ actor: id('petra'), details: { standsFor: 'Halla Brandt' } });
		await world.act('ines', issueRelease, { release: made.id, number: made.number });
		const [row] = await world.db.select().from(release).where(eq(release.id, made.id));
		expect(row!.manifest!.approvedBy).toBe('Petra Quill for Halla Brandt');
		// Once it has ended they decide no more, and know of it no more.
		await world.act('halla', endStandIn, { project: 'VFT', entry });
		expect(
			await refused(see(await build([step('Approval', 'all', [person('halla')])]), 'petra'))
		).toMatchObject({
			code: 'not-found'
		});
	});

	it('is named by who is away or a controller, for days to come, once at a time', async () => {
		const days = { from: today(), until: plusDays(today(), 5) };
		const name = (who: string, more: object) =>
			world.act(who, nameStandIn, { project: 'VFT', standIn: id('petra'), ...days, ...more });
		expect(await refused(name('rhosyn', { away: id('halla') }))).toMatchObject({ code: 'needs-level' });
		expect(await refused(name('petra', {}))).toMatchObject({ facts: { field: 'standIn' } });
		expect(await refused(name('rhosyn', { standIn: id('tarn') }))).toMatchObject({
			facts: { field: 'standIn' }
		});
		expect(await refused(name('rhosyn', { until: plusDays(today(), -1) }))).toMatchObject({
			facts: { field: 'until' }
		});
		const two = await Promise.allSettled([
			name('ines', { away: id('rhosyn') }),
			name('rhosyn', { standIn: id('oke') })
		]);
		expect(two.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
		const { rows } = await world.read('petra', standIns, { project: 'VFT' });
		expect(rows).toMatchObject([{ away: { name: 'Rhosyn Hale' }, mayEnd: false }]);
		expect((await world.read('tarn', standIns, { project: 'VFT' })).rows).toEqual([]);
		const away = async (who: string) => (await world.read(who, projectFrame, { project: 'VFT' })).away;
		expect(await away('petra')).toMatchObject([{ person: id('rhosyn'), until: days.until }]);
		expect(await away('tarn')).toEqual([]);
		expect(
			await refused(world.act('petra', endStandIn, { project: 'VFT', entry: rows[0]!.id }))
		).toMatchObject({ code: 'needs-level' });
		await world.db.delete(standIn);
	});

	it('who knows of a release is the same to the rule and to the lists, whatever its route', async () => {
		await world.act('oke', nameStandIn, {
			project: 'VFT',
			standIn: id('petra'),
			from: today(),
			until: plusDays(today(), 1)
		});
		const [here] = await world.db.select().from(project).where(eq(project.id, world.project));
		const { id: group } = (await world.db.select().from(groups)).find((one) => !one.company)!;
		const named: Step['of'][number][] = [
			...['halla', 'oke', 'petra', 'tarn'].map(person),
			{ kind: 'department', id: world.departments.MW! },
			{ kind: 'department', id: world.departments.AR! },
			{ kind: 'group', id: group }
		];
		const speakers = await speakersOf(world.db, here!, new Date());
		for (const one of named) {
			const route = [step('Approval', 'all', [one])];
			const made = await build(route);
			for (const who of ['halla', 'oke', 'petra', 'tarn', 'rhosyn']) {
				const listed = (await world.read(who, releases, { project: 'VFT' })).releases.some(
					(row) => row.id === made.id
				);
				expect(listed, `${who}, ${one.kind} ${one.id}`).toBe(onRoute(route, id(who), speakers));
			}
		}
	});
});

describe('a step that is late', () => {
	it('is told once to whom it waits for and to the controllers', async () => {
		const made = await build([step('Approval', 'all', [person('halla'), person('oke')], 1)]);
		await world.approve('oke', made);
		await tellLateSteps(world.services);
		const before = (await toldOf(made, 'halla')).length;
		const later = new Date(Date.now() + 6 * 24 * 3_600_000);
		for (let n = 0; n < 2; n++) await tellLateSteps(world.services, later);
		expect((await toldOf(made, 'halla')).slice(before)).toEqual([
			expect.stringMatching(/was to be decided by .*It waits for Halla Brandt\./)
		]);
		expect(await toldOf(made, 'ines')).toHaveLength(1);
		expect(await toldOf(made, 'oke')).toHaveLength(1);
		// Changed and asked again, its days are counted anew.
		await world.act('ines', changeRelease, { release: made.id, title: 'Another' });
		await world.act('ines', askApproval, { release: made.id });
		await tellLateSteps(world.services);
		expect(await toldOf(made, 'ines')).toHaveLength(1);
	});
});

it('a project keeps routes, checked like those of releases', async () => {
	const route = {
		name: 'Construction issue',
		purpose: 'construction',
		steps: [step('Check', 'all', [person('halla')])]
	};
	const change = (routes: unknown[]) => world.act('ines', changeSettings, { project: 'VFT', routes });
	await change([route]);
	expect((await world.read('ines', settings, { project: 'VFT' })).routes).toEqual([route]);
	expect(await refused(change([route, { ...route, name: 'construction ISSUE' }]))).toMatchObject({
		sentence: 'Two routes have the same name.'
	});
	expect(
		await refused(
			change([{ ...route, steps: [step('Check', 'all', [{ kind: 'group', id: 'zzzzzzzzzz' }])] }])
		)
	).toMatchObject({ code: 'invalid' });
});
