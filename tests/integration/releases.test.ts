import { oneStep } from '../../src/lib/core/releases/route';
import { openPass } from '../../src/lib/server/passes/acts-open';
import { createPublicKey, verify } from 'node:crypto';
import canonicalize from 'canonicalize';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { takeLock } from '../../src/lib/server/locks/acts';
import {
	confirmReceipt,
	saveVerdicts,
	signVerdicts,
	takeFromPass
} from '../../src/lib/server/passes/acts-release';
import {
	addListed,
	addToRelease,
	changeRelease,
	leaveOut,
	takeNewest
} from '../../src/lib/server/releases/acts';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { approveRelease, askApproval, sendBack } from '../../src/lib/server/releases/acts-approval';
import { issueRelease, withdrawPass } from '../../src/lib/server/releases/acts-issue';
import { mail, release, remark } from '../../src/lib/server/platform/db/schema';
import { signingKey } from '../../src/lib/server/platform/signing';
import { documentView } from '../../src/lib/server/documents/views';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { projectFrame } from '../../src/lib/server/places/views';
import { dayOf, plusDays } from '../../src/lib/core/time/days';
import { releases, releaseView } from '../../src/lib/server/releases/views';
import { passView } from '../../src/lib/server/releases/views-pass';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const build = (documents: string[], purpose = 'approval', approver = 'halla') =>
	world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose,
		recipients: [{ recipient: world.recipient }],
		route: oneStep(world.people[approver]!.person.id),
		documents
	});
const see = (number: number, who = 'ines') => world.read(who, releaseView, { project: 'VFT', number });

async function issued(documents: string[], purpose = 'approval') {
	const made = await build(documents, purpose);
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const done = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	return { ...made, secret: done.passes[0]!.link.split('/pass/')[1]! };
}

describe('a release is built from a list', () => {
	it('of numbers as they stand in a sheet or a mail; what no line names is told, and nothing twice', async () => {
		const [a, b, c] = [await world.add(), await world.add(), await world.add()];
		const made = await build([a.id]);
		const add = (list: string) => world.act('ines', addListed, { release: made.id, list });
		expect(
			await add(
				`${a.number}\tHinge\n${b.number.toLowerCase()} rev P02\nthe pit plan\n\nand ${c.number}, please`
			)
		).toEqual({ added: 2, before: 1, unknown: ['the pit plan'] });
		expect((await see(made.number)).items.map((one) => one.number)).toEqual([a.number, b.number, c.number]);
		expect(await refused(add(a.number))).toMatchObject({ code: 'conflict' });
		expect(await refused(add('the pit plan'))).toMatchObject({ code: 'invalid', facts: { field: 'list' } });
		// However long it is, it is answered, and no line is a question of its own to the database.
		expect(await refused(add('x\n'.repeat(90_000)))).toMatchObject({ code: 'too-large' });
		expect(await refused(add(`${'y z\n'.repeat(1_999)}w`))).toMatchObject({ code: 'invalid' });
		// One that is asked for opens again only where something came in.
		await world.acceptAll(made);
		await world.act('ines', askApproval, { release: made.id });
		expect(await add(`${a.number}\nthe pit plan`)).toMatchObject({ added: 0, before: 1 });
		expect((await see(made.number)).release.state).toBe('in-review');
		await add((await world.add()).number);
		expect((await see(made.number)).release.state).toBe('building');
	});
});

describe('the pass of a release', () => {
	it('asks for a password or a mailed code when that was chosen at issue', async () => {
		const ready = async (asks: string) => {
			const made = await build([(await world.add()).id]);
			await world.act('ines', changeRelease, {
				release: made.id,
				recipients: [{ recipient: world.recipient, asks }]
			});
			await world.acceptAll(made);
			await world.act('ines', askApproval, { release: made.id });
			await world.approve('halla', made);
			return { release: made.id, number: made.number };
		};
		const look = (secret: string) => refused(world.read(null, passView, { secret }));
		const one = await ready('password');
		expect(await refused(world.act('ines', issueRelease, one))).toMatchObject({
			code: 'invalid'
		});
		const locked = await world.act('ines', issueRelease, {
			...one,
			passwords: [{ recipient: world.recipient, password: 'slack water 0540' }]
		});
		const secret = locked.passes[0]!.link.split('/pass/')[1]!;
		expect(await look(secret)).toMatchObject({ code: 'needs-proof', facts: { asks: 'password' } });
		expect((await world.act(null, openPass, { secret, password: 'a wrong one' })).proof).toBeNull();
		const { proof } = await world.act(null, openPass, { secret, password: 'slack water 0540' });
		expect((await world.read(null, passView, { secret }, [proof!])).items).toHaveLength(1);

		const mailed = await world.act('ines', issueRelease, await ready('code'));
		expect(await look(mailed.passes[0]!.link.split('/pass/')[1]!)).toMatchObject({
			facts: { asks: 'address' }
		});
	});
});

