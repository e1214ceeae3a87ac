import { oneStep } from '../../src/lib/core/releases/route';
import { eq, sql } from 'drizzle-orm';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDocument } from '../../src/lib/server/documents/acts';
import { signVerdicts } from '../../src/lib/server/passes/acts-release';
import { setDepartments } from '../../src/lib/server/people/acts-membership';
import { addRemark } from '../../src/lib/server/remarks/acts';
import { approveRelease, askApproval } from '../../src/lib/server/releases/acts-approval';
import { acceptChecks, addToRelease, cancelRelease, changeRelease } from '../../src/lib/server/releases/acts';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { issueRevision } from '../../src/lib/server/documents/acts-revising';
import { sendPassCode } from '../../src/lib/server/passes/acts-open';
import { makePass } from '../../src/lib/server/passes/acts';
import { addRecipient } from '../../src/lib/server/people/acts';
import { addPerson } from '../../src/lib/server/people/acts-joining';
import { event, mail, notice, release } from '../../src/lib/server/platform/db/schema';
import { documentView } from '../../src/lib/server/documents/views';
import { outbox } from '../../src/lib/server/people/views';
import { releaseView } from '../../src/lib/server/releases/views';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { remarks } from '../../src/lib/server/remarks/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
const id = (who: string) => world.people[who]!.person.id;
const see = (number: number, who = 'ines') => world.read(who, releaseView, { project: 'VFT', number });
const build = (documents: string[], more: object = {}, who = 'ines') =>
	world.act(who, buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(id('halla')),
		documents,
		...more
	});
const ask = (made: { id: string }, who = 'ines') => world.act(who, askApproval, { release: made.id });
const checkOf = async (made: { number: number }, name: string, at = 0) =>
	(await see(made.number)).items[at]!.checks.find((c) => c.name === name)!;

let serial = 5_000;
async function addFile(bytes: Uint8Array | string, name: string) {
	const number = `VFT-MW-LS-00-DR-${++serial}`;
	const upload = await world.send('oke', bytes, name);
	const { id } = await world.act('oke', addDocument, {
		folder: world.folder,
		upload,
		number,
		title: 'Sheet'
	});
	return { id, number };
}
async function pdf(...words: [string, number, number][]): Promise<Uint8Array> {
	const file = await PDFDocument.create();
	const font = await file.embedFont(StandardFonts.Helvetica);
	const page = file.addPage([842, 595]);
	for (const [text, x, y] of words) page.drawText(text, { x, y, font, size: 9 });
	return file.save();
}

beforeAll(async () => {
	world = await TestWorld.open();
	await world.act('ines', setDepartments, {
		project: 'VFT',
		person: id('edda'),
		departments: [],
		controller: true
	});
});
afterAll(() => world.close());

describe('where the project lets one alone do it (T3)', () => {
	const allow = (approveOwn: boolean, more: object = {}) =>
		world.act('ines', changeSettings, { project: 'VFT', approveOwn, ...more });

	it('whoever built, changed and asked for a release approves it, and no more once that is taken back', async () => {
		const doc = await world.add();
		expect((await allow(true, { trial: true })).effects[0]).toMatch(/One person alone/);
		expect(await refused(build([doc.id], { route: oneStep(id('ines')) }))).toMatchObject({ code: 'invalid' });
		await allow(true);
		const made = await build([], { route: oneStep(id('ines')) });
		await world.act('ines', addToRelease, { release: made.id, documents: [doc.id] });
		await world.act('ines', changeRelease, { release: made.id, title: 'By one alone' });
		await world.acceptAll(made);
		await ask(made);
		expect((await see(made.number)).can.approveRelease.may).toBe(true);
		await allow(false);
		expect((await see(made.number)).can.approveRelease.may).toBe(false);
		await allow(true);
		await world.approve('ines', made);
		await world.act('ines', issueRelease, { release: made.id, number: made.number });
		// The trail says who did what all the same.
		const told = await world.db.select().from(event).where(eq(event.releaseId, made.id));
		for (const kind of ['release.built', 'release.asked', 'release.approved', 'release.issued'])
			expect(told.find((one) => one.kind === kind)?.actor, kind).toBe(id('ines'));
		await allow(false);
	});
});

