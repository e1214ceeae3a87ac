import { and, asc, desc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import { receive } from '../../src/lib/server/content/content';
import { documentView } from '../../src/lib/server/documents/views';
import {
	addMarkedFile,
	askForColleague,
	placeRemark,
	takeBackFile,
	takeBackRemark
} from '../../src/lib/server/passes/acts-answering';
import { openPass } from '../../src/lib/server/passes/acts-open';
import { saveVerdicts, signVerdicts, takeFromPass } from '../../src/lib/server/passes/acts-release';
import { passGate, releasePassContent } from '../../src/lib/server/passes/views';
import { answerRoom } from '../../src/lib/server/passes/views-answering';
import { addRecipient } from '../../src/lib/server/people/acts';
import { event, mail, remark } from '../../src/lib/server/platform/db/schema';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease, withdrawPass } from '../../src/lib/server/releases/acts-issue';
import { letColleagueIn, refuseColleague } from '../../src/lib/server/releases/acts-colleagues';
import { releaseView } from '../../src/lib/server/releases/views';
import { passView } from '../../src/lib/server/releases/views-pass';
import { waiting } from '../../src/lib/server/today/views';
import { releaseAnswers } from '../../src/lib/server/releases/views-answers';
import { refused, TestWorld } from './world';

let world: TestWorld;
let kaja: string;
beforeAll(async () => {
	world = await TestWorld.open();
	const to = { project: 'VFT', name: 'Kaja Dorn', company: 'Tarn Steelwork', email: 'kaja@tarn.example' };
	kaja = (await world.act('ines', addRecipient, to)).id;
});
afterAll(() => world.close());

/** An issued release; gives it with the secret of each pass. */
async function release(
	documents: string[],
	recipients: object[] = [{ recipient: world.recipient }],
	passwords: { recipient: string; password: string }[] = []
) {
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients,
		route: oneStep(world.people.halla!.person.id),
		documents
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const { passes } = await world.act('ines', issueRelease, {
		...{ release: made.id, number: made.number, passwords }
	});
	return { ...made, secrets: passes.map(({ link }) => link.split('/pass/')[1]!) };
}
const seen = (secret: string) => world.read(null, passView, { secret });
const place = (secret: string, document: string, text: string, page = 1) =>
	world.act(null, placeRemark, { secret, document, page, x: 120.5, y: 80, text });
async function send(secret: string, document: string, content: string) {
	const { pass } = await world.read(null, answerRoom, { secret });
	const bytes = (async function* () {
		yield new TextEncoder().encode(content);
	})();
	const { upload } = await receive(world.services, { passId: pass }, 'marked.txt', bytes, 1e6);
	return world.act(null, addMarkedFile, { secret, document, upload });
}
const sign = (secret: string, document: string, code: string, words = '') =>
	world.act(null, signVerdicts, {
		secret,
		name: 'Maren Aldgate',
		answers: [{ document, code, remark: words }]
	});
const remarksOn = (document: string) =>
	world.services.database.db
		.select()
		.from(remark)
		.where(eq(remark.documentId, document))
		.orderBy(asc(remark.number));
const answered = (id: string) => world.read('ines', releaseAnswers, { release: id });

