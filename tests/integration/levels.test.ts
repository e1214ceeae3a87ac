import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { MOST_NUMBERS } from '../../src/lib/contract/places';
import { bringIn, changeAccess, endAccess, letIn } from '../../src/lib/server/access/acts';
import { closePlace, tryAs } from '../../src/lib/server/access/acts-standing';
import { openDocument } from '../../src/lib/server/documents/acts';
import { makeFolder, moveFolder, renameFolder } from '../../src/lib/server/places/acts';
import { changeGroup, makeGroup } from '../../src/lib/server/people/acts-groups';
import { takeLock, takeLocks } from '../../src/lib/server/locks/acts';
import { setDepartments } from '../../src/lib/server/people/acts-membership';
import { changeName } from '../../src/lib/server/people/acts-account';
import { changeState } from '../../src/lib/server/documents/acts-revising';
import { removePlace } from '../../src/lib/server/removed/acts';
import { downloadMany } from '../../src/lib/server/places/acts-copies';
import { changeDocument, organiseDocuments } from '../../src/lib/server/places/acts-organise';
import { readView } from '../../src/lib/server/platform/runner/run';
import { event, mail } from '../../src/lib/server/platform/db/schema';
import { access, why } from '../../src/lib/server/access/views';
import { activity } from '../../src/lib/server/trail/views';
import { effectOfChange, effectOfEnding, effectOfGroup } from '../../src/lib/server/access/views-effects';
import { numbersInUse, proposals } from '../../src/lib/server/places/views';
import { people } from '../../src/lib/server/people/views';
import { folder } from '../../src/lib/server/places/views-tree';
import { refused, TestWorld } from './world';

let world: TestWorld;
let at = '';
let doc: { id: string; number: string };
let serial = 0;
const id = (who: string) => world.people[who]!.person.id;
const line = (who: string, level: string, more = {}) => ({
	subject: { kind: 'person', id: id(who) },
	level,
	...more
});
const give = (place: string, ...lines: object[]) => world.act('oke', letIn, { place, lines });
const grantOf = async (place: string, subject: string) =>
	(await world.read('oke', access, { place })).rows.find((r) => r.subject === subject && r.here)!;
const levelOf = (who: string, place: string) =>
	world.read(who, folder, { place }).then(
		(f) => f.level,
		() => null
	);
const events = async () => (await world.db.select().from(event)).length;

beforeAll(async () => {
	world = await TestWorld.open();
	const outside = { email: 'kaja@tarn.example', name: 'Kaja Tarn', company: 'Tarn Steelwork' };
	const made = await world.act('oke', makeFolder, { parent: world.shelf, name: 'For Tarn' });
	await give(made.id, { subject: outside, level: 'view' });
	const { members } = await world.read('ines', people, { project: 'VFT' });
	const kaja = members.find((m) => m.name === 'Kaja Tarn')!;
	world.people.kaja = { person: { id: kaja.id, name: kaja.name, email: outside.email }, via: 'session' };
});
afterAll(() => world.close());
beforeEach(async () => {
	at = (await world.act('oke', makeFolder, { parent: world.shelf, name: `Level ${++serial}` })).id;
	doc = await world.add('oke', undefined, at);
});

describe('a closed place (A3)', () => {
	it('gives nobody more, and why tells so', async () => {
		const inner = await world.act('oke', makeFolder, { parent: at, name: 'Inner' });
		// A lead of another department, barred above, with Manage for the leads further up.
		await world.act('ines', letIn, {
			place: world.shelf,
			lines: [{ subject: { kind: 'leads', id: world.departments.AR }, level: 'manage' }]
		});
		await give(at, line('halla', 'barred'));
		await world.act('oke', closePlace, { place: inner.id });
		expect(await levelOf('halla', inner.id)).toBeNull();
		const said = await world.read('oke', why, { place: inner.id, person: id('halla') });
		expect(said.level).toBeNull();
		expect(said.reasons[0]).toContain('is barred');
		await give(at, line('halla', 'view', { exactly: true }));
		expect(await levelOf('halla', inner.id)).toBe('view');
		const { rows } = await world.read('ines', access, { place: world.shelf });
		const leads = rows.find((r) => r.kind === 'leads' && r.subject === world.departments.AR)!;
		await world.act('ines', endAccess, { place: world.shelf, grant: leads.grant });
	});
});

