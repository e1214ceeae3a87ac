import { and, eq, like } from 'drizzle-orm';
import { bringIn, changeAccess, letIn } from '../../src/lib/server/access/acts';
import { closePlace, freezePlace, markSensitive } from '../../src/lib/server/access/acts-standing';
import { makeGroup } from '../../src/lib/server/people/acts-groups';
import { makeHatch, putThroughHatch, refuseArrival } from '../../src/lib/server/hatches/acts';
import { openPass, takeFromPlacePass } from '../../src/lib/server/passes/acts-open';
import { makePass } from '../../src/lib/server/passes/acts';
import { acceptInvitation } from '../../src/lib/server/people/acts-account';
import { checkOne } from '../../src/lib/server/hatches/check';
import { receive } from '../../src/lib/server/content/content';
import { arrival, grant, group, hatch, mail, place } from '../../src/lib/server/platform/db/schema';
import { drawing } from './drawings';
import { pdfSheet, xlsx } from './papers';
import { DAY } from '../../src/lib/core/time/spans';
import { dayIn } from './days';
import { HOUR, type Stage } from './stage';
import { PASSWORD } from './founding';

type Step = (daysAgo: number, hour: number, run: () => Promise<void>) => void;

async function folderCalled(stage: Stage, name: string): Promise<string> {
	const [row] = await stage.services.database.db
		.select({ id: place.id })
		.from(place)
		.where(eq(place.name, name));
	if (!row) throw new Error(`The world has no folder ${name}`);
	return row.id;
}

const someDay = (stage: Stage, ahead: number) => dayIn(stage.end + ahead * DAY);

/** Who is let in beyond the shelves, what is closed and frozen, which passes and hatches are open. */
export function planAccess(stage: Stage, step: Step): void {
	const person = (name: string) => stage.people.get(name)!.person.id;
	step(55, 9, async () => {
		await stage.act('Ines Maddock', makeGroup, {
			project: stage.project,
			name: 'Design coordination',
			people: ['Halla Brandt', 'Tomas Verrin', 'Oke Lindvar', 'Dario Fenn', 'Wren Ostrow'].map(person)
		});
	});
	step(54, 10, async () => {
		const { db } = stage.services.database;
		const [design] = await db
			.select({ id: group.id })
			.from(group)
			.where(eq(group.name, 'Design coordination'));
		const [meetings] = await db.select({ id: place.id }).from(place).where(eq(place.name, 'Planning'));
		await stage.act('Wren Ostrow', letIn, {
			place: meetings!.id,
			lines: [{ subject: { kind: 'group', id: design!.id }, level: 'remark' }],
			note: 'For the weekly coordination.'
		});
	});
	step(20, 11, async () => {
		const linkspan = await folderCalled(stage, 'Linkspan');
		await stage.act('Ines Maddock', letIn, {
			place: linkspan,
			lines: [
				{
					subject: { email: 'k.dorn@tarnsteel.example', name: 'Kaja Dorn', company: 'Tarn Steelwork' },
					level: 'download',
					until: someDay(stage, 38)
				},
				{ subject: { kind: 'person', id: person('Aino Weir') }, level: 'remark' }
			],
			note: 'For the shop drawings of the towers.'
		});
		const { db } = stage.services.database;
		const [invited] = await db
			.select({ body: mail.body })
			.from(mail)
			.where(and(eq(mail.toAddress, 'k.dorn@tarnsteel.example'), like(mail.body, '%/invited/%')));
		await stage.act(null, acceptInvitation, {
			secret: /invited\/(\S+)/.exec(invited!.body)![1]!,
			password: PASSWORD
		});
		await stage.know('Kaja Dorn');
		const [entry] = await db
			.select()
			.from(grant)
			.where(eq(grant.subjectId, person('Kaja Dorn')));
		await stage.act('Ines Maddock', changeAccess, {
			place: linkspan,
			grant: entry!.id,
			level: 'download',
			until: someDay(stage, 38),
			bringCount: 3,
			bringLevel: 'view'
		});
		await stage.act('Kaja Dorn', bringIn, {
			place: linkspan,
			under: entry!.id,
			who: { email: 'b.hollin@tarnsteel.example', name: 'Bo Hollin' },
			level: 'view'
		});
	});
	step(18, 9.5, async () => {
		const supplier = await folderCalled(stage, 'Supplier papers');
		await stage.act('Oke Lindvar', closePlace, { place: supplier });
		await stage.act('Oke Lindvar', letIn, {
			place: supplier,
			lines: [{ subject: { kind: 'person', id: person('Rhosyn Hale') }, level: 'work' }]
		});
		await stage.act('Oke Lindvar', markSensitive, { place: supplier, sensitive: true });
		stage.onlyIn.set(supplier, ['Oke Lindvar', 'Rhosyn Hale']);
	});
	step(11, 14, async () => {
		const roof = stage.by('VFT-ST-TB-RF-DR-0201');
		await stage.act('Tomas Verrin', letIn, {
			place: roof.folder,
			lines: [
				{ subject: { kind: 'person', id: person('Oke Lindvar') }, level: 'download' },
				{ subject: { kind: 'person', id: person('Rhosyn Hale') }, level: 'view' },
				{ subject: { kind: 'person', id: person('Maj Torvane') }, level: 'remark' }
			],
			note: 'The crane runs under this roof.'
		});
	});
	step(7, 8.5, async () => {
		const dredging = await folderCalled(stage, 'Dredging');
		await stage.act('Oke Lindvar', freezePlace, {
			place: dredging,
			reason: 'The survey is with the harbour master'
		});
		stage.onlyIn.set(dredging, ['Oke Lindvar']);
	});
	step(10, 15, () => passes(stage));
	step(5, 10, () => hatchWithFiles(stage));
}