describe('remarks on the sheet and marked-up files', () => {
	it('are theirs alone until they sign; then they are work at their places, under the name of who signed', async () => {
		const { id } = await world.add();
		const made = await release([id]);
		const [secret] = made.secrets as [string];
		await place(secret, id, 'The hinge is too low.');
		const wrong = await place(secret, id, 'Not this one.', 2);
		await place(secret, id, 'Which steel?', 3);
		await world.act(null, takeBackRemark, { secret, remark: wrong.id });
		await send(secret, id, 'with red ink');
		const twice = await send(secret, id, 'sent by mistake');
		await world.act(null, takeBackFile, { secret, file: twice.id });
		expect((await seen(secret)).items[0]).toMatchObject({
			placed: [
				{ number: 1, page: 1, x: 120.5, y: 80, text: 'The hinge is too low.' },
				{ number: 3, page: 3 }
			],
			files: [{ fileName: 'marked.txt', size: 12 }]
		});
		expect((await answered(made.id)).rows).toMatchObject([{ code: null, words: '', page: null }]);
		expect(await remarksOn(id)).toEqual([]);

		// What stands on the sheet says why; nothing need be said of the whole.
		await sign(secret, id, 'C');
		const work = await remarksOn(id);
		expect(work).toMatchObject([
			{ anchor: { on: 'version' }, fromName: 'Maren Aldgate, Vennholm Harbour Trust' },
			{ anchor: { on: 'place', page: 1, x: 120.5, y: 80 }, text: 'The hinge is too low.' },
			{ anchor: { on: 'place', page: 3 }, text: 'Which steel?' }
		]);
		expect(work[0]!.text).toContain('see 2 remarks on the sheet');
		for (const one of work) expect(one.due).toBe(work[0]!.due);
		const { row, sides } = await world.read('oke', documentView, { document: id });
		expect(row.state).toBe('wip');
		expect(sides).toMatchObject([
			{ number: 1, by: 'Maren Aldgate, Vennholm Harbour Trust', fileName: 'marked.txt', state: 'open' }
		]);
		expect((await answered(made.id)).rows).toMatchObject([
			{ code: 'C', words: '', page: null, remark: { number: 1 } },
			{ words: 'The hinge is too low.', page: 1, remark: { number: 2 } },
			{ words: 'Which steel?', page: 3, remark: { number: 3 } }
		]);
		const [given] = await world.services.database.db
			.select()
			.from(event)
			.where(and(eq(event.kind, 'verdict.given'), eq(event.documentId, id)));
		expect(given!.details).toMatchObject({
			placed: [
				{ page: 1, text: 'The hinge is too low.' },
				{ page: 3, text: 'Which steel?' }
			],
			files: [sides[0]!.hash]
		});
	});

	it('with a document that is accepted become remarks on it, and it stays issued', async () => {
		const { id } = await world.add();
		const { secrets } = await release([id]);
		await place(secrets[0]!, id, 'Add the grid letter.');
		await sign(secrets[0]!, id, 'B', 'A small thing.');
		expect(await remarksOn(id)).toMatchObject([{ text: 'Add the grid letter.', due: null }]);
		expect((await world.read('oke', documentView, { document: id })).row.state).not.toBe('wip');
	});

	it('stay as they were signed, and are nobody’s to change who holds another pass', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const { secrets } = await release(
			[a.id, b.id],
			[{ recipient: world.recipient }, { recipient: kaja, documents: [b.id] }]
		);
		const [maren, tarn] = secrets as [string, string];
		const theirs = await place(maren, b.id, 'Too thin.');
		const file = await send(maren, b.id, 'ink');
		for (const doing of [
			() => place(tarn, a.id, 'What is here?'),
			() => world.act(null, takeBackRemark, { secret: tarn, remark: theirs.id }),
			() => world.act(null, takeBackFile, { secret: tarn, file: file.id })
		])
			expect(await refused(doing())).toMatchObject({ code: 'not-found' });
		expect((await seen(tarn)).items[0]).toMatchObject({ placed: [], files: [] });
		await sign(maren, b.id, 'D');
		for (const doing of [
			() => place(maren, b.id, 'One more.'),
			() => send(maren, b.id, 'more ink'),
			() => world.act(null, takeBackRemark, { secret: maren, remark: theirs.id }),
			() => world.act(null, takeBackFile, { secret: maren, file: file.id })
		])
			expect(await refused(doing())).toMatchObject({ code: 'conflict' });
	});

	it('are asked only of who gives verdicts, and of those a reason for C and D', async () => {
		const { id } = await world.add();
		const { secrets } = await release(
			[id],
			[{ recipient: world.recipient }, { recipient: kaja, expects: 'receipt' }]
		);
		const [maren, tarn] = secrets as [string, string];
		expect(await refused(place(tarn, id, 'Looks good.'))).toMatchObject({ code: 'conflict' });
		expect(await refused(world.read(null, answerRoom, { secret: tarn }))).toMatchObject({ code: 'conflict' });
		expect(await refused(sign(maren, id, 'D'))).toMatchObject({ code: 'invalid' });
		expect(await refused(place(maren, id, '   '))).toMatchObject({ code: 'invalid' });
	});

	it('placed at one moment each have their own number; what is signed meanwhile has all or none of one', async () => {
		const { id } = await world.add();
		const made = await release([id]);
		const [secret] = made.secrets as [string];
		await Promise.all(['one', 'two', 'three', 'four'].map((text) => place(secret, id, text)));
		expect((await seen(secret)).items[0]!.placed.map((one) => one.number)).toEqual([1, 2, 3, 4]);
		const [late] = await Promise.allSettled([place(secret, id, 'five'), sign(secret, id, 'C')]);
		const work = (await remarksOn(id)).filter((one) => one.text === 'five');
		expect(work).toHaveLength(late.status === 'fulfilled' ? 1 : 0);
	});
});