describe('caps (A6) hold in every act', () => {
	it('what is archived is not locked, tagged, moved, renamed by acts on many or on one', async () => {
		await world.act('oke', changeState, { document: doc.id, state: 'archived', reason: 'done' });
		const many = { project: 'VFT', documents: [doc.id] };
		for (const doing of [
			() => world.act('ines', takeLocks, { ...many, purpose: '' }),
			() => world.act('ines', organiseDocuments, { ...many, tag: ['x'] }),
			() => world.act('ines', organiseDocuments, { ...many, to: world.folder }),
			() => world.act('ines', takeLock, { document: doc.id, purpose: '' }),
			() => world.act('ines', changeDocument, { document: doc.id, title: 'T' })
		])
			expect(await refused(doing())).toMatchObject({ code: 'needs-level' });
		// Taking stays possible, and so do deciding access, un-archiving and removing.
		await world.act('oke', downloadMany, many);
		await world.act('oke', letIn, { place: doc.id, lines: [line('petra', 'view')] });
		await world.act('oke', changeState, { document: doc.id, state: 'wip', reason: 'on again' });
		await world.act('oke', changeState, { document: doc.id, state: 'archived', reason: 'done' });
		await world.act('oke', removePlace, { place: doc.id, reason: 'old' });
	});

	it('what somebody has in hand is not changed by others, Manage included, in one or in many', async () => {
		await world.act('rhosyn', takeLock, { document: doc.id, purpose: 'mine' });
		const many = { project: 'VFT', documents: [doc.id] };
		for (const doing of [
			() => world.act('oke', changeDocument, { document: doc.id, title: 'T' }),
			() => world.act('oke', changeState, { document: doc.id, state: 'archived', reason: 'r' })
		])
			expect(await refused(doing())).toMatchObject({ code: 'in-hand', facts: { holder: 'Rhosyn Hale' } });
		for (const doing of [
			() => world.act('oke', organiseDocuments, { ...many, tag: ['x'] }),
			() => world.act('oke', organiseDocuments, { ...many, to: world.folder })
		])
			expect(await refused(doing())).toMatchObject({ code: 'needs-level' });
		const said = await world.read('oke', why, { place: doc.id, person: id('oke') });
		expect(said.caps).toEqual(['Capped at Remark while Rhosyn Hale has it in hand.']);
	});
});

describe('looking as somebody', () => {
	it('holds at each place the lower of both levels, and effects answer with that', async () => {
		await world.act('ines', setDepartments, {
			project: 'VFT',
			person: id('petra'),
			departments: [{ department: world.departments.AR, lead: true }]
		});
		await give(at, line('petra', 'view'), line('edda', 'manage'));
		const { grant } = await grantOf(at, id('edda'));
		await world.act('petra', tryAs, { project: 'VFT', person: id('edda') });
		const asEdda = { ...world.people.petra!, trying: { projectId: world.project, personId: id('edda') } };
		const through = (view: Parameters<typeof readView>[1], input: object) =>
			readView(world.services, view as never, asEdda, input);
		expect(await through(folder as never, { place: at })).toMatchObject({ level: 'view' });
		expect(
			await refused(through(effectOfChange as never, { place: at, grant, level: 'view' }))
		).toMatchObject({ code: 'needs-level' });
		expect(await refused(through(effectOfEnding as never, { place: at, grant }))).toMatchObject({
			code: 'needs-level'
		});
		await world.act('ines', setDepartments, {
			project: 'VFT',
			person: id('petra'),
			departments: [{ department: world.departments.AR, lead: false }]
		});
	});
});

