import { oneStep } from '../../src/lib/core/releases/route';
import { standardRule } from '../../src/lib/core/numbering/numbering';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Act, View } from '../../src/lib/server/platform/runner/act';
import { openDocument } from '../../src/lib/server/documents/acts';
import { letIn } from '../../src/lib/server/access/acts';
import { makeHatch } from '../../src/lib/server/hatches/acts';
import { makePass } from '../../src/lib/server/passes/acts';
import { takeLock } from '../../src/lib/server/locks/acts';
import { addDeliverables } from '../../src/lib/server/register/acts';
import { setForecast } from '../../src/lib/server/register/acts-forecast';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { removePlace } from '../../src/lib/server/removed/acts';
import { ACTS } from '../../src/lib/server/api/acts';
import { access } from '../../src/lib/server/access/views';
import { activity } from '../../src/lib/server/trail/views';
import { find } from '../../src/lib/server/find/views';
import { VIEWS } from '../../src/lib/server/api/views';
import { refused, TestWorld } from './world';

/** Words that stand only in what Architecture may not look at. */
const SECRET = 'Zinkblende';

let world: TestWorld;
let hidden = '';
let gone = '';
let hiddenRelease = '';
let upload = '';
let hiddenGrant = '';
let hiddenPass = '';
let hiddenLine = '';
let hiddenHatch = '';

beforeAll(async () => {
	world = await TestWorld.open();
	const { addDocument } = await import('../../src/lib/server/documents/acts');
	const { makeFolder } = await import('../../src/lib/server/places/acts');
	const folder = await world.act('oke', makeFolder, { parent: world.shelf, name: `${SECRET} folder` });
	hidden = (
		await world.act('oke', addDocument, {
			folder: folder.id,
			upload: await world.send('oke', SECRET),
			number: 'VFT-MW-LS-00-DR-0900',
			title: `${SECRET} sheet`
		})
	).id;
	gone = (
		await world.act('oke', addDocument, {
			folder: folder.id,
			upload: await world.send('oke', 'gone'),
			number: 'VFT-MW-LS-00-DR-0901',
			title: `${SECRET} gone`
		})
	).id;
	await world.act('oke', removePlace, { place: gone, reason: `${SECRET} reason` });
	await world.act('oke', takeLock, { document: hidden, purpose: `${SECRET} purpose` });
	await world.act('rhosyn', openDocument, { document: hidden });
	hiddenRelease = (
		await world.act('ines', buildRelease, {
			project: 'VFT',
			title: `${SECRET} release`,
			purpose: 'comment',
			recipients: [{ recipient: world.recipient }],
			route: oneStep(world.people.halla!.person.id),
			documents: [hidden]
		})
	).id;
	hiddenLine = (
		await world.act('ines', addDeliverables, {
			project: 'VFT',
			deliverables: [
				{ number: 'VFT-MW-LS-00-DR-0900', title: `${SECRET} line`, planned: { comment: '2026-12-01' } }
			]
		})
	).ids[0]!;
	await world.act('ines', setForecast, {
		project: 'VFT',
		deliverable: hiddenLine,
		stage: 'comment',
		day: '2099-12-31',
		reason: `${SECRET} forecast`
	});
	await world.act('oke', letIn, {
		place: folder.id,
		lines: [{ subject: { kind: 'person', id: world.people.rhosyn!.person.id }, level: 'organise' }],
		note: `${SECRET} note`
	});
	hiddenGrant = (await world.read('oke', access, { place: folder.id })).rows.find((r) => r.here)!.grant!;
	hiddenPass = (
		await world.act('oke', makePass, {
			place: folder.id,
			for: `${SECRET} holder`,
			audience: 'anyone',
			until: '2027-12-31'
		})
	).id;
	hiddenHatch = (
		await world.act('oke', makeHatch, { place: folder.id, title: `${SECRET} hatch`, until: '2027-12-31' })
	).id;
	upload = await world.send('petra', 'her own');
});
afterAll(() => world.close());

