import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_STAGES } from '../../src/lib/core/register';
import { plusDays } from '../../src/lib/core/time/days';
import { changeName } from '../../src/lib/server/people/acts-account';
import { addPerson } from '../../src/lib/server/people/acts-joining';
import { person } from '../../src/lib/server/platform/db/schema';
import { addDocument } from '../../src/lib/server/documents/acts';
import { issueRevision } from '../../src/lib/server/documents/acts-revising';
import { proposals } from '../../src/lib/server/places/views';
import { readView } from '../../src/lib/server/platform/runner/run';
import {
	addDeliverables,
	changeDeliverables,
	movePlanned,
	removeDeliverables,
	restoreDeliverables
} from '../../src/lib/server/register/acts';
import { endRegisterChoice, keepRegisterChoice } from '../../src/lib/server/register/acts-choices';
import { correctActual, setForecast } from '../../src/lib/server/register/acts-forecast';
import { register } from '../../src/lib/server/register/views';
import { registerFigures, registerGaps } from '../../src/lib/server/register/views-figures';
import { registerChoices } from '../../src/lib/server/register/views-kept';
import { removePlace } from '../../src/lib/server/removed/acts';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { activity } from '../../src/lib/server/trail/views';
import { project, registerIn } from './register-world';
import { refused, TestWorld } from './world';

let world: TestWorld;
let { add, lines, lineOf, newest, says, nextNumber } = {} as ReturnType<typeof registerIn>;
/** A Monday, weeks before today. */
const START = '2026-08-03';
const at = (day: string) => new Date(`${day}T09:00:00Z`);

beforeAll(async () => {
	world = await TestWorld.open();
	({ add, lines, lineOf, newest, says, nextNumber } = registerIn(world));
	await world.act('ines', changeSettings, { project, releasePurposes: [] });
});
afterAll(() => world.close());