describe('what others were brought in under (A8)', () => {
	let design = '';
	let grant = '';
	const petraLevel = () => levelOf('petra', at);
	beforeEach(async () => {
		design = (
			await world.act('ines', makeGroup, { project: 'VFT', name: `Design ${serial}`, people: [id('halla')] })
		).id;
		await give(at, {
			subject: { kind: 'group', id: design },
			level: 'work',
			bringCount: 3,
			bringLevel: 'remark'
		});
		grant = (await grantOf(at, design)).grant!;
		await world.act('halla', bringIn, {
			place: at,
			under: grant,
			who: { person: id('petra') },
			level: 'remark'
		});
		expect(await petraLevel()).toBe('remark');
	});

	it('ends theirs when it becomes a bar, counted before and told after', async () => {
		const told = await world.read('oke', effectOfChange, { place: at, grant, level: 'barred' });
		expect(told.lines.map((l) => l.name).sort()).toEqual(['Halla Brandt', 'Petra Quill']);
		await world.act('oke', changeAccess, { place: at, grant, level: 'barred' });
		expect(await petraLevel()).toBeNull();
		const kinds = (await world.read('oke', activity, { project: 'VFT', place: at })).events;
		expect(kinds.find((e) => e.kind === 'access.ended')).toMatchObject({
			details: { who: 'Petra Quill', broughtIn: true }
		});
	});

	it('sinks theirs with it', async () => {
		await world.act('oke', changeAccess, { place: at, grant, level: 'view' });
		expect(await petraLevel()).toBe('view');
	});

	it('ends theirs when the bringer leaves the group, as the preview says', async () => {
		const input = { project: 'VFT', group: design, people: [] };
		expect((await world.read('ines', effectOfGroup, input)).lines.map((l) => l.name).sort()).toEqual([
			'Halla Brandt',
			'Petra Quill'
		]);
		await world.act('ines', changeGroup, { ...input, name: `Design ${serial} b` });
		expect(await petraLevel()).toBeNull();
	});

	it('is not offered where it means nothing', async () => {
		const everyone = { subject: { kind: 'everyone', id: world.project }, level: 'view' };
		expect(await refused(give(at, { ...everyone, bringCount: 2, bringLevel: 'view' }))).toMatchObject({
			code: 'invalid'
		});
		expect(await refused(give(doc.id, line('petra', 'drop')))).toMatchObject({ code: 'invalid' });
		expect(await refused(give(at, line('ines', 'barred')))).toMatchObject({
			sentence: expect.stringContaining('Take away that role')
		});
	});
});

describe('a change says what it changes (PATCH)', () => {
	it('leaves alone what is not named, and writes nothing when nothing changes', async () => {
		await give(
			at,
			line('petra', 'work', { until: '2099-05-01', exactly: true, bringCount: 2, bringLevel: 'view' })
		);
		const before = await grantOf(at, id('petra'));
		await world.act('oke', changeAccess, { place: at, grant: before.grant, level: 'remark' });
		const { at: _then, ...now } = await grantOf(at, id('petra'));
		expect(now).toMatchObject({ level: 'remark', until: before.until, exactly: true, bringCount: 2 });
		const n = await events();
		expect(await world.act('oke', changeAccess, { place: at, grant: before.grant, level: 'remark' })).toEqual(
			{
				changed: false
			}
		);
		await world.act('oke', renameFolder, { folder: at, name: `Level ${serial}` });
		await world.act('oke', changeDocument, { document: doc.id, number: doc.number });
		expect(await events()).toBe(n);
	});

	it('refuses fields that it does not know, in acts and in views', async () => {
		const { grant } = await (await give(at, line('petra', 'view')), grantOf(at, id('petra')));
		for (const doing of [
			() => world.act('oke', changeAccess, { place: at, grant, levle: 'manage' }),
			() => world.act('oke', changeDocument, { document: doc.id, tittle: 'T' }),
			() => world.act('oke', changeName, { name: 'Oke Lindvar', admin: true }),
			() => world.act('oke', letIn, { place: at, lines: [{ ...line('petra', 'view'), exactyl: true }] }),
			() => world.read('oke', folder, { place: at, limit: 5 })
		])
			expect(await refused(doing())).toMatchObject({ code: 'invalid' });
	});
});

