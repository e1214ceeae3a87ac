import { PDFDocument } from '@cantoo/pdf-lib';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MEDIA_TYPE } from '../../src/lib/core/files/media';
import { oneStep } from '../../src/lib/core/releases/route';
import { addDocument } from '../../src/lib/server/documents/acts';
import { letIn } from '../../src/lib/server/access/acts';
import { event } from '../../src/lib/server/platform/db/schema';
import { people } from '../../src/lib/server/people/views';
import { makeFolder } from '../../src/lib/server/places/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { askApproval, openFromRelease } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { remarkInRelease } from '../../src/lib/server/releases/acts-remark';
import { releaseContent, releaseView } from '../../src/lib/server/releases/views';
import { releaseAnswers } from '../../src/lib/server/releases/views-answers';
import { remarks } from '../../src/lib/server/remarks/views';
import { settleRemark } from '../../src/lib/server/remarks/acts';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const idOf = (who: string) => world.people[who]!.person.id;
let serial = 8_000;
async function sheet() {
	const number = `VFT-MW-LS-00-DR-${++serial}`;
	const file = await PDFDocument.create();
	file.addPage([842, 595]);
	const upload = await world.send('oke', await file.save(), `${number}.pdf`);
	const { id } = await world.act('oke', addDocument, {
		folder: world.folder,
		upload,
		number,
		title: 'Sheet'
	});
	return { id, number };
}
async function asked(documents: string[], approver = 'petra') {
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(idOf(approver)),
		documents
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	return made;
}
const look = (who: string, release: string, document: string) =>
	world.read(who, releaseContent, { release, document });
const say = (who: string, release: string, document: string, more: object = {}) =>
	world.act(who, remarkInRelease, { release, document, text: 'The bearing is not said.', ...more });

