import { and, asc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import { documentView } from '../../src/lib/server/documents/views';
import { addRecipient } from '../../src/lib/server/people/acts';
import {
	confirmReceipt,
	saveVerdicts,
	signVerdicts,
	takeAllFromPass,
	takeFromPass
} from '../../src/lib/server/passes/acts-release';
import { addToRelease, changeRelease, leaveOut } from '../../src/lib/server/releases/acts';
import { buildAnother, buildRelease } from '../../src/lib/server/releases/acts-begin';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { issueRelease, withdrawPass } from '../../src/lib/server/releases/acts-issue';
import { consolidateVerdicts } from '../../src/lib/server/releases/acts-verdicts';
import { answerRemark, settleRemark } from '../../src/lib/server/remarks/acts';
import { releaseAnswers } from '../../src/lib/server/releases/views-answers';
import { removePlace } from '../../src/lib/server/removed/acts';
import { overdueReleases } from '../../src/lib/server/places/views-tree';
import { waiting } from '../../src/lib/server/today/views';
import { received } from '../../src/lib/server/releases/views-received';
import { readView } from '../../src/lib/server/platform/runner/run';
import { releasePassContent } from '../../src/lib/server/passes/views';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { proposedRecipients } from '../../src/lib/server/releases/views-recipients';
import { remark } from '../../src/lib/server/platform/db/schema';
import { coverNoteDraft, releases, releaseView } from '../../src/lib/server/releases/views';
import { passView } from '../../src/lib/server/releases/views-pass';
import { holders } from '../../src/lib/server/releases/views-holders';
import { refused, TestWorld } from './world';

let world: TestWorld;
let kaja: string;
let sven: string;
const to = async (name: string, company: string, email: string) =>
	(await world.act('ines', addRecipient, { project: 'VFT', name, company, email })).id;
beforeAll(async () => {
	world = await TestWorld.open();
	kaja = await to('Kaja Dorn', 'Tarn Steelwork', 'kaja@tarn.example');
	sven = await to('Sven Ruud', 'Vennholm Harbour Trust', 'sven@harbourtrust.example');
});
afterAll(() => world.close());

const build = (documents: string[], recipients: object[], more: object = {}) =>
	world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients,
		route: oneStep(world.people.halla!.person.id),
		documents,
		...more
	});
async function issue(made: { id: string; number: number }) {
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	return passes.map(({ link }) => link.split('/pass/')[1]!);
}
const see = (number: number) => world.read('ines', releaseView, { project: 'VFT', number });
const sign = (
	secret: string,
	name: string,
	...answers: [document: string, code: string, remark?: string][]
) =>
	world.act(null, signVerdicts, {
		secret,
		name,
		answers: answers.map(([document, code, remark = '']) => ({ document, code, remark }))
	});
const outcome = async (number: number, document: string) =>
	(await see(number)).items.find((item) => item.documentId === document)!;
const remarksOn = async (document: string) =>
	(
		await world.db
			.select({ text: remark.text })
			.from(remark)
			.where(eq(remark.documentId, document))
			.orderBy(asc(remark.number))
	).map((row) => row.text);