describe('what somebody had before', () => {
	it('is there to compare with, as the last release to them brought it, and to nobody else', async () => {
		const { id } = await world.add('oke', 'the first words');
		const first = await release([id]);
		await world.revise(id, 'oke', 'other words');
		const second = await release([id], [{ recipient: world.recipient }, { recipient: kaja }]);
		const [maren, tarn] = second.secrets as [string, string];
		expect((await seen(maren)).items[0]!.before).toEqual({
			label: 'P01',
			release: first.number,
			mediaType: 'text/plain'
		});
		expect((await seen(tarn)).items[0]!.before).toBeNull();
		const content = (secret: string, before: boolean) =>
			world.read(null, releasePassContent, { secret, document: id, before });
		const [had] = (await seen(first.secrets[0]!)).items;
		expect((await content(maren, true)).hash).toBe(had!.hash);
		expect((await content(maren, false)).hash).not.toBe(had!.hash);
		expect(await refused(content(tarn, true))).toMatchObject({ code: 'not-found' });
		const taken = { secret: maren, document: id, how: 'opened', before: true } as const;
		expect(await world.act(null, takeFromPass, taken)).toMatchObject({ label: 'P01', hash: had!.hash });
		// A pass that was withdrawn does not come back by another.
		await world.act('ines', withdrawPass, { release: first.id, recipient: world.recipient });
		expect((await seen(maren)).items[0]!.before).toBeNull();
		expect(await refused(content(maren, true))).toMatchObject({ code: 'not-found' });
	});

	it('is nothing where the file is the same', async () => {
		const { id } = await world.add();
		await release([id]);
		const again = await release([id]);
		expect((await seen(again.secrets[0]!)).items[0]!.before).toBeNull();
		await world.act(null, saveVerdicts, {
			secret: again.secrets[0]!,
			answers: [{ document: id, code: 'A', remark: '' }]
		});
	});
});