describe('who decides on a release', () => {
	it('remarks on a document from within it, at its place, also where they may not look at it', async () => {
		const [about, other] = [await sheet(), await sheet()];
		const made = await asked([about.id]);
		expect(await refused(world.read('petra', documentView, { document: about.id }))).toMatchObject({
			code: 'not-found'
		});
		const place = { page: 1, x: 120, y: 80.5 };
		const first = await say('petra', made.id, about.id, { at: place });
		await say('petra', made.id, about.id, { text: 'And the scale.' });
		const seen = await look('petra', made.id, about.id);
		expect(seen).toMatchObject({ mediaType: MEDIA_TYPE.pdf, mayView: false });
		expect(seen.remarks).toMatchObject([
			{ number: 1, by: world.people.petra!.person.name, place, settled: false },
			{ number: 2, text: 'And the scale.', place: null, settled: false }
		]);
		// Its department has it at the document, where it stands; the release is told that it is open.
		const { remarks: rows } = await world.read('oke', remarks, { document: about.id });
		expect(rows[0]).toMatchObject({ id: first.id, anchor: { on: 'place', ...place }, label: 'P01.1' });
		const { items } = await world.read('ines', releaseView, { project: 'VFT', number: made.number });
		expect(items[0]!.checks.find((one) => one.name === 'settled')).toMatchObject({
			result: 'look',
			remedy: 'settle-remarks'
		});
		await world.act('oke', settleRemark, { document: about.id, remark: 1, note: 'Said in note 4.' });
		expect((await look('petra', made.id, about.id)).remarks[0]!.settled).toBe(true);
		// Neither of another document, nor by somebody whom the route does not name.
		expect(await refused(say('petra', made.id, other.id))).toMatchObject({ code: 'not-found' });
		expect(await refused(say('rhosyn', made.id, about.id))).toMatchObject({ code: 'not-found' });
	});

	it('places it on sheets only, and says nothing any more once it is out', async () => {
		const text = await world.add();
		const made = await asked([text.id]);
		const place = { page: 1, x: 1, y: 1 };
		expect(await refused(say('petra', made.id, text.id, { at: place }))).toMatchObject({
			code: 'invalid',
			facts: { field: 'at' }
		});
		const { number } = await say('petra', made.id, text.id);
		await world.act('oke', settleRemark, { document: text.id, remark: number });
		await world.approve('petra', made);
		await world.act('ines', issueRelease, { release: made.id, number: made.number });
		expect(await refused(say('petra', made.id, text.id))).toMatchObject({ code: 'conflict' });
		// What was said inside is none of the client's answers.
		expect(JSON.stringify(await world.read('ines', releaseAnswers, { release: made.id }))).not.toContain(
			'bearing'
		);
	});

	it('compares it with the issued revision that it takes the place of, and is on record with both', async () => {
		const about = await world.add('oke', 'the first words');
		const first = await asked([about.id]);
		const before = (release: string, who = 'petra') =>
			world.read(who, releaseContent, { release, document: about.id, before: true });
		expect((await look('petra', first.id, about.id)).before).toBeNull();
		expect(await refused(before(first.id))).toMatchObject({ code: 'not-found' });
		await world.approve('petra', first);
		await world.act('ines', issueRelease, { release: first.id, number: first.number });
		await world.revise(about.id, 'oke', 'other words');
		const second = await asked([about.id]);
		const seen = await look('petra', second.id, about.id);
		expect(seen.before).toMatchObject({ label: 'P01', same: false });
		const earlier = await before(second.id);
		expect(earlier.label).toBe('P01');
		expect(earlier.hash).not.toBe(seen.hash);
		const view = () => world.read('petra', releaseView, { project: 'VFT', number: second.number });
		expect((await view()).items[0]).toMatchObject({ compares: 'P01', looked: false });
		// Looking at the old one is not having looked at what is decided on.
		const open = (more: object) =>
			world.act('petra', openFromRelease, { release: second.id, document: about.id, ...more });
		await open({ before: true });
		expect((await view()).items[0]!.looked).toBe(false);
		await open({});
		expect((await view()).items[0]!.looked).toBe(true);
		const told = await world.services.database.db
			.select({ details: event.details })
			.from(event)
			.where(and(eq(event.kind, 'document.opened'), eq(event.releaseId, second.id)));
		expect(told.map(({ details }) => details)).toMatchObject([
			{ label: 'P01', hash: earlier.hash },
			{ label: 'P02.1', hash: seen.hash }
		]);
		expect(await refused(before(second.id, 'rhosyn'))).toMatchObject({ code: 'not-found' });
	});

	it('is somebody outside: compares only where the earlier revision is theirs to look at', async () => {
		const outside = { email: 'kaja@tarn.example', name: 'Kaja Tarn', company: 'Tarn Steelwork' };
		const { id: place } = await world.act('oke', makeFolder, { parent: world.shelf, name: 'For Tarn' });
		await world.act('oke', letIn, { place, lines: [{ subject: outside, level: 'view' }] });
		const { members } = await world.read('ines', people, { project: 'VFT' });
		const { id, name } = members.find((one) => one.name === outside.name)!;
		world.people.kaja = { person: { id, name, email: outside.email }, via: 'session' };
		const about = await world.add('oke', 'the first words');
		const first = await asked([about.id]);
		await world.approve('petra', first);
		await world.act('ines', issueRelease, { release: first.id, number: first.number });
		await world.revise(about.id, 'oke', 'other words');
		const second = await asked([about.id], 'kaja');
		const compares = () => look('kaja', second.id, about.id).then((seen) => seen.before?.label ?? null);
		expect(await compares()).toBeNull();
		const input = { release: second.id, document: about.id, before: true };
		expect(await refused(world.read('kaja', releaseContent, input))).toMatchObject({ code: 'not-found' });
		expect(await refused(world.act('kaja', openFromRelease, input))).toMatchObject({ code: 'not-found' });
		const subject = { kind: 'person', id: idOf('kaja') } as const;
		await world.act('oke', letIn, { place: about.id, lines: [{ subject, level: 'view' }] });
		expect(await compares()).toBe('P01');
	});
});