describe('a release that goes to several (T9)', () => {
	it('shows each what they get and nothing of the rest, by a pass, a list and a cover note of their own', async () => {
		const [a, b, c] = [await world.add(), await world.add(), await world.add()];
		const made = await build(
			[a.id, b.id, c.id],
			[
				{ recipient: world.recipient },
				{ recipient: kaja, expects: 'receipt', documents: [b.id] },
				{ recipient: sven, expects: 'information' }
			]
		);
		const [maren, tarn, forInformation] = (await issue(made)) as [string, string, string];
		expect((await world.read(null, passView, { secret: maren })).items).toHaveLength(3);
		const theirs = await world.read(null, passView, { secret: tarn });
		expect(theirs).toMatchObject({ expects: 'receipt', items: [{ documentId: b.id }] });
		expect(JSON.stringify(theirs)).not.toMatch(new RegExp(`${a.number}|${c.number}`));
		// Neither what is in the release and not theirs, nor that it is: also not for who knows its id from elsewhere.
		const content = (document: string) => world.read(null, releasePassContent, { secret: tarn, document });
		expect((await content(b.id)).fileName).toContain(b.number);
		expect(await refused(content(a.id))).toEqual(await refused(content('a'.repeat(a.id.length))));
		const all = await world.act(null, takeAllFromPass, { secret: tarn });
		const listOf = ({ files }: typeof all): unknown =>
			JSON.parse(
				Buffer.from(files.find((one) => one.path === 'proof/manifest.json')!.made!, 'base64').toString()
			);
		const documents = ({ files }: typeof all) => files.filter((one) => one.path.startsWith('VFT-'));
		const noteOf = ({ files }: typeof all) => files.find((one) => one.path.startsWith('Cover note'))!.sha256;
		expect(listOf(all)).toMatchObject({
			recipient: 'Kaja Dorn, Tarn Steelwork',
			documents: [{ number: b.number }]
		});
		expect(documents(all)).toHaveLength(1);
		const whole = await world.act(null, takeAllFromPass, { secret: maren });
		expect(documents(whole)).toHaveLength(3);
		expect(noteOf(whole)).not.toBe(noteOf(all));
		expect(
			(await refused(world.act(null, takeFromPass, { secret: tarn, document: a.id, how: 'opened' }))).code
		).toBe('not-found');

		// Nothing is answered that was not asked.
		for (const secret of [tarn, forInformation]) {
			expect((await refused(sign(secret, 'Kaja', [b.id, 'A']))).sentence).toMatch(/No verdicts are asked/);
			expect(
				(
					await refused(
						world.act(null, saveVerdicts, { secret, answers: [{ document: b.id, code: 'A', remark: '' }] })
					)
				).sentence
			).toMatch(/No verdicts are asked/);
		}
		expect((await refused(world.act(null, confirmReceipt, { secret: forInformation }))).code).toBe(
			'conflict'
		);
		await world.act(null, confirmReceipt, { secret: tarn });
		expect((await see(made.number)).recipients).toMatchObject([
			{ name: 'Maren Aldgate', gets: 3, pass: { receivedAt: null } },
			{ name: 'Kaja Dorn', gets: 1, pass: { receivedAt: expect.any(String) } },
			{ name: 'Sven Ruud', gets: 3 }
		]);

		// Who holds what follows what each was sent.
		const { rows } = await world.read('ines', holders, { project: 'VFT' });
		const held = (document: string) =>
			rows
				.find((row) => row.document === document)!
				.held.map((one) => one.holder)
				.sort();
		expect(held(a.id)).toEqual(['maren@harbourtrust.example', 'sven@harbourtrust.example']);
		expect(held(b.id)).toContain('kaja@tarn.example');

		// One pass is withdrawn, and the others stay open.
		await world.act('ines', withdrawPass, { release: made.id, recipient: kaja });
		expect((await refused(world.read(null, passView, { secret: tarn }))).facts).toMatchObject({
			withdrawn: true
		});
		expect((await world.read(null, passView, { secret: maren })).items).toHaveLength(3);
		expect((await refused(world.act('ines', withdrawPass, { release: made.id, recipient: kaja }))).code).toBe(
			'conflict'
		);
	});

	it('says to them what was written, in each cover note, list and mail; what it will say is seen before', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await build(
			[a.id, b.id],
			[{ recipient: world.recipient }, { recipient: kaja, documents: [b.id] }],
			{
				words: 'Work on the piles may begin.\nThe rest follows.'
			}
		);
		const draft = (recipient: string) => world.read('ines', coverNoteDraft, { release: made.id, recipient });
		const theirs = await draft(kaja);
		expect(theirs.manifest).toMatchObject({
			recipient: 'Kaja Dorn, Tarn Steelwork',
			words: 'Work on the piles may begin.\nThe rest follows.',
			approvedBy: '',
			documents: [{ number: b.number, revision: 'P01' }]
		});
		expect((await draft(world.recipient)).manifest.documents).toHaveLength(2);
		expect((await refused(draft(sven))).code).toBe('not-found');
		expect(
			(await refused(world.read('oke', coverNoteDraft, { release: made.id, recipient: kaja }))).code
		).toBe('not-found');
		// Other words are another build.
		await world.acceptAll(made);
		await world.act('ines', askApproval, { release: made.id });
		await world.act('ines', changeRelease, { release: made.id, words: 'Work on the piles may begin.' });
		const [, tarn] = (await issue(made)) as [string, string];
		expect((await world.read(null, passView, { secret: tarn })).release.words).toBe(
			'Work on the piles may begin.'
		);
		const { files } = await world.act(null, takeAllFromPass, { secret: tarn });
		const list = files.find((one) => one.path === 'proof/manifest.json')!;
		expect(Buffer.from(list.made!, 'base64').toString()).toContain('Work on the piles may begin.');
		expect((await refused(draft(kaja))).sentence).toMatch(/nothing to draft any more/);
		expect((await world.mailsTo('kaja@tarn.example')).at(-1)).toContain('Work on the piles may begin.');
	});

	it('begins another release, to the same people by the same route, with the newest of what is still there', async () => {
		const [a, b, c] = [await world.add(), await world.add(), await world.add()];
		const made = await build(
			[a.id, b.id, c.id],
			[
				{ recipient: world.recipient, replyBy: '2031-03-05' },
				{ recipient: kaja, expects: 'receipt', documents: [a.id, b.id] }
			],
			{ words: 'Work on the piles may begin.' }
		);
		const another = () => world.act('ines', buildAnother, { release: made.id });
		expect((await refused(another())).sentence).toBe('This release is still being built; change it instead.');
		await issue(made);
		await world.revise(a.id);
		await world.act('oke', removePlace, { place: b.id, reason: 'not needed' });
		const next = await another();
		expect(next).toMatchObject({ number: made.number + 1, gone: 1 });
		expect(await see(next.number)).toMatchObject({
			release: { state: 'building', title: 'Linkspan', words: 'Work on the piles may begin.', replyBy: null },
			recipients: [
				{ recipient: world.recipient, expects: 'verdicts', replyBy: null, documents: null },
				{ recipient: kaja, expects: 'receipt', documents: [a.id] }
			],
			items: [
				{ documentId: a.id, label: 'P02.1' },
				{ documentId: c.id, label: 'P01' }
			]
		});
		expect((await refused(world.act('halla', buildAnother, { release: made.id }))).code).toBe('needs-level');
	});

	it('goes out only where everybody gets something and everything goes to somebody', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await build([a.id, b.id], [{ recipient: kaja, documents: [a.id] }]);
		await world.acceptAll(made);
		const ask = () => world.act('ines', askApproval, { release: made.id });
		expect(await refused(ask())).toMatchObject({
			code: 'conflict',
			sentence: `${b.number} goes to nobody. Choose who gets it, or leave it out of the release.`
		});
		expect((await see(made.number)).can.askApproval.may).toBe(false);
		await world.act('ines', changeRelease, {
			release: made.id,
			recipients: [{ recipient: kaja, documents: [a.id] }, { recipient: sven }]
		});
		await world.act('ines', leaveOut, { release: made.id, document: a.id });
		expect((await refused(ask())).sentence).toMatch(/^Kaja Dorn gets none/);
		// What is put in later goes to those who get all of it.
		await world.act('ines', addToRelease, { release: made.id, documents: [a.id] });
		expect((await see(made.number)).recipients).toMatchObject([{ gets: 1 }, { gets: 2 }]);
		await ask();
		await world.approve('halla', made);
		// Who gets it is part of what was approved.
		await world.act('ines', changeRelease, {
			release: made.id,
			recipients: [
				{ recipient: kaja, documents: [a.id] },
				{ recipient: sven, asks: 'code' }
			]
		});
		expect((await see(made.number)).release.state).toBe('building');
	});

	it('names nobody twice, nobody unknown, and asks for an account only of who has one', async () => {
		const a = await world.add();
		for (const [recipients, says] of [
			[[{ recipient: kaja }, { recipient: kaja }], /named twice/],
			[[{ recipient: 'zzzzzzzzzz' }], /not on the distribution list/],
			[[{ recipient: kaja, asks: 'account' }], /^Kaja Dorn has no account/],
			[[], /Choose who gets it/]
		] as const)
			expect((await refused(build([a.id], [...recipients]))).sentence).toMatch(says);
	});

	it('is opened with their own account only, where that is asked', async () => {
		const petra = world.people.petra!.person;
		const here = await to('Petra Quill', 'Vennholm', petra.email);
		const made = await build([(await world.add()).id], [{ recipient: here, asks: 'account' }]);
		const [secret] = (await issue(made)) as [string];
		for (const who of [null, 'oke'] as const)
			expect((await refused(world.read(who, passView, { secret }))).facts).toMatchObject({ asks: 'account' });
		expect((await world.read('petra', passView, { secret })).items).toHaveLength(1);
	});

	it('stands in the application for whoever has an account by that address, until they have answered, and for nobody else', async () => {
		const here = await to('Rhosyn Hale', 'Vennholm', world.people.rhosyn!.person.email.toUpperCase());
		const [a, b] = [await world.add(), await world.add()];
		const made = await build([a.id, b.id], [{ recipient: here, documents: [a.id] }, { recipient: sven }]);
		const [secret] = (await issue(made)) as [string];
		const sent = async (who: string) =>
			(await world.read(who, received, { project: 'VFT' })).releases.filter((r) => r.number === made.number);
		const waits = async () => (await world.read('rhosyn', waiting, { project: 'VFT' })).forYou;
		const before = await waits();
		expect(await sent('rhosyn')).toMatchObject([
			{ documents: 1, answered: 0, waits: true, by: 'Ines Maddock' }
		]);
		expect((await sent('rhosyn'))[0]!.link).toMatch(new RegExp(`/pass/${secret}$`));
		for (const who of ['ines', 'oke', 'petra']) expect(await sent(who)).toEqual([]);
		// Whoever looks as her is not given her way in.
		const asRhosyn = {
			...world.people.ines!,
			trying: { projectId: world.project, personId: world.people.rhosyn!.person.id }
		};
		expect(await readView(world.services, received, asRhosyn, { project: 'VFT' })).toEqual({ releases: [] });
		await sign(secret, 'Rhosyn Hale', [a.id, 'A', '']);
		expect(await sent('rhosyn')).toMatchObject([{ answered: 1, waits: false }]);
		expect(await waits()).toBe(before - 1);
		await world.act('ines', withdrawPass, { release: made.id, recipient: here });
		expect(await sent('rhosyn')).toEqual([]);
	});
});