async function passes(stage: Stage): Promise<void> {
	const quay = await folderCalled(stage, 'Quay wall');
	const open = await stage.act('Oke Lindvar', makePass, {
		place: quay,
		for: 'Harbour pilot Ansa Reyl',
		audience: 'anyone',
		password: 'slack water 0540',
		until: someDay(stage, 20),
		mayDownload: true,
		stamped: true
	});
	const secret = open.link.split('/pass/')[1]!;
	const { proof } = await stage.act(
		null,
		openPass,
		{ secret, password: 'slack water 0540' },
		stage.clock + 2 * HOUR
	);
	const [first] = stage.docs.filter((d) => d.folder === quay && d.id);
	if (proof && first)
		await stage.act(
			null,
			takeFromPlacePass,
			{ secret, document: first.id, how: 'opened' },
			stage.clock + HOUR,
			[proof]
		);
	await stage.act('Halla Brandt', makePass, {
		place: stage.by('VFT-AR-TB-00-DR-0101').id,
		for: 'Vennholm town council',
		audience: 'anyone',
		until: someDay(stage, 60),
		embeddable: true
	});
	await stage.act('Ines Maddock', makePass, {
		place: stage.by('VFT-MW-LS-00-DR-0102').id,
		for: 'Maren Aldgate',
		audience: 'named',
		emails: ['maren@harbourtrust.example'],
		until: someDay(stage, 9),
		maxUses: 5
	});
}

async function hatchWithFiles(stage: Stage): Promise<void> {
	const { services } = stage;
	const supplier = await folderCalled(stage, 'Supplier papers');
	const open = await stage.act('Ines Maddock', makeHatch, {
		place: supplier,
		title: 'Shop drawings of the lifting towers',
		until: someDay(stage, 25),
		maxFiles: 60,
		endings: ['pdf', 'dxf', 'xlsx', 'zip', 'txt'],
		tell: { name: 'Kaja Dorn', email: 'k.dorn@tarnsteel.example' }
	});
	const secret = open.link.split('/hatch/')[1]!;
	const [row] = await services.database.db.select().from(hatch).where(eq(hatch.id, open.id));
	const send = async (name: string, bytes: Uint8Array) => {
		const one = (async function* () {
			yield bytes;
		})();
		return (await receive(services, { hatchId: row!.id }, name, one, 1e9, new Date(stage.clock))).upload;
	};
	const when = new Date(stage.clock);
	const uploads: string[] = [];
	for (const [i, title] of ['Tower T1 shop drawing', 'Tower T2 shop drawing'].entries()) {
		const number = `TS-${2_201 + i}`;
		const dxf = drawing(
			'tower',
			{ seed: number, edit: 1 },
			{ number, title, revision: 'A', date: dayIn(when), drawn: 'K Dorn', department: 'Tarn Steelwork' }
		);
		uploads.push(await send(`${number} ${title}.pdf`, await pdfSheet(dxf, title, when)));
	}
	uploads.push(await send('TS-2203 Bolt list.xlsx', await xlsx('TS-2203', 'Bolt list', 'A', 1)));
	uploads.push(await send('readme.txt', new TextEncoder().encode('Drawings as agreed on the phone.\n')));
	await stage.act(
		null,
		putThroughHatch,
		{
			secret,
			sender: 'Kaja Dorn, Tarn Steelwork',
			email: 'k.dorn@tarnsteel.example',
			note: 'First set, more on Friday.',
			uploads
		},
		stage.clock + 3 * HOUR
	);
	const came = await services.database.db.select().from(arrival).where(eq(arrival.hatchId, row!.id));
	for (const one of came) await checkOne(services, one.id, new Date(stage.clock + 60_000));
	const note = came.find((a) => a.fileName === 'readme.txt')!;
	await stage.act(
		'Ines Maddock',
		refuseArrival,
		{ place: supplier, arrival: note.id, reason: 'Please put such notes into the message.' },
		stage.clock + 2 * HOUR
	);
}