describe('putting deliverables in the register', () => {
	it('reserves their numbers, which are then proposed to nobody', async () => {
		const propose = async () =>
			(await world.read('oke', proposals, { place: world.folder, files: ['pit.dxf'] })).proposals[0]!.number;
		const free = await propose();
		await add({ number: free });
		expect(await propose()).not.toBe(free);
		expect(await says()).toBe(`put ${free} Quay wall section in the register`);
		const twice = await refused(add({ number: free }));
		expect(twice).toMatchObject({ code: 'conflict', sentence: `${free} is in the register already.` });
	});

	it('is all or none, and names the line that cannot be', async () => {
		const before = (await lines()).counts.deliverables;
		const line = (more: object) => ({ number: nextNumber(), title: 'Section', ...more });
		const odd: [object, string][] = [
			[{ number: 'VFT-XX-QW-00-DR-0001' }, 'number'],
			[{ department: 'aaaaaaaaaa' }, 'department'],
			[{ responsible: 'aaaaaaaaaa' }, 'responsible'],
			[{ planned: { painted: START } }, 'stage']
		];
		for (const [more, field] of odd) {
			const deliverables = [line({}), line(more), line({})];
			const said = await refused(world.act('ines', addDeliverables, { project, deliverables }));
			expect(said).toMatchObject({ code: 'invalid', facts: { field, line: 2 } });
		}
		expect((await lines()).counts.deliverables).toBe(before);
	});

	it('gives a number to one of two who reserve it at the same time', async () => {
		const number = nextNumber();
		const tries = await Promise.allSettled([add({ number }), add({ number }), add({ number })]);
		expect(tries.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
	});

	it('is for document controllers', async () => {
		expect((await refused(add({}, 'oke'))).code).toBe('needs-level');
	});
});

describe('actual days', () => {
	it('are those of the first issue for the purpose of a stage, as the trail tells them', async () => {
		const { id, number } = await world.add();
		const line = await add({
			number,
			title: 'Linkspan plan',
			planned: { comment: '2026-08-10', approval: '2026-09-07', construction: '2026-10-05' }
		});
		await world.act(
			'oke',
			issueRevision,
			{ document: id, purpose: 'comment', note: 'asked' },
			at('2026-08-12')
		);
		const [comment, approval] = (await lineOf(line.id)).stages;
		expect(comment).toMatchObject({ actual: '2026-08-12', forecast: null, slip: 2 });
		expect(approval!.actual).toBeNull();
		await world.revise(id);
		await world.act(
			'oke',
			issueRevision,
			{ document: id, purpose: 'comment', note: 'again' },
			at('2026-08-20')
		);
		expect((await lineOf(line.id)).stages[0]!.actual).toBe('2026-08-12');
		// A correction stands beside what the trail says, with a reason; it is taken back the same way.
		const correct = (day: string | null) =>
			world.act('ines', correctActual, {
				project,
				deliverable: line.id,
				stage: 'comment',
				day,
				reason: 'went by hand before'
			});
		await correct('2026-08-10');
		const corrected = await lineOf(line.id);
		expect(corrected.stages[0]).toMatchObject({ actual: '2026-08-10', slip: 0 });
		expect(corrected.corrected).toEqual([
			{ stage: 'comment', day: '2026-08-10', reason: 'went by hand before', by: 'Ines Maddock' }
		]);
		expect(await says()).toBe(
			`corrected the day on which ${number} was issued For comment to 2026-08-10: went by hand before`
		);
		await correct(null);
		expect((await lineOf(line.id)).stages[0]!.actual).toBe('2026-08-12');
		expect((await refused(correct(plusDays(new Date().toISOString().split('T')[0]!, 2)))).code).toBe(
			'invalid'
		);
	});

	it('end when the document is removed: then it has none any more', async () => {
		const { id, number } = await world.add();
		const line = await add({ number, planned: { comment: '2026-08-10' } });
		expect((await lineOf(line.id)).status).toBe('work');
		await world.act('oke', removePlace, { place: id, reason: 'not wanted' });
		expect(await lineOf(line.id)).toMatchObject({ status: 'none', document: null });
	});

	it('show who is responsible by the name that they have now', async () => {
		const { id } = await add({ responsible: world.people.rhosyn!.person.id });
		const name = async () => (await lineOf(id)).responsible!.name;
		expect(await name()).toBe('Rhosyn Hale');
		await world.act('rhosyn', changeName, { name: 'Rhosyn Hale-Verrin' });
		expect(await name()).toBe('Rhosyn Hale-Verrin');
		expect(await says()).toBe('is called Rhosyn Hale-Verrin now, before Rhosyn Hale');
	});

	it('are seen by another process at once', async () => {
		const other = await world.beside();
		const count = async () =>
			(await readView(other, register, world.people.ines!, { project })).counts.deliverables;
		const before = await count();
		const { id } = await add();
		expect(await count()).toBe(before + 1);
		await world.act('ines', removeDeliverables, { project, deliverables: [id], reason: 'made twice' });
		expect(await count()).toBe(before);
	});
});

describe('who may look at a deliverable', () => {
	it('is who may look at its document; nothing else tells of it', async () => {
		const { id, number } = await world.add();
		const line = await add({ number, title: 'Hidden hinge', planned: { comment: '2026-08-10' } });
		const before = await lines('petra');
		expect(before.rows.map((row) => row.number)).not.toContain(number);
		expect((await lines('oke')).rows.map((row) => row.number)).toContain(number);
		expect((await lines('petra', { words: 'Hidden hinge' })).counts.deliverables).toBe(0);
		const missing = await refused(lineOf(line.id, 'petra'));
		expect(missing.code).toBe('not-found');
		expect(await refused(lineOf(number, 'petra'))).toMatchObject({ sentence: missing.sentence });
		expect(await refused(lineOf('aaaaaaaaaa', 'petra'))).toMatchObject({ sentence: missing.sentence });
		// Saying when it comes is refused in the same words as of one that is not there.
		const forecast = (deliverable: string) =>
			refused(
				world.act('halla', setForecast, {
					project,
					deliverable,
					stage: 'comment',
					day: '2030-01-07',
					reason: 'a try'
				})
			);
		expect(await forecast(line.id)).toMatchObject({ code: 'not-found', sentence: missing.sentence });
		expect(await forecast('aaaaaaaaaa')).toMatchObject({ code: 'not-found', sentence: missing.sentence });
		// Nor do events, by name or by count.
		await world.act('ines', movePlanned, {
			project,
			deliverables: [line.id],
			stage: 'comment',
			by: 3,
			reason: 'waits'
		});
		expect((await newest('oke')).details.number).toBe(number);
		expect(JSON.stringify((await world.read('petra', activity, { project })).events)).not.toContain(number);
		const weight = async (who: string) => (await world.read(who, registerFigures, { project })).curves.total;
		const [all, hers] = [await weight('ines'), await weight('petra')];
		expect(hers).toBeLessThan(all);
		await world.act('oke', removePlace, { place: id, reason: 'not wanted' });
	});

	it('is every colleague while there is no document, and nobody outside', async () => {
		const { number } = await add({ title: 'Harbour light' });
		expect((await lines('petra', { words: 'Harbour light' })).rows.map((row) => row.number)).toEqual([
			number
		]);
		await world.act('ines', changeSettings, { project, ownDomains: ['vennholm.example'] });
		await world.act('ines', addPerson, { project, name: 'Kaja Dorn', email: 'kaja@tarn.example' });
		const [kaja] = await world.db.select().from(person).where(eq(person.email, 'kaja@tarn.example'));
		world.people.kaja = { person: kaja!, via: 'session' };
		expect((await lines('kaja')).counts.deliverables).toBe(0);
		expect((await world.read('kaja', registerFigures, { project })).curves.total).toBe(0);
	});
});

describe('planned days', () => {
	it('move by working days of the project, past holidays; what is met keeps its own', async () => {
		const calendar = { weekend: ['Sat', 'Sun'], holidays: [{ day: '2027-03-29', name: 'Easter Monday' }] };
		await world.act('ines', changeSettings, { project, workCalendar: calendar });
		const { id, number } = await world.add();
		const line = await add({
			number,
			planned: { comment: '2026-08-10', approval: '2027-03-26', construction: null }
		});
		await world.act(
			'oke',
			issueRevision,
			{ document: id, purpose: 'comment', note: 'asked' },
			at('2026-08-12')
		);
		const input = { project, deliverables: [line.id], reason: 'the survey is late' };
		expect(await world.act('ines', movePlanned, { ...input, by: 1 })).toEqual({ moved: 1 });
		expect((await lineOf(line.id)).stages.map((one) => one.planned)).toEqual([
			'2026-08-10',
			'2027-03-30',
			null
		]);
		expect(await says()).toBe(
			`moved the planned days of ${number} (For approval) by 1 working day: the survey is late`
		);
		await world.act('ines', movePlanned, { ...input, stage: 'construction', to: '2027-05-03' });
		const after = await lineOf(line.id);
		expect(after.stages[2]!.planned).toBe('2027-05-03');
		expect(after.history[0]).toMatchObject({
			kind: 'moved',
			by: 'Ines Maddock',
			reason: 'the survey is late',
			changes: [{ what: 'For construction', from: 'no day yet', to: '2027-05-03' }]
		});
		// Nothing that changes writes nothing.
		expect(
			await world.act('ines', movePlanned, { ...input, stage: 'construction', to: '2027-05-03' })
		).toEqual({
			moved: 0
		});
		for (const odd of [{ by: 1, to: '2027-05-03' }, {}, { to: '2027-05-03' }, { stage: 'painted', by: 1 }])
			expect((await refused(world.act('ines', movePlanned, { ...input, ...odd }))).code).toBe('invalid');
	});

	it('are told of many in one sentence that names none', async () => {
		const two = [
			await add({ planned: { comment: '2027-02-01' } }),
			await add({ planned: { comment: '2027-02-01' } })
		];
		await world.act('ines', movePlanned, {
			project,
			deliverables: two.map((one) => one.id),
			by: -5,
			reason: 'the berth is free sooner'
		});
		expect(await says()).toBe(
			'moved the planned days of 2 deliverables (For comment) by -5 working days: the berth is free sooner'
		);
		expect((await lineOf(two[1]!.id)).stages[0]!.planned).toBe('2027-01-25');
	});
});

describe('a forecast of one’s own', () => {
	it('is said by who is responsible, leads of the department and controllers, and the rule stays beside it', async () => {
		const responsible = world.people.rhosyn!.person.id;
		const line = await add({ responsible, planned: { comment: '2030-02-04' } });
		const forecast = (who: string, day: string | null, reason = 'the piles come late') =>
			world.act(who, setForecast, { project, deliverable: line.id, stage: 'comment', day, reason });
		expect((await refused(forecast('petra', '2030-03-04'))).code).toBe('needs-level');
		expect((await refused(forecast('halla', '2030-03-04'))).code).toBe('needs-level');
		for (const who of ['rhosyn', 'oke', 'ines']) await forecast(who, '2030-03-04', `said by ${who}`);
		const [stage] = (await lineOf(line.id)).stages;
		expect(stage).toMatchObject({
			forecast: '2030-03-04',
			rule: { day: '2030-02-04', basis: 'plan' },
			own: { by: 'Ines Maddock', reason: 'said by ines' },
			slip: 20
		});
		expect((await lines('rhosyn', { words: line.number })).rows[0]!.mayForecast).toBe(true);
		expect((await lines('petra', { words: line.number })).rows[0]!.mayForecast).toBe(false);
		await forecast('rhosyn', null, 'they came');
		expect((await lineOf(line.id)).stages[0]).toMatchObject({ forecast: '2030-02-04', own: null });
		expect((await refused(forecast('oke', '2026-01-05'))).sentence).toContain('today or later');
	});
});

describe('taking out and putting back', () => {
	it('frees the number, and puts back only what does not collide', async () => {
		const { id, number } = await add({ planned: { comment: '2027-02-01' } });
		const out = () =>
			world.act('ines', removeDeliverables, { project, deliverables: [id], reason: 'not ours' });
		await out();
		expect((await refused(out())).code).toBe('not-found');
		const back = () => world.act('ines', restoreDeliverables, { project, deliverables: [id] });
		const again = await add({ number });
		expect(await refused(back())).toMatchObject({ code: 'conflict' });
		await world.act('ines', removeDeliverables, { project, deliverables: [again.id], reason: 'made twice' });
		await back();
		expect(await says()).toBe(`put ${number} back in the register`);
		expect((await lineOf(id)).stages[0]!.planned).toBe('2027-02-01');
	});
});

describe('changing deliverables', () => {
	it('changes many alike, and says what changed of which', async () => {
		const two = [await add({ planned: { comment: START } }), await add({ title: 'Fender' })];
		const change = (more: object) =>
			world.act('ines', changeDeliverables, {
				project,
				deliverables: two.map((one) => one.id),
				...more
			});
		const responsible = world.people.rhosyn!.person.id;
		expect(await change({ responsible, addStages: ['comment', 'approval'] })).toEqual({
			changed: 2
		});
		expect(await says()).toBe(
			'changed who is responsible, For approval, For comment of 2 deliverables in the register'
		);
		expect((await lineOf(two[0]!.id)).stages.map((one) => [one.stage, one.planned])).toEqual([
			['comment', START],
			['approval', null]
		]);
		expect((await lines('ines', { undated: true, words: two[1]!.number })).total).toBe(1);
		expect(await change({ dropStages: ['comment'] })).toEqual({ changed: 2 });
		expect((await lineOf(two[1]!.id)).stages.map((one) => one.stage)).toEqual(['approval']);
		expect((await lineOf(two[1]!.id)).history[0]!.changes).toEqual([
			{ what: 'For comment', from: 'no day yet', to: 'not in the plan' }
		]);
		expect(await change({ responsible })).toEqual({ changed: 0 });
		expect((await refused(change({ number: nextNumber() }))).code).toBe('invalid');
	});
});

describe('figures', () => {
	it('follow what the list is narrowed to, and name what is missing', async () => {
		const zone = 'ZW';
		const numbers = ['0001', '0002', '0004'].map((n) => `VFT-MW-${zone}-00-DR-${n}`);
		for (const number of numbers)
			await add({ number, weight: 2, planned: { comment: '2026-09-01', approval: '2030-01-07' } });
		const narrowed = { zones: [zone], stage: 'comment' };
		const list = await lines('ines', narrowed);
		expect(list.counts).toMatchObject({ deliverables: 3, none: 3, late: 3, met: 0 });
		expect(list.zones).toContain(zone);
		const figures = await world.read('ines', registerFigures, { project, ...narrowed });
		expect(figures.curves).toMatchObject({ total: 6, unplanned: 0, unexpected: 0 });
		expect(figures.departments).toEqual([{ department: 'MW', met: 0, late: 6, all: 6 }]);
		// At a weekend that is next week.
		expect(figures.weeks[0]!.due + figures.weeks[1]!.due).toBe(3);
		const gaps = await world.read('ines', registerGaps, { project });
		expect(gaps.numbers).toContainEqual({
			from: `VFT-MW-${zone}-00-DR-0003`,
			to: `VFT-MW-${zone}-00-DR-0003`,
			count: 1
		});
		// It stands at the deliverable before it, follows what the list is narrowed to, and narrows it.
		expect(list.counts.missing).toBe(1);
		const after = await lines('ines', { ...narrowed, missing: true });
		expect(after.rows.map((row) => [row.number, row.missingAfter])).toEqual([
			[numbers[1], [`VFT-MW-${zone}-00-DR-0003`]]
		]);
		expect((await lines('ines', { zones: ['LS'], missing: true, words: zone })).total).toBe(0);
		const { number } = await world.add();
		expect(
			(await world.read('ines', registerGaps, { project })).documents.map((one) => one.number)
		).toContain(number);
		expect((await refused(world.read('oke', registerGaps, { project }))).code).toBe('needs-level');
	});

	it('tell which numbers are missing to those who may add documents; one that a hidden document has is not missing (A10)', async () => {
		const zone = 'ZH';
		const numbered = (serial: string) => `VFT-MW-${zone}-00-DR-${serial}`;
		for (const serial of ['0001', '0004']) await add({ number: numbered(serial) });
		const shown = async (who: string) => {
			const { rows, counts, tellsMissing } = await lines(who, { zones: [zone] });
			return { missing: rows.flatMap((row) => row.missingAfter), counted: counts.missing, tellsMissing };
		};
		const both = [numbered('0002'), numbered('0003')];
		expect(await shown('ines')).toEqual({ missing: both, counted: 1, tellsMissing: true });
		const upload = await world.send('oke', 'a sheet');
		await world.act('oke', addDocument, {
			folder: world.folder,
			upload,
			number: both[0]!,
			title: 'Pit cover'
		});
		const one = { missing: [both[1]!], counted: 1, tellsMissing: true };
		expect(await shown('ines')).toEqual(one);
		// Petra adds documents elsewhere, and may not look at this one.
		expect(await shown('petra')).toEqual(one);
		expect(await shown('edda')).toEqual({ missing: [], counted: 0, tellsMissing: false });
		expect((await lines('edda', { zones: [zone], missing: true })).total).toBe(0);
	});
});

describe('stages', () => {
	it('are the project’s own; one that leaves says from how many plans', async () => {
		const line = await add({ planned: { 'as-built': '2027-06-01' } });
		const without = USUAL_STAGES.filter((one) => one.key !== 'as-built');
		const tried = await world.act('ines', changeSettings, { project, stages: without, trial: true });
		expect(tried.effects[0]).toMatch(/“As built” leaves the plans of \d+ deliverables?; its days come back/);
		await world.act('ines', changeSettings, { project, stages: without });
		expect((await lineOf(line.id)).stages).toEqual([]);
		await world.act('ines', changeSettings, { project, stages: [...USUAL_STAGES] });
		expect((await lineOf(line.id)).stages[0]!.planned).toBe('2027-06-01');
		const twice = [...without, { key: 'again', name: 'Again', purpose: 'comment' as const }];
		expect((await refused(world.act('ines', changeSettings, { project, stages: twice }))).facts.field).toBe(
			'stages'
		);
	});
});

describe('kept choices', () => {
	it('are one’s own, or the project’s; the same name again is the same choice', async () => {
		const keep = (who: string, name: string, shared = false, query = 'late=yes') =>
			world.act(who, keepRegisterChoice, { project, name, query, shared });
		await keep('oke', 'My late ones');
		const shared = await keep('ines', 'Due this week', true);
		expect((await refused(keep('oke', 'For all', true))).code).toBe('needs-level');
		expect((await keep('ines', 'DUE this week', true, 'late=no')).id).toBe(shared.id);
		const names = async (who: string) =>
			(await world.read(who, registerChoices, { project })).choices.map((one) => one.name);
		expect(await names('oke')).toEqual(['DUE this week', 'My late ones']);
		expect(await names('petra')).toEqual(['DUE this week']);
		const end = (who: string, choice: string) => world.act(who, endRegisterChoice, { project, choice });
		expect((await refused(end('oke', shared.id))).code).toBe('needs-level');
		const mine = (await world.read('oke', registerChoices, { project })).choices.find((one) => !one.shared)!;
		expect((await refused(end('petra', mine.id))).code).toBe('not-found');
		await end('oke', mine.id);
		await end('ines', shared.id);
		expect(await names('oke')).toEqual([]);
	});
});