describe('nothing leaks (A10)', () => {
	it('names of hidden folders stand in no event of what was made or moved', async () => {
		const secret = await world.act('oke', makeFolder, { parent: at, name: 'Zirkon' });
		const made = await world.act('oke', makeFolder, { parent: secret.id, name: 'Open part' });
		const moved = await world.add('oke', undefined, at);
		await world.act('oke', organiseDocuments, { project: 'VFT', documents: [moved.id], to: made.id });
		await world.act('oke', moveFolder, { folder: made.id, to: at });
		await world.act('oke', moveFolder, { folder: made.id, to: secret.id });
		await give(made.id, line('petra', 'view'));
		const seen = JSON.stringify(await world.read('petra', activity, { project: 'VFT' }));
		expect(seen).toContain(moved.number);
		for (const hidden of ['Zirkon', secret.id, at]) expect(seen).not.toContain(hidden);
		expect(JSON.stringify(await world.read('oke', activity, { project: 'VFT' }))).toContain('Zirkon');
		// Nor can the id of a hidden folder be used to ask.
		expect((await world.read('petra', activity, { project: 'VFT', place: secret.id })).events).toEqual([]);
	});

	it('nor in the mail to somebody who may only put files in', async () => {
		await world.act('oke', renameFolder, { folder: at, name: 'Zinnober' });
		await give(at, { subject: { email: `drop${serial}@tarn.example`, name: 'Dropper' }, level: 'drop' });
		const mails = await world.db
			.select()
			.from(mail)
			.where(eq(mail.toAddress, `drop${serial}@tarn.example`));
		expect(mails.length).toBeGreaterThan(0);
		for (const one of mails) expect(one.subject + one.body).not.toContain('Zinnober');
		expect(mails.map((m) => m.body).join()).toContain(`/drop/${at}`);
	});

	it('a number that is taken is said to those who may add, and to nobody else', async () => {
		const input = { project: 'VFT', numbers: [doc.number] };
		expect((await world.read('petra', numbersInUse, input)).inUse).toMatchObject([{ document: null }]);
		expect((await world.read('kaja', numbersInUse, input)).inUse).toEqual([]);
	});

	it('people outside see the people they share a place with, and nobody’s departments or groups beside', async () => {
		await world.act('ines', makeGroup, {
			project: 'VFT',
			name: `Bergkristall ${serial}`,
			people: [id('halla')]
		});
		const seen = await world.read('kaja', people, { project: 'VFT' });
		expect(seen.members.map((m) => m.name)).toEqual(
			expect.arrayContaining(['Ines Maddock', 'Kaja Tarn', 'Oke Lindvar', 'Rhosyn Hale'])
		);
		expect(seen.members.map((m) => m.name)).not.toContain('Petra Quill');
		expect(JSON.stringify(seen)).not.toContain('Bergkristall');
		const { events: told } = await world.read('kaja', activity, { project: 'VFT' });
		expect(told.filter((e) => e.place === null)).toEqual([]);
	});

	it('lists in a query that are too long are wrong input', async () => {
		const numbers = Array.from({ length: MOST_NUMBERS + 1 }, () => 'A');
		expect(await refused(world.read('oke', numbersInUse, { project: 'VFT', numbers }))).toMatchObject({
			code: 'invalid'
		});
		expect(await refused(world.read('oke', proposals, { place: at, files: [1] }))).toMatchObject({
			code: 'invalid'
		});
	});
});

describe('opening', () => {
	it('while looking as somebody is told under one’s own name, and opens what they may open', async () => {
		await world.act('ines', tryAs, { project: 'VFT', person: id('rhosyn') });
		const ines = world.people.ines!;
		world.people.asRhosyn = { ...ines, trying: { projectId: world.project, personId: id('rhosyn') } };
		await world.act('asRhosyn', openDocument, { document: doc.id });
		const { events: told } = await world.read('ines', activity, {
			project: 'VFT',
			place: doc.id,
			kind: 'openings'
		});
		expect(told[0]).toMatchObject({
			kind: 'document.opened',
			actor: 'Ines Maddock',
			details: { as: 'Rhosyn Hale' }
		});
	});
});