/** An input that fits an act or view and points at what is hidden. */
function pointing(target: Act | View): Record<string, unknown> {
	const place = target.at.kind === 'place' && target.at.removed ? gone : hidden;
	const known: Record<string, unknown> = {
		place,
		document: hidden,
		folder: world.shelf,
		parent: world.shelf,
		to: world.other,
		release: hiddenRelease,
		project: 'VFT',
		number: 31,
		upload,
		name: 'A name',
		title: 'A title',
		reason: 'r',
		text: { type: 'doc', content: [{ type: 'paragraph' }] },
		schedule: { columns: [{ name: 'Mark' }], rows: [] },
		layer: 'MW-STEEL',
		department: world.departments.AR,
		format: 'docx',
		base: 'P01.1',
		revision: 'P01',
		colleague: 'zzzzzzzzzz',
		content: 'a'.repeat(64),
		anchor: { on: 'whole' },
		remark: 1,
		assign: { kind: 'person', id: world.people.oke!.person.id },
		filter: 'all',
		rule: standardRule('VFT', []),
		from: target.name === 'nameStandIn' ? '2099-01-01' : 'P01.1',
		standIn: world.people.petra!.person.id,
		entry: 'zzzzzzzzzz',
		holder: 'maren@harbourtrust.example',
		note: 'n',
		purpose: 'comment',
		label: 'P01.1',
		documents: target.name === 'sendBack' ? [{ document: hidden, reason: 'r' }] : [hidden],
		places: [hidden],
		files: ['a.txt'],
		numbers: ['VFT-MW-LS-00-DR-0900'],
		secret: 'no-such-secret',
		q: SECRET,
		code: 'ZZ',
		email: 'new@vennholm.example',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(world.people.oke!.person.id),
		answers: [{ document: hidden, code: 'A' }],
		ways: [['A folder']],
		token: 'zzzzzzzzzz',
		password: 'a long password',
		current: 'a wrong password',
		company: 'C',
		client: 'C',
		how: 'opened',
		lines: [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' }],
		grant: hiddenGrant,
		under: hiddenGrant,
		who: { person: world.people.petra!.person.id },
		level: 'view',
		sensitive: true,
		person: world.people.oke!.person.id,
		grants: [hiddenGrant],
		group: 'zzzzzzzzzz',
		people: target.name === 'addPeople' ? [{ name: 'N', email: 'new@vennholm.example' }] : [],
		outsideLevel: 'view',
		manageNeedsTwoStep: false,
		departments: target.name === 'setDepartments' ? [] : '',
		until: target.name === 'nameStandIn' ? '2099-01-02' : '2099-12-31',
		for: 'Somebody',
		audience: 'anyone',
		pass: hiddenPass,
		emails: ['new@vennholm.example'],
		passes: [hiddenPass],
		hatches: [hiddenHatch],
		uploads: [upload],
		sender: 'S',
		arrival: 'zzzzzzzzzz',
		notices: [],
		kind: 'access-given',
		choice: target.name === 'endRegisterChoice' ? 'zzzzzzzzzz' : 'never',
		deliverable: hiddenLine,
		deliverables:
			target.name === 'addDeliverables'
				? [{ number: 'VFT-MW-LS-00-DR-0900', title: 'Another' }]
				: [hiddenLine],
		stage: 'comment',
		file: 'list.csv',
		heads: ['Number'],
		columns: ['number'],
		rows: [['VFT-MW-LS-00-DR-0900']],
		query: '',
		template: 'zzzzzzzzzz',
		parts: {},
		begins: '2030-01-07',
		session: 'zzzzzzzzzz',
		side: 1,
		state: 'archived',
		tag: ['x'],
		sequences: [],
		demands: { information: 'P', comment: 'P', approval: 'P', construction: 'C', 'as-built': 'C' },
		ask: false,
		digest: 'a'.repeat(64),
		recipient: 'zzzzzzzzzz',
		list: 'VFT-MW-LS-00-DR-0900',
		checks: [{ document: hidden, check: 'settled' }],
		expectedEnd: new Date(Date.now() + 86_400_000).toISOString()
	};
	if (['addDocument', 'addLiveText', 'addLiveSchedule', 'sortArrival'].includes(target.name))
		known.number = 'VFT-MW-LS-00-DR-0902';
	if (target.name === 'addLiveSchedule') known.format = 'csv';
	if (target.name === 'changeDocument') delete known.number;
	if (target.name === 'settleRemarks') known.lines = [{ remark: 1 }];
	// What is said in a remark is plain words; what a live text begins with is a text.
	if (/Remark$|^remarkIn/.test(target.name)) known.text = 'words';
	if (target.name === 'takeLock') known.purpose = '';
	if (target.name === 'consolidateVerdicts') known.code = 'B';
	if (['activity', 'trail', 'releaseTrail'].includes(target.name)) delete known.kind;
	if (['activity', 'register', 'registerFigures', 'movePlanned'].includes(target.name)) delete known.to;
	if (target.name.startsWith('register')) {
		known.departments = [];
		delete known.group;
	}
	if (target.name === 'restorePlaces') known.places = [gone];
	if (target.name === 'changeDeliverables') delete known.number;
	if (target.name === 'movePlanned') known.by = 1;
	if (target.name === 'setForecast' || target.name === 'correctActual') known.day = null;
	if (!['liveAuthors', 'carryMarks', 'nameStandIn'].includes(target.name)) delete known.from;
	if (target.name === 'handOverLock') known.to = world.people.oke!.person.id;
	return Object.fromEntries(
		Object.keys(target.input.shape).flatMap((key) => (key in known ? [[key, known[key]]] : []))
	);
}

describe('what one may not look at does not exist (A10)', () => {
	it.each(ACTS.map((a) => [a.name, a] as const))('act %s', async (_, act) => {
		const result = await world.act('petra', act as never, pointing(act)).then(
			(answer) => ({ answer }),
			(error: { code?: string; sentence?: string; facts?: unknown }) => ({ error })
		);
		const { document: _d, q: _q, ...said } = JSON.parse(JSON.stringify(result));
		expect(JSON.stringify(said)).not.toContain(SECRET);
		if (['place', 'document'].includes(act.at.kind))
			expect(result, act.name).toMatchObject({ error: { code: 'not-found' } });
		if (act.at.kind === 'release') expect(result).toMatchObject({ error: { code: 'not-found' } });
	});

	it.each(VIEWS.map((v) => [v.name, v] as const))('view %s', async (_, view) => {
		const result = await world.read('petra', view as never, pointing(view)).then(
			(answer) => ({ answer }),
			(error: { code?: string; sentence?: string }) => ({ error })
		);
		expect(JSON.stringify(result)).not.toContain(SECRET);
		if (view.at.kind === 'place' || view.at.kind === 'release')
			expect(result).toMatchObject({ error: { code: 'not-found' } });
	});

	it('answers the same for what is hidden and what never was', async () => {
		const { documentView } = await import('../../src/lib/server/documents/views');
		const here = await refused(world.read('petra', documentView, { document: hidden }));
		const never = await refused(world.read('petra', documentView, { document: 'zzzzzzzzzz' }));
		expect({ ...here }).toEqual({ ...never });
	});

	it('asks the database as often for what is hidden as for what never was, so that the time tells nothing', async () => {
		const asked = vi.spyOn(world.services.database.client, 'unsafe');
		const questions = async (view: View, input: Record<string, unknown>) => {
			asked.mockClear();
			await refused(world.read('petra', view as never, input));
			return asked.mock.calls.map(([text]) => text);
		};
		const counted = VIEWS.filter((v) => v.at.kind === 'place' || v.at.kind === 'release');
		for (const view of counted as View[]) {
			const input = pointing(view);
			const never = Object.fromEntries(
				Object.entries(input).map(([key, value]) => [
					key,
					[hidden, gone, hiddenRelease].includes(value as string) ? 'zzzzzzzzzz' : value
				])
			);
			await questions(view, input);
			const there = await questions(view, input);
			expect(there.length, view.name).toBeGreaterThan(1);
			expect(there, view.name).toEqual(await questions(view, never));
		}
		asked.mockRestore();
	});

	it('nobody outside the project gets anything at all', async () => {
		world.people.stranger = { person: { id: 'zzzzzzzzzz', name: 'S', email: 's@x.example' }, via: 'session' };
		for (const target of [...ACTS, ...VIEWS]) {
			if (['self', 'open', 'pass', 'place-pass', 'any-pass', 'hatch'].includes(target.at.kind)) continue;
			const doing =
				'method' in target
					? world.act('stranger', target as never, pointing(target))
					: world.read('stranger', target as never, pointing(target));
			expect(await refused(doing), target.name).toMatchObject({ code: 'not-found' });
			const nobody =
				'method' in target
					? world.act(null, target as never, pointing(target))
					: world.read(null, target as never, pointing(target));
			expect(await refused(nobody), target.name).toMatchObject({ code: 'needs-sign-in' });
		}
	});

	it('shows it to those who may', async () => {
		expect((await world.read('rhosyn', find, { project: 'VFT', q: SECRET })).rows).toHaveLength(1);
		expect(JSON.stringify(await world.read('rhosyn', activity, { project: 'VFT' }))).toContain(SECRET);
	});
});

describe('levels', () => {
	it('View lets one look, and neither take nor work', async () => {
		const { addDocument, downloadDocument } = await import('../../src/lib/server/documents/acts');
		const { documentView } = await import('../../src/lib/server/documents/views');
		const made = await world.act('halla', addDocument, {
			folder: world.other,
			upload: await world.send('halla', 'ar'),
			number: 'VFT-AR-TB-00-DR-0001',
			title: 'Plan'
		});
		expect((await world.read('oke', documentView, { document: made.id })).levelLabel).toBe('View');
		expect(await refused(world.act('oke', takeLock, { document: made.id, purpose: '' }))).toMatchObject({
			code: 'needs-level',
			facts: { needed: 'work', held: 'view' }
		});
		expect(
			await refused(world.act('oke', downloadDocument, { document: made.id, label: 'P01.1' }))
		).toMatchObject({ code: 'needs-level' });
		await world.act('petra', downloadDocument, { document: made.id, label: 'P01.1' });
	});
});

describe('the trail', () => {
	it('cannot be changed or shortened in the database', async () => {
		for (const statement of [
			sql`update event set actor_name = 'x'`,
			sql`delete from event`,
			sql`truncate event`
		]) {
			await expect(world.db.execute(statement)).rejects.toMatchObject({
				cause: expect.objectContaining({ message: expect.stringContaining('append-only') })
			});
		}
	});

	it('is found out when somebody changes it all the same', async () => {
		expect((await world.verify()).fault).toBeNull();
		await world.services.database.client.unsafe(
			`alter table event disable trigger event_append_only; update event set details = '{"by":"nobody"}' where seq = 5; alter table event enable trigger event_append_only`
		);
		expect((await world.verify()).fault).toContain('Entry 5 was changed');
	});
});

describe('whatever is done to what is hidden', () => {
	it('stands in no event and no mail of those who may not look at it (A10)', async () => {
		const { mail } = await import('../../src/lib/server/platform/db/schema');
		const kinds = new Set<string>();
		for (const act of ACTS)
			for (const who of ['oke', 'ines'])
				await world.act(who, act as never, pointing(act)).then(
					() => act.events.forEach((kind) => kinds.add(kind)),
					() => {}
				);
		expect(kinds.size).toBeGreaterThan(20);
		for (const who of ['petra', 'edda']) {
			const { events } = await world.read(who, activity, { project: 'VFT', limit: 200 });
			expect(
				JSON.stringify(events.map(({ details: { note: _n, ...d }, ...e }) => ({ ...e, d })))
			).not.toContain(SECRET);
		}
		const petra = world.people.petra!.person;
		const reached = await world
			.read('petra', VIEWS.find((v) => v.name === 'documentRow') as never, { document: hidden })
			.then(
				() => true,
				() => false
			);
		const mails = (await world.db.select().from(mail)).filter((m) => m.toAddress === petra.email);
		if (!reached) expect(JSON.stringify(mails)).not.toContain(SECRET);
	});
});