describe('what somebody got since', () => {
	it('is said beside what is superseded, and leads there from a pass that asks who they are', async () => {
		const { id } = await world.add('oke', 'the first words');
		const first = await release(
			[id],
			[{ recipient: world.recipient, asks: 'password' }, { recipient: kaja }],
			[{ recipient: world.recipient, password: 'slack water' }]
		);
		const [maren, tarn] = first.secrets as [string, string];
		const { proof } = await world.act(null, openPass, { secret: maren, password: 'slack water' });
		const since = async (secret: string) =>
			(await world.read(null, passView, { secret }, secret === maren ? [proof!] : [])).items[0]!;
		expect(await since(maren)).toMatchObject({ later: null, since: null });
		await world.revise(id, 'oke', 'other words');
		// It went to Maren only: others learn that theirs is old, and nothing of where the new one is.
		const second = await release([id]);
		expect(await since(maren)).toMatchObject({
			later: { label: 'P02' },
			since: {
				label: 'P02',
				release: second.number,
				link: expect.stringContaining(second.secrets[0]!) as string
			}
		});
		expect(await since(tarn)).toMatchObject({ later: { label: 'P02' }, since: null });
		await world.revise(id, 'oke', 'words for all');
		const third = await release([id], [{ recipient: world.recipient }, { recipient: kaja }]);
		expect((await since(maren)).since).toMatchObject({ label: 'P03', release: third.number });
		// A link that opens for anybody leads on to no other.
		expect((await since(tarn)).since).toEqual({ label: 'P03', release: third.number, link: null });
		await world.act('ines', withdrawPass, { release: third.id, recipient: world.recipient });
		expect((await since(maren)).since).toMatchObject({ label: 'P02', release: second.number });
	});
});