describe('several who give verdicts (T8, T9)', () => {
	const two = async () => {
		const documents = [await world.add(), await world.add()];
		const made = await build(
			documents.map((one) => one.id),
			[{ recipient: world.recipient }, { recipient: sven, replyBy: '2020-01-01' }],
			{ replyBy: '2099-01-01' }
		);
		const [maren, trust] = (await issue(made)) as [string, string];
		return { made, maren, trust, a: documents[0]!.id, b: documents[1]!.id };
	};

	it('agree, and so it is; before both have signed nothing comes back', async () => {
		const { made, maren, trust, a } = await two();
		await sign(maren, 'Maren Aldgate', [a, 'C', 'The ladder lacks a cage.']);
		expect(await outcome(made.number, a)).toMatchObject({ outcome: 'open', mayConsolidate: true });
		expect((await world.read('ines', documentView, { document: a })).row.state).not.toBe('wip');
		// Both at one moment would each see only their own; a row held between them keeps that from being so.
		await sign(trust, 'Sven Ruud', [a, 'C', 'Cage, please.']);
		expect(await outcome(made.number, a)).toMatchObject({
			outcome: 'C',
			mayConsolidate: false,
			consolidated: null,
			verdicts: [{ code: 'C' }, { code: 'C', name: 'Sven Ruud' }]
		});
		expect((await world.read('ines', documentView, { document: a })).row.state).toBe('wip');
		expect((await remarksOn(a)).map((text) => text.split(': ')[1])).toEqual([
			'The ladder lacks a cage.',
			'Cage, please.'
		]);
	});

	it('who sign at one moment come to one, once', async () => {
		for (let round = 0; round < 4; round++) {
			const { made, maren, trust, a, b } = await two();
			await Promise.all([
				sign(maren, 'Maren Aldgate', [a, 'D', 'No.'], [b, 'A']),
				sign(trust, 'Sven Ruud', [b, 'A'], [a, 'D', 'No.'])
			]);
			expect([(await outcome(made.number, a)).outcome, (await outcome(made.number, b)).outcome]).toEqual([
				'D',
				'A'
			]);
			expect(await remarksOn(a)).toHaveLength(2);
		}
	});

	it('differ, and a controller makes one of them with a reason, once', async () => {
		const { made, maren, trust, a, b } = await two();
		const one = (document: string, code: string, who = 'ines') =>
			world.act(who, consolidateVerdicts, { release: made.id, document, code, reason: 'The cage decides.' });
		expect((await refused(one(a, 'B'))).sentence).toMatch(/^Nobody has answered/);
		await sign(maren, 'Maren Aldgate', [a, 'A'], [b, 'B', 'See note.']);
		await sign(trust, 'Sven Ruud', [a, 'C', 'Cage.'], [b, 'B', 'See note.']);
		expect(await outcome(made.number, a)).toMatchObject({ outcome: 'differ', mayConsolidate: true });
		expect(await outcome(made.number, b)).toMatchObject({ outcome: 'B' });
		const listed = async () =>
			(await world.read('ines', releases, { project: 'VFT' })).releases.find(
				(row) => row.number === made.number
			);
		expect(await listed()).toMatchObject({ asked: 2, answered: 1, differing: 1, replyBy: '2020-01-01' });
		// Everybody has answered: nobody owes a reply, whatever the day.
		expect(
			(await overdueReleases(world.db, world.project, '2100-01-01')).map((row) => row.number)
		).not.toContain(made.number);
		expect((await refused(one(a, 'C', 'halla'))).code).toBe('needs-level');
		const waits = async () => (await world.read('ines', waiting, { project: 'VFT' })).forYou;
		const before = await waits();
		await one(a, 'C');
		expect(await waits()).toBe(before - 1);
		expect(await outcome(made.number, a)).toMatchObject({
			outcome: 'C',
			consolidated: { by: 'Ines Maddock', reason: 'The cage decides.' }
		});
		expect((await remarksOn(a)).map((text) => text.split(': ')[1])).toEqual(['The cage decides.', 'Cage.']);
		expect((await refused(one(a, 'B'))).sentence).toMatch(/have come to C already/);
		expect((await refused(one(b, 'C'))).code).toBe('conflict');
		expect(await listed()).toMatchObject({ answered: 2, differing: 0 });
	});

	it('stand in the comment sheet, each with what became of it; nobody’s but the controllers’', async () => {
		const { made, maren, trust, a, b } = await two();
		const sheet = (who = 'ines') => world.read(who, releaseAnswers, { release: made.id });
		await sign(maren, 'Maren Aldgate', [a, 'A'], [b, 'D', 'Not so.']);
		await sign(trust, 'Sven Ruud', [a, 'C', 'Cage.']);
		await world.act('ines', consolidateVerdicts, {
			release: made.id,
			document: a,
			code: 'C',
			reason: 'The cage decides.'
		});
		const [row] = await world.db
			.select({ number: remark.number })
			.from(remark)
			.where(and(eq(remark.documentId, a), eq(remark.fromName, 'Sven Ruud, Vennholm Harbour Trust')));
		const theirs = { document: a, remark: row!.number };
		await world.act('oke', answerRemark, { ...theirs, text: 'Moved by 200.' });
		await world.act('oke', settleRemark, { ...theirs, note: 'In P02.' });

		const { rows, number } = await sheet();
		expect(number).toBe(made.number);
		const said = rows.map(({ document, by, code, words, consolidated, remark: became }) => ({
			of: document === a ? 'a' : 'b',
			says: `${by}: ${code ?? '-'} ${words}`,
			consolidated,
			became: became && `${became.department}, ${became.settled ? became.settled.note : 'open'}`
		}));
		expect(said).toEqual([
			{ of: 'a', says: 'Maren Aldgate: A ', consolidated: false, became: null },
			{ of: 'a', says: 'Sven Ruud: C Cage.', consolidated: false, became: 'Marine works, In P02.' },
			{
				of: 'a',
				says: 'Ines Maddock: C The cage decides.',
				consolidated: true,
				became: 'Marine works, open'
			},
			{ of: 'b', says: 'Maren Aldgate: D Not so.', consolidated: false, became: null },
			{ of: 'b', says: 'Sven Ruud: - ', consolidated: false, became: null }
		]);
		expect(rows[1]!.remark!.answers).toMatchObject([{ by: 'Oke Lindvar', text: 'Moved by 200.' }]);
		// Who is on its route knows of the release, others do not.
		expect((await refused(sheet('halla'))).code).toBe('needs-level');
		expect((await refused(sheet('oke'))).code).toBe('not-found');
	});

	it('are waited for each by their own day', async () => {
		const { made, trust, a, b } = await two();
		const late = async (day: string) =>
			(await overdueReleases(world.db, world.project, day)).find((row) => row.number === made.number);
		expect(await late('2026-11-28')).toMatchObject({ replyBy: '2020-01-01' });
		await sign(trust, 'Sven Ruud', [a, 'A'], [b, 'A']);
		expect(await late('2026-11-28')).toBeUndefined();
		expect(await late('2099-01-02')).toMatchObject({ replyBy: '2099-01-01' });
	});

	it('of one who answers alone stand as they are given', async () => {
		const doc = await world.add();
		const made = await build(
			[doc.id],
			[{ recipient: world.recipient }, { recipient: kaja, expects: 'information' }]
		);
		const [maren] = (await issue(made)) as [string];
		await sign(maren, 'Maren Aldgate', [doc.id, 'B', 'Fine.']);
		expect(await outcome(made.number, doc.id)).toMatchObject({ outcome: 'B', mayConsolidate: false });
		expect(
			(
				await refused(
					world.act('ines', consolidateVerdicts, {
						release: made.id,
						document: doc.id,
						code: 'A',
						reason: 'nicer'
					})
				)
			).sentence
		).toMatch(/have come to B already/);
	});
});