describe('building and approving', () => {
	it('stops for what is in hand or no longer newest, and mends in one step', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await build([a.id, b.id]);
		await world.act('oke', takeLock, { document: a.id, purpose: '' });
		await world.revise(b.id, 'rhosyn');
		const { stopping, items } = await see(made.number);
		expect(stopping).toBe(2);
		expect(items.map((i) => i.checks.find((c) => c.result === 'stops'))).toMatchObject([
			{ name: 'free', remedy: 'ask-holder' },
			{ name: 'newest', remedy: 'take-newest' }
		]);
		expect(await refused(world.act('ines', askApproval, { release: made.id }))).toMatchObject({
			code: 'conflict'
		});
		await world.act('ines', leaveOut, { release: made.id, document: a.id });
		await world.act('ines', takeNewest, { release: made.id, document: b.id });
		await world.act('ines', askApproval, { release: made.id });
		expect((await see(made.number)).release.state).toBe('in-review');
	});

	it('needs a second person, on the route only once asked', async () => {
		const { id } = await world.add();
		expect(await refused(build([id], 'approval', 'ines'))).toMatchObject({ code: 'invalid' });
		const made = await build([id]);
		expect(await refused(see(made.number, 'halla'))).toMatchObject({ code: 'not-found' });
		await world.act('ines', askApproval, { release: made.id });
		expect((await see(made.number, 'halla')).can.approveRelease).toEqual({ may: true, why: '' });
		expect(
			await refused(world.act('ines', approveRelease, { release: made.id, digest: 'a'.repeat(64) }))
		).toMatchObject({
			code: 'needs-level'
		});
		expect(
			await refused(world.act('petra', approveRelease, { release: made.id, digest: 'a'.repeat(64) }))
		).toMatchObject({
			code: 'not-found'
		});
		expect(
			await refused(world.act('halla', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({
			code: 'needs-level'
		});
		expect(
			await refused(world.act('ines', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({
			code: 'conflict'
		});
		await world.act('halla', sendBack, { release: made.id, reason: 'Scale missing' });
		expect(await see(made.number)).toMatchObject({
			release: { state: 'building' },
			last: { says: 'sent-back', by: 'Halla Brandt', reason: 'Scale missing', changes: [] }
		});
		expect((await world.read('petra', releases, { project: 'VFT' })).releases).toEqual([]);
	});

	it('needs approval again after any change', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await build([a.id]);
		await world.act('ines', askApproval, { release: made.id });
		await world.approve('halla', made);
		await world.act('ines', addToRelease, { release: made.id, documents: [b.id] });
		expect(
			await refused(world.act('ines', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({
			code: 'conflict'
		});
	});
});

describe('issuing (T4)', () => {
	it('fixes revisions, pins hashes, signs the manifest and sends the pass, all or nothing', async () => {
		const { id, number } = await world.add('oke', 'the approved bytes');
		const made = await issued([id]);
		const view = await world.read('ines', documentView, { document: id });
		expect(view.row).toMatchObject({ label: 'P01', issued: true, state: 'shared' });
		const [row] = await world.db.select().from(release).where(eq(release.id, made.id));
		expect(row!.manifest!.documents).toMatchObject([
			{ number, revision: 'P01', sha256: view.versions[1]!.hash }
		]);
		const key = createPublicKey(signingKey(world.home));
		expect(
			verify(
				null,
				Buffer.from(canonicalize(row!.manifest)!),
				key,
				Buffer.from(row!.manifestSignature!, 'base64')
			)
		).toBe(true);
		expect(await world.services.store.has(row!.coverNoteHash!)).toBe(true);
		const [sent] = await world.db.select().from(mail).where(eq(mail.toAddress, 'maren@harbourtrust.example'));
		expect(sent!.body).toContain(`/pass/`);
		expect(
			await refused(world.act('ines', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({
			code: 'conflict'
		});
	});

	it('gives the revision the purpose demands', async () => {
		const { id } = await world.add();
		await issued([id], 'construction');
		expect((await world.read('ines', documentView, { document: id })).row).toMatchObject({
			label: 'C01',
			state: 'published'
		});
	});

	it('changes nothing when stored bytes were damaged', async () => {
		const { id } = await world.add('oke', 'bytes that will rot');
		const made = await build([id]);
		await world.act('ines', askApproval, { release: made.id });
		await world.approve('halla', made);
		const { versions } = await world.read('ines', documentView, { document: id });
		const { writeFile } = await import('node:fs/promises');
		await writeFile(await world.services.store.localPath(versions[0]!.hash), 'bytes that have rotten');
		expect(
			await refused(world.act('ines', issueRelease, { release: made.id, number: made.number }))
		).toMatchObject({
			code: 'conflict',
			sentence: expect.stringContaining('hash')
		});
		expect((await world.read('ines', documentView, { document: id })).row.label).toBe('P01.1');
		expect((await world.verify()).fault).toContain(versions[0]!.hash);
		await writeFile(await world.services.store.localPath(versions[0]!.hash), 'bytes that will rot');
	});

	it('happens once when two press the button', async () => {
		const { id } = await world.add();
		const made = await build([id]);
		await world.act('ines', askApproval, { release: made.id });
		await world.approve('halla', made);
		const both = await Promise.allSettled([
			world.act('ines', issueRelease, { release: made.id, number: made.number }),
			world.act('ines', issueRelease, { release: made.id, number: made.number })
		]);
		expect(both.filter((b) => b.status === 'fulfilled')).toHaveLength(1);
		expect((await world.read('ines', documentView, { document: id })).versions.map((v) => v.label)).toEqual([
			'P01',
			'P01.1'
		]);
	});
});

describe('the client (T5)', () => {
	it('sends a document back, due ten working days later by the project’s own calendar (G7)', async () => {
		const { timeZone } = (await world.read('ines', projectFrame, { project: 'VFT' })).project;
		const today = dayOf(new Date(), timeZone);
		// Nobody works on Fridays here, nor on the third day from now.
		const workCalendar = {
			weekend: ['Fri', 'Sun'],
			holidays: [{ day: plusDays(today, 3), name: 'Regatta' }]
		};
		await world.act('ines', changeSettings, { project: 'VFT', workCalendar });
		let due = today;
		for (let left = 10; left > 0;) {
			due = plusDays(due, 1);
			const weekday = new Date(`${due}T12:00:00Z`).getUTCDay();
			if (weekday !== 5 && weekday !== 0 && due !== plusDays(today, 3)) left--;
		}
		const { id } = await world.add();
		const { secret } = await issued([id]);
		const { proof } = await world.act(null, openPass, { secret });
		const answers = [{ document: id, code: 'C', remark: 'Ladder lacks a cage' }];
		await world.act(null, signVerdicts, { secret, name: 'Maren Aldgate', answers }, undefined, [proof!]);
		const [row] = await world.db.select().from(remark).where(eq(remark.documentId, id));
		expect(row!.due).toBe(due);
		expect((await world.read('ines', projectFrame, { project: 'VFT' })).project.workCalendar).toEqual(
			workCalendar
		);
		await world.act('ines', changeSettings, {
			project: 'VFT',
			workCalendar: { weekend: ['Sat', 'Sun'], holidays: [] }
		});
	});

	it('opens, confirms, keeps and signs verdicts, which then stay', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const { secret, number } = await issued([a.id, b.id]);
		const { proof } = await world.act(null, openPass, { secret });
		// Opening it again in the same browser is the same use.
		await world.act(null, openPass, { secret }, undefined, [proof!]);
		await world.act(null, confirmReceipt, { secret }, undefined, [proof!]);
		expect(await refused(world.act(null, confirmReceipt, { secret }, undefined, [proof!]))).toMatchObject({
			code: 'conflict'
		});
		await world.act(
			null,
			saveVerdicts,
			{ secret, answers: [{ document: a.id, code: 'C', remark: '' }] },
			undefined,
			[proof!]
		);
		const sign = (answers: unknown[]) =>
			world.act(null, signVerdicts, { secret, name: 'Maren Aldgate', answers }, undefined, [proof!]);
		expect(await refused(sign([{ document: a.id, code: 'C', remark: '' }]))).toMatchObject({
			code: 'invalid'
		});
		await sign([{ document: a.id, code: 'C', remark: 'Ladder lacks a cage' }]);
		await world.act(
			null,
			saveVerdicts,
			{ secret, answers: [{ document: a.id, code: 'A', remark: 'changed my mind' }] },
			undefined,
			[proof!]
		);
		const { items, recipients } = await see(number);
		expect(items.find((i) => i.documentId === a.id)).toMatchObject({
			outcome: 'C',
			verdicts: [{ code: 'C', remark: 'Ladder lacks a cage' }]
		});
		expect(recipients[0]!.pass).toMatchObject({ uses: 1, receivedAt: expect.any(String) });
	});

	it('reaches only what is in the release, and nothing after the pass is withdrawn or over', async () => {
		const [a, outside] = [await world.add(), await world.add()];
		const { id, secret } = await issued([a.id]);
		expect(
			await refused(world.act(null, takeFromPass, { secret, document: outside.id, how: 'opened' }))
		).toMatchObject({ code: 'not-found' });
		expect(await refused(world.read(null, passView, { secret: 'guessed' }))).toMatchObject({
			code: 'not-found'
		});
		await world.act('ines', withdrawPass, { release: id, recipient: world.recipient });
		expect(await refused(world.read(null, passView, { secret }))).toMatchObject({
			sentence: expect.stringContaining('withdrawn')
		});
		const late = await issued([outside.id]);
		expect(
			await refused(
				world.act(null, openPass, { secret: late.secret }, new Date(Date.now() + 61 * 86_400_000))
			)
		).toMatchObject({ sentence: expect.stringContaining('ended') });
	});

	it('is told when a later revision supersedes what they hold', async () => {
		const { id } = await world.add();
		const first = await issued([id]);
		expect((await world.read(null, passView, { secret: first.secret })).items[0]!.later).toBeNull();
		await world.revise(id);
		await issued([id]);
		const seen = await world.read(null, passView, { secret: first.secret });
		expect(seen.release.superseded).toBe(true);
		expect(seen.items[0]).toMatchObject({ label: 'P01', later: { label: 'P02' } });
	});
});