describe('a colleague of a recipient (T9)', () => {
	const ask = (secret: string, email: string, more: object = {}) =>
		world.act(null, askForColleague, {
			secret,
			name: 'Ivo Brandal',
			email,
			words: 'He knows steel.',
			...more
		});
	/** Lets a colleague in who was asked for; gives the secret of their own pass from the mail. */
	async function letIn(release: string, colleague: string, address: string): Promise<string> {
		await world.act('ines', letColleagueIn, { release, colleague });
		const [sent] = await world.services.database.db
			.select()
			.from(mail)
			.where(eq(mail.toAddress, address))
			.orderBy(desc(mail.createdAt))
			.limit(1);
		return /\/pass\/([\w-]+)/.exec(sent!.body)![1]!;
	}

	it('is asked for, let in by a controller, and answers the same documents by a pass of their own, in their own name', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await release(
			[a.id, b.id],
			[
				{ recipient: world.recipient, documents: [a.id] },
				{ recipient: kaja, documents: [b.id] }
			]
		);
		const [maren] = made.secrets as [string];
		const { id } = await ask(maren, 'ivo@harbourtrust.example');
		expect((await seen(maren)).colleagues).toEqual([{ name: 'Ivo Brandal', instead: false, state: 'asked' }]);
		const { recipients } = await world.read('ines', releaseView, { project: 'VFT', number: made.number });
		expect(recipients.map((one) => one.colleagues.length)).toEqual([1, 0]);
		expect((await world.read('ines', waiting, { project: 'VFT' })).forYou).toBeGreaterThan(0);
		expect(
			await refused(world.act('halla', letColleagueIn, { release: made.id, colleague: id }))
		).toMatchObject({
			code: expect.stringMatching(/not-found|needs-level/) as string
		});
		const ivo = await letIn(made.id, id, 'ivo@harbourtrust.example');
		// He sees what she got and nothing else, and what she saved; what he places is hers, too.
		await world.act(null, saveVerdicts, {
			secret: maren,
			answers: [{ document: a.id, code: 'C', remark: '' }]
		});
		expect(await seen(ivo)).toMatchObject({
			holder: 'Ivo Brandal',
			items: [{ documentId: a.id, code: 'C' }],
			colleagues: [{ state: 'in' }]
		});
		await place(ivo, a.id, 'The flange is too thin.');
		expect((await seen(maren)).items[0]!.placed).toHaveLength(1);
		await world.act(null, signVerdicts, {
			secret: ivo,
			name: 'Ivo Brandal',
			answers: [{ document: a.id, code: 'C', remark: '' }]
		});
		expect((await seen(maren)).items[0]!.signed).toMatchObject({ name: 'Ivo Brandal' });
		expect((await remarksOn(a.id)).map((one) => one.fromName)).toEqual([
			'Ivo Brandal, Vennholm Harbour Trust',
			'Ivo Brandal, Vennholm Harbour Trust'
		]);
		const [given] = await world.services.database.db
			.select()
			.from(event)
			.where(and(eq(event.kind, 'verdict.given'), eq(event.documentId, a.id)));
		expect(given!.actorName).toBe('Ivo Brandal');
		expect(await refused(place(maren, a.id, 'And another thing.'))).toMatchObject({ code: 'conflict' });
		// Withdrawing hers ends his.
		await world.act('ines', withdrawPass, { release: made.id, recipient: world.recipient });
		expect(await refused(seen(ivo))).toMatchObject({ facts: { withdrawn: true } });
	});

	it('and who asked for them have what the other keeps at once; other recipients hear nothing of it', async () => {
		const [a, b] = [await world.add(), await world.add()];
		const made = await release(
			[a.id, b.id],
			[
				{ recipient: world.recipient, documents: [a.id] },
				{ recipient: kaja, documents: [b.id] }
			]
		);
		const [maren, other] = made.secrets as [string, string];
		const { id } = await ask(maren, 'ivo@harbourtrust.example');
		const ivo = await letIn(made.id, id, 'ivo@harbourtrust.example');
		const { passes } = world.services.live;
		const told = { maren: 0, ivo: 0, other: 0, late: 0 };
		const watch = async (who: keyof typeof told, secret: string, since: number | null = null) => {
			const { id: passId, projectId } = await world.read(null, passGate, { secret });
			return passes.watch({ projectId, passId, tell: () => told[who]++ }, since);
		};
		const stops = [await watch('maren', maren), await watch('ivo', ivo), await watch('other', other)];
		const readAt = Date.now();
		await world.act(null, saveVerdicts, {
			secret: ivo,
			answers: [{ document: a.id, code: 'B', remark: '' }]
		});
		await expect.poll(() => told).toEqual({ maren: 1, ivo: 1, other: 0, late: 0 });
		await place(maren, a.id, 'The flange is too thin.');
		await expect.poll(() => told).toEqual({ maren: 2, ivo: 2, other: 0, late: 0 });
		// A page that was read before, and watches only now, has missed it.
		stops.push(await watch('late', maren, readAt));
		await expect.poll(() => told.late).toBe(1);
		// What they got is superseded by a release that they do not get.
		await release([a.id], [{ recipient: kaja }]);
		await expect.poll(() => told).toMatchObject({ maren: 3, ivo: 3, late: 2 });
		expect(told.other).toBe(0);
		for (const stop of stops) stop();
	});

	it('is refused with a reason, once; nobody is asked for twice, nor the recipient themselves', async () => {
		const { id } = await world.add();
		const made = await release([id]);
		const [secret] = made.secrets as [string];
		const { id: asked } = await ask(secret, 'ivo@harbourtrust.example');
		for (const email of ['ivo@harbourtrust.example', 'maren@harbourtrust.example'])
			expect(await refused(ask(secret, email))).toMatchObject({
				code: 'conflict',
				facts: { field: 'email' }
			});
		const refuse = () =>
			world.act('ines', refuseColleague, {
				release: made.id,
				colleague: asked,
				reason: 'Not on this project.'
			});
		await refuse();
		expect(await refused(refuse())).toMatchObject({ code: 'conflict' });
		expect(
			await refused(world.act('ines', letColleagueIn, { release: made.id, colleague: asked }))
		).toMatchObject({ code: 'conflict' });
		expect((await seen(secret)).colleagues).toMatchObject([{ state: 'refused' }]);
		// Another try is theirs to make.
		await ask(secret, 'ivo@harbourtrust.example');
		const other = await release([id]);
		expect(
			await refused(world.act('ines', letColleagueIn, { release: other.id, colleague: asked }))
		).toMatchObject({ code: 'not-found' });
	});

	it('two controllers let them in once', async () => {
		const { id } = await world.add();
		const made = await release([id]);
		const { id: asked } = await ask(made.secrets[0]!, 'ivo@harbourtrust.example');
		const both = await Promise.allSettled(
			[1, 2].map(() => world.act('ines', letColleagueIn, { release: made.id, colleague: asked }))
		);
		expect(both.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
	});
});