describe('four eyes (T3)', () => {
	it('nobody decides on a release that they began, changed or asked for, by whatever order of acts', async () => {
		const doc = await world.add();
		// Begun by one controller, filled and asked by another who is named as approver: refused at every step.
		const made = await build([], { route: oneStep(id('edda')) });
		const add = { release: made.id, documents: [doc.id] };
		expect(await refused(world.act('edda', addToRelease, add))).toMatchObject({ code: 'conflict' });
		await world.act('ines', addToRelease, add);
		expect(await refused(ask(made, 'edda'))).toMatchObject({ code: 'conflict' });
		// A second controller cannot name themselves, nor somebody who had a hand in it before.
		expect(
			await refused(
				world.act('edda', changeRelease, { release: made.id, route: oneStep(id('edda')), title: 'Mine' })
			)
		).toMatchObject({ code: 'invalid' });
		await world.act('edda', changeRelease, {
			release: made.id,
			route: oneStep(id('halla')),
			title: 'Changed by Edda'
		});
		for (const approver of ['edda', 'ines'])
			expect(
				await refused(world.act('ines', changeRelease, { release: made.id, route: oneStep(id(approver)) }))
			).toMatchObject({ code: 'invalid' });
		await ask(made);
		await world.approve('halla', made);
	});

	it('a change of who decides is an event, and asks again', async () => {
		const made = await build([(await world.add()).id]);
		await ask(made);
		await world.approve('halla', made);
		await world.act('ines', changeRelease, { release: made.id, route: oneStep(id('oke')) });
		expect(await see(made.number)).toMatchObject({
			release: { state: 'building' },
			route: [{ of: [{ name: 'Oke Lindvar' }], given: [] }]
		});
		const [told] = await world.db
			.select()
			.from(event)
			.where(sql`release_id = ${made.id} and kind = 'release.changed'`);
		expect(told!.details).toMatchObject({
			route: 'Approval: Oke Lindvar',
			routeBefore: 'Approval: Halla Brandt'
		});
	});

	it('an approval holds for the build that was looked at, and for no other', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await build([a.id]);
		await ask(made);
		const seen = await see(made.number, 'halla');
		await world.act('ines', addToRelease, { release: made.id, documents: [b.id] });
		await ask(made);
		const said = await refused(world.act('halla', approveRelease, { release: made.id, digest: seen.digest }));
		expect(said).toMatchObject({ code: 'conflict', facts: { build: { items: [{}, { number: b.number }] } } });
		expect((await see(made.number)).release.state).toBe('in-review');
		await world.approve('halla', made);
		// What was approved is what is issued, or nothing.
		await world.db.update(release).set({ title: 'Slipped in' }).where(eq(release.id, made.id));
		expect(
			await refused(world.act('ines', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({ sentence: expect.stringContaining('not what was approved') });
	});

	it('secrets in the outbox are their addressee’s alone', async () => {
		await world.act('ines', addPerson, { project: 'VFT', name: 'New', email: 'new@vennholm.example' });
		const { link } = await world.act('oke', makePass, {
			place: world.folder,
			for: 'Ansa',
			emails: ['ansa@harbourtrust.example'],
			until: `${new Date().getFullYear() + 1}-06-01`
		});
		const secret = link.split('/pass/')[1]!;
		await world.act(null, sendPassCode, { secret, email: 'ansa@harbourtrust.example' });
		const sent = await world.db.select().from(mail);
		const code = /\b\d{6}\b/.exec(sent.find((m) => m.subject.includes('code'))!.body)![0];
		const invited = /\/invited\/(\S+)/.exec(
			sent.find((m) => m.toAddress === 'new@vennholm.example')!.body
		)![1]!;
		const shown = JSON.stringify(await world.read('ines', outbox, { project: 'VFT' }));
		for (const hidden of [secret, code, invited]) expect(shown).not.toContain(hidden);
		expect(shown).toContain('only in the mail itself');
	});
});

describe('checks (T2)', () => {
	it('read the title block of PDF sheets where it stands, and stop another number', async () => {
		const own = await addFile('x', 'a.txt');
		const right = `VFT-MW-LS-00-DR-${serial + 1}`;
		const good = await addFile(
			await pdf([right, 600, 30], ['P01', 760, 30], [own.number, 40, 500]),
			'good.pdf'
		);
		const wrong = await addFile(await pdf(['VFT-MW-LS-00-DR-0001', 600, 30], ['P07', 760, 30]), 'wrong.pdf');
		const stale = await addFile(
			await pdf([`VFT-MW-LS-00-DR-${serial + 1}`, 600, 30], ['P07', 760, 30]),
			'stale.pdf'
		);
		const made = await build([good.id, wrong.id, stale.id]);
		const { items } = await see(made.number);
		const of = (number: string) =>
			items.find((i) => i.number === number)!.checks.find((c) => c.name === 'title-block');
		expect(of(good.number)).toMatchObject({ result: 'fine' });
		expect(of(wrong.number)).toMatchObject({ result: 'stops', sentence: expect.stringContaining('DR-0001') });
		expect(of(stale.number)).toMatchObject({ result: 'look', sentence: expect.stringContaining('P07') });
	});

	it('find the same file under two numbers, a revision issued before, and one outside what the purpose demands', async () => {
		const bytes = 'the same words';
		const [a, b] = [await addFile(bytes, 'a.txt'), await addFile(bytes, 'b.txt')];
		const made = await build([a.id]);
		expect(await checkOf(made, 'same-bytes')).toMatchObject({
			result: 'look',
			sentence: expect.stringContaining(b.number)
		});
		const doc = await world.add();
		await world.act('oke', issueRevision, { document: doc.id, purpose: 'comment', note: 'r' });
		const second = await build([doc.id]);
		expect(await checkOf(second, 'issued-before')).toMatchObject({
			result: 'look',
			sentence: expect.stringContaining('P01 is issued already')
		});
		await world.db.execute(sql`update version set label = 'C01.1' where document_id = ${a.id}`);
		expect(await checkOf(made, 'revision')).toMatchObject({ result: 'look' });
		await world.db.execute(sql`update version set label = 'X9' where document_id = ${a.id}`);
		expect(await checkOf(made, 'revision')).toMatchObject({ result: 'stops' });
		await world.db.execute(sql`update version set label = 'P01.1' where document_id = ${a.id}`);
	});

	it('ask for a reason, which stands in the cover note’s list and asks again when the check says something else', async () => {
		const doc = await world.add();
		const made = await build([doc.id]);
		await world.act('oke', addRemark, { document: doc.id, anchor: { on: 'whole' }, text: 'one' });
		expect(await refused(ask(made))).toMatchObject({ sentence: expect.stringContaining('to look at') });
		const accept = () =>
			world.act('ines', acceptChecks, {
				release: made.id,
				checks: [{ document: doc.id, check: 'settled' }],
				reason: 'The client knows of it.'
			});
		expect(
			await refused(
				world.act('ines', acceptChecks, {
					release: made.id,
					checks: [{ document: doc.id, check: 'settled' }],
					reason: ''
				})
			)
		).toMatchObject({ code: 'invalid' });
		await accept();
		await world.act('oke', addRemark, { document: doc.id, anchor: { on: 'whole' }, text: 'two' });
		expect(await refused(ask(made))).toMatchObject({ code: 'conflict' });
		await accept();
		await ask(made);
		await world.approve('halla', made);
		await world.act('ines', issueRelease, { release: made.id, number: made.number });
		const [row] = await world.db.select().from(release).where(eq(release.id, made.id));
		expect(row!.manifest!.documents[0]!.accepted).toEqual([
			{
				check: 'settled',
				sentence: '2 remarks on it are open.',
				reason: 'The client knows of it.',
				by: 'Ines Maddock'
			}
		]);
	});
});

describe('a release while it is built', () => {
	it('can be corrected in every field, and a change that changes nothing asks nobody again', async () => {
		const made = await build([(await world.add()).id]);
		const { id: other } = await world.act('ines', addRecipient, {
			project: 'VFT',
			name: 'Kaja',
			company: 'Tarn',
			email: 'kaja@tarn.example'
		});
		await world.act('ines', changeRelease, {
			release: made.id,
			title: 'Corrected',
			purpose: 'comment',
			recipients: [{ recipient: other }],
			replyBy: '2099-01-01'
		});
		expect(await see(made.number)).toMatchObject({
			release: { title: 'Corrected', purpose: 'comment', replyBy: '2099-01-01' },
			recipients: [{ name: 'Kaja' }]
		});
		await ask(made);
		await world.act('ines', changeRelease, { release: made.id, title: 'Corrected' });
		expect((await see(made.number)).release.state).toBe('in-review');
	});

	it('can be cancelled with a reason, and its number is never used again', async () => {
		const made = await build([(await world.add()).id]);
		await ask(made);
		await world.act('ines', cancelRelease, { release: made.id, reason: 'Sent by another way' });
		expect((await see(made.number)).release).toMatchObject({
			state: 'cancelled',
			cancelledReason: 'Sent by another way'
		});
		for (const doing of [
			() => ask(made),
			() => world.act('ines', addToRelease, { release: made.id, documents: [] }),
			() => world.act('ines', issueRelease, { release: made.id, number: made.number })
		])
			expect(['conflict', 'invalid']).toContain((await refused(doing())).code);
		expect((await build([])).number).toBe(made.number + 1);
	});

	it('is issued by its number typed, and by no other', async () => {
		const made = await build([(await world.add()).id]);
		await ask(made);
		await world.approve('halla', made);
		for (const number of [made.number + 1, undefined])
			expect(await refused(world.act('ines', issueRelease, { release: made.id, number }))).toMatchObject({
				code: 'invalid'
			});
		expect((await see(made.number)).release.state).toBe('approved');
	});

	it('is the only way to a revision whose purpose needs one', async () => {
		const doc = await world.add();
		expect(
			await refused(world.act('oke', issueRevision, { document: doc.id, purpose: 'construction', note: 'r' }))
		).toMatchObject({ sentence: expect.stringContaining('needs a release') });
		await world.act('oke', issueRevision, { document: doc.id, purpose: 'information', note: 'r' });
	});
});

describe('a verdict C or D (T8)', () => {
	it('brings the document back to its department, with what the client said as a remark and the leads told', async () => {
		const doc = await world.add();
		const made = await build([doc.id]);
		await ask(made);
		await world.approve('halla', made);
		const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
		await world.act(null, signVerdicts, {
			secret: passes[0]!.link.split('/pass/')[1]!,
			name: 'Maren Aldgate',
			answers: [{ document: doc.id, code: 'C', remark: 'The ladder lacks a cage' }]
		});
		const view = await world.read('oke', documentView, { document: doc.id });
		expect(view.row.state).toBe('wip');
		const { remarks: rows } = await world.read('oke', remarks, { document: doc.id });
		expect(rows).toMatchObject([
			{
				by: 'Maren Aldgate, Vennholm Harbour Trust',
				from: 'client',
				text: expect.stringContaining('The ladder lacks a cage'),
				assigned: { kind: 'department', name: 'Marine works' },
				due: expect.any(String)
			}
		]);
		const told = await world.db
			.select()
			.from(notice)
			.where(eq(notice.personId, id('oke')));
		expect(told.map((n) => n.sentence).join()).toContain('The ladder lacks a cage');
	});
});
