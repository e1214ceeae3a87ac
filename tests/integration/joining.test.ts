import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeDepartment, makeProject } from '../../src/lib/server/people/acts';
import { makeGroup } from '../../src/lib/server/people/acts-groups';
import { addPeople, addPerson, bringGroup } from '../../src/lib/server/people/acts-joining';
import { people } from '../../src/lib/server/people/views';
import { addressBook } from '../../src/lib/server/people/views-address-book';
import { refused, TestWorld } from './world';

let world: TestWorld;
let quay: string;
beforeAll(async () => {
	world = await TestWorld.open();
	({ id: quay } = await world.act('ines', makeProject, {
		code: 'QRW',
		name: 'Quay repair',
		client: 'Trust'
	}));
	await world.act('ines', makeDepartment, { project: 'QRW', code: 'MW', name: 'Marine works' });
});
afterAll(() => world.close());

const inside = async () => (await world.read('ines', people, { project: 'QRW' })).members;
const idOf = (who: string) => world.people[who]!.person.id;

describe('many join at once', () => {
	it('each with a department and a role of their own, and each gets a mail', async () => {
		const [department] = (await world.read('ines', people, { project: 'QRW' })).departments;
		await world.act('ines', addPeople, {
			project: 'QRW',
			people: [
				{ name: 'Ada Ferris', email: 'ada@vennholm.example', department: department!.id, lead: true },
				{ name: 'Bo Lunde', email: 'bo@vennholm.example', department: department!.id },
				{ name: 'Cai Moor', email: 'cai@vennholm.example', controller: true },
				{ name: 'Bodil Hollin', email: 'b.hollin@tarnsteel.example' }
			]
		});
		const rows = await inside();
		const of = (email: string) => rows.find((row) => row.email === email);
		expect(of('ada@vennholm.example')).toMatchObject({ departmentId: department!.id, lead: true });
		expect(of('bo@vennholm.example')).toMatchObject({ departmentId: department!.id, lead: false });
		expect(of('cai@vennholm.example')).toMatchObject({ departmentId: null, controller: true });
		expect(of('b.hollin@tarnsteel.example')).toMatchObject({ outside: true, controller: false });
		expect(await world.mailsTo('ada@vennholm.example')).toHaveLength(1);
	});

	it('all or none: the line that is wrong is named, and nobody of the others joined', async () => {
		const before = (await inside()).length;
		const answer = await refused(
			world.act('ines', addPeople, {
				project: 'QRW',
				people: [
					{ name: 'Dag Orre', email: 'dag@vennholm.example' },
					{ name: 'Ada Ferris', email: 'ada@vennholm.example' }
				]
			})
		);
		expect(answer).toMatchObject({ code: 'conflict', facts: { line: 2 } });
		expect(await inside()).toHaveLength(before);
		expect(await world.mailsTo('dag@vennholm.example')).toEqual([]);
	});

	it('is the controllers’ to do', async () => {
		expect(
			await refused(
				world.act('oke', addPeople, { project: 'VFT', people: [{ name: 'X', email: 'x@vennholm.example' }] })
			)
		).toMatchObject({ code: 'needs-level' });
	});
});

describe('the address book', () => {
	it('has whom one’s other projects worked with, each once, with company and projects', async () => {
		const { people: known } = await world.read('ines', addressBook, { project: 'QRW' });
		const emails = known.map((one) => one.email);
		expect(new Set(emails).size).toBe(emails.length);
		expect(known.find((one) => one.email === world.people.oke!.person.email)).toMatchObject({
			name: world.people.oke!.person.name,
			outside: false,
			projects: ['VFT']
		});
		// Whoever is here already is not to be brought.
		expect(emails).not.toContain('ada@vennholm.example');
		expect(emails).not.toContain(world.people.ines!.person.email);
	});

	it('tells nothing of a project that one does not control', async () => {
		await world.act('ines', addPerson, {
			project: 'QRW',
			name: world.people.oke!.person.name,
			email: world.people.oke!.person.email,
			controller: true
		});
		// Oke controls the quay repair and only works in the ferry terminal.
		expect(await world.read('oke', addressBook, { project: 'QRW' })).toEqual({ people: [], groups: [] });
		const { id: group } = await world.act('ines', makeGroup, {
			project: 'VFT',
			name: 'Design coordination',
			people: [idOf('oke'), idOf('rhosyn'), idOf('halla')]
		});
		expect(await refused(world.act('oke', bringGroup, { project: 'QRW', group }))).toMatchObject({
			code: 'not-found'
		});
		// Nor does a controller control where two-step sign-in is asked for and not set up.
		const asks = (yes: boolean) =>
			world.db
				.execute(sql`update project set settings = settings || ${JSON.stringify({ manageNeedsTwoStep: yes })}::jsonb
				where code = 'VFT'`);
		await asks(true);
		expect(await world.read('ines', addressBook, { project: 'QRW' })).toEqual({ people: [], groups: [] });
		await asks(false);
	});

	it('brings a group over: who is missing joins, and the group holds the same people, also twice', async () => {
		const { groups } = await world.read('ines', addressBook, { project: 'QRW' });
		const offered = groups.find((one) => one.name === 'Design coordination')!;
		expect(offered).toMatchObject({ project: 'VFT', company: false, people: 3, newHere: 2 });
		const first = await world.act('ines', bringGroup, { project: 'QRW', group: offered.id });
		expect(first.joined).toBe(2);
		const again = await world.act('ines', bringGroup, { project: 'QRW', group: offered.id });
		expect(again).toEqual({ group: first.group, joined: 0 });
		const here = (await world.read('ines', people, { project: 'QRW' })).groups.find(
			(g) => g.id === first.group
		);
		expect([...here!.people].sort()).toEqual([idOf('oke'), idOf('rhosyn'), idOf('halla')].sort());
		expect((await world.read('ines', addressBook, { project: 'QRW' })).groups).toMatchObject([
			{ newHere: 0 }
		]);
	});

	it('cannot bring what is of this project, or of none', async () => {
		const own = (await world.read('ines', people, { project: 'QRW' })).groups[0]!;
		for (const group of [own.id, quay])
			expect(await refused(world.act('ines', bringGroup, { project: 'QRW', group }))).toMatchObject({
				code: 'not-found'
			});
	});
});