describe('the distribution list', () => {
	it('proposes who gets what by the numbers of documents and the purpose, and knows its people', async () => {
		const rule = (recipient: string, more: object = {}) => ({
			recipient,
			expects: 'receipt',
			asks: 'nothing',
			purposes: [],
			departments: [],
			zones: [],
			types: [],
			...more
		});
		const keep = (distribution: object[]) =>
			world.act('ines', changeSettings, { project: 'VFT', distribution });
		expect((await refused(keep([rule('zzzzzzzzzz')]))).sentence).toMatch(/not on the distribution list/);
		await keep([
			rule(world.recipient, { expects: 'verdicts' }),
			rule(kaja, { departments: ['ST'] }),
			rule(sven, { purposes: ['construction'], departments: ['MW'], types: ['DR'] })
		]);
		const doc = await world.add();
		const ask = (more: object) =>
			world.read('ines', proposedRecipients, { project: 'VFT', purpose: 'construction', ...more });
		const given = async (more: object) =>
			(await ask(more)).recipients.map((one) => [one.recipient, one.documents] as const);
		expect(doc.number).toMatch(/^VFT-MW-..-..-DR-/);
		expect(await given({ documents: [doc.id] })).toEqual([
			[world.recipient, null],
			[sven, null]
		]);
		expect(await given({ documents: [doc.id], purpose: 'comment' })).toEqual([[world.recipient, null]]);
		expect(await given({})).toEqual([[world.recipient, null]]);
		// In an address one document alone is a text.
		expect(await given({ documents: doc.id })).toHaveLength(2);
		const made = await build([doc.id], [{ recipient: kaja }]);
		expect(await given({ release: made.id })).toHaveLength(2);
		expect(
			(await refused(world.read('halla', proposedRecipients, { project: 'VFT', purpose: 'comment' }))).code
		).toBe('needs-level');
	});
});

it('the trail proves what went to each, and who made one of what differed', async () => {
	expect((await world.verify()).fault).toBeNull();
});
