import { createHash } from 'node:crypto';
import { unzipSync } from 'fflate';
import { PDFDocument } from '@cantoo/pdf-lib';
import { and, eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MOST_DRAWN, type Drawn } from '../../src/lib/core/releases/drawn';
import { oneStep } from '../../src/lib/core/releases/route';
import { handlers } from '../../src/lib/server/api/jobs';
import { addDocument } from '../../src/lib/server/documents/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { marks } from '../../src/lib/server/marks/views';
import { drawMarks } from '../../src/lib/server/passes/acts-drawing';
import { askForColleague } from '../../src/lib/server/passes/acts-answering';
import { signVerdicts } from '../../src/lib/server/passes/acts-release';
import { drawnMarks } from '../../src/lib/server/passes/views-answering';
import { addRecipient } from '../../src/lib/server/people/acts';
import { event, mail, remark } from '../../src/lib/server/platform/db/schema';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { letColleagueIn } from '../../src/lib/server/releases/acts-colleagues';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { takeReleasePackage } from '../../src/lib/server/releases/acts-package';
import { zipResponse } from '../../src/lib/server/releases/file';
import { releaseContent, releaseView } from '../../src/lib/server/releases/views';
import { releaseAnswers, releaseMarks } from '../../src/lib/server/releases/views-answers';
import { passView } from '../../src/lib/server/releases/views-pass';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { putMark } from './marking';
import { refused, TestWorld } from './world';

let world: TestWorld;
let kaja: string;
beforeAll(async () => {
	world = await TestWorld.open();
	const to = { project: 'VFT', name: 'Kaja Dorn', company: 'Tarn Steelwork', email: 'kaja@tarn.example' };
	kaja = (await world.act('ines', addRecipient, to)).id;
});
afterAll(() => world.close());

const LINE = '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n100\n21\n50\n0\nENDSEC\n0\nEOF\n';
let serial = 100;
async function sheet(name = 'sheet.pdf'): Promise<string> {
	let bytes: Uint8Array = Buffer.from(LINE);
	if (name.endsWith('pdf')) {
		const pdf = await PDFDocument.create();
		pdf.addPage([842, 595]).drawText('AS DRAWN', { x: 200, y: 300 });
		bytes = await pdf.save();
	}
	const number = `VFT-MW-LS-00-DR-9${++serial}`;
	const upload = await world.send('oke', bytes, name);
	return (await world.act('oke', addDocument, { folder: world.folder, upload, number, title: name })).id;
}
/** An issued release of some documents, with the secret of each pass. */
async function released(
	documents: string[],
	recipients: object[] = [{ recipient: world.recipient }],
	more = {}
) {
	const made = await world.act('ines', buildRelease, {
		...{ project: 'VFT', title: 'Linkspan', purpose: 'approval', recipients, documents },
		route: oneStep(world.people.halla!.person.id),
		...more
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	return { ...made, secrets: passes.map(({ link }) => link.split('/pass/')[1]!) };
}
const cloud = (id: string, more: Partial<Drawn> = {}): Drawn => ({
	...{ id, kind: 'cloud', page: 1, turn: 0, size: 10, text: '', group: null, order: 1 },
	points: [
		{ x: 100, y: 80 },
		{ x: 180, y: 120.5 }
	],
	...more
});
const draw = (secret: string, document: string, drawn: Drawn[], gone: string[] = []) =>
	world.act(null, drawMarks, { secret, document, drawn, gone });
const seen = async (secret: string, document: string) =>
	(await world.read(null, drawnMarks, { secret, document })).marks;
const sign = (secret: string, document: string, code: string, remark = '', name = 'Maren Aldgate') =>
	world.act(null, signVerdicts, { secret, name, answers: [{ document, code, remark }] });
const shown = (made: { id: string }, document: string) =>
	world.read('ines', releaseMarks, { release: made.id, document });
const onSheet = async (document: string, label: string) =>
	(await world.read('oke', marks, { document, label })).marks;
/** Does the jobs that lay what was drawn onto the sheets of a document. */
async function lay(release: string, document: string): Promise<void> {
	const { db } = world.services.database;
	const waiting = await db.execute(
		sql`select data from pgboss.job where name = 'lay-drawn' and data->>'document' = ${document} and state = 'created'`
	);
	for (const { data } of waiting) await handlers(world.services, null as never)['lay-drawn'](data as never);
	expect(waiting.map(({ data }) => data)).toEqual([{ release, document }]);
}

describe('marks that clients draw on the sheets of a release', () => {
	it('are theirs alone until they sign; then they stand at the verdict, in the package, and on the version', async () => {
		const id = await sheet();
		const made = await released([id]);
		const [secret] = made.secrets as [string];
		const words = cloud('words-0001', { kind: 'callout', text: 'Lower by 50 mm', page: 2, order: 2 });
		await draw(secret, id, [cloud('cloud-0001'), cloud('cloud-0002'), words]);
		const moved = [
			{ x: 10, y: 10 },
			{ x: 20, y: 20 }
		];
		await draw(secret, id, [cloud('cloud-0001', { points: moved })], ['cloud-0002', 'never-there']);
		expect(await seen(secret, id)).toMatchObject([
			{ id: 'cloud-0001', points: moved, from: 'Maren Aldgate' },
			{ id: 'words-0001', text: 'Lower by 50 mm' }
		]);
		expect((await shown(made, id)).answers).toEqual([]);
		expect((await world.read('ines', releaseAnswers, { release: made.id })).rows).toHaveLength(1);

		// What is drawn says why; nothing need be said of the whole.
		await sign(secret, id, 'C');
		expect((await shown(made, id)).answers).toMatchObject([
			{
				name: 'Maren Aldgate',
				company: 'Vennholm Harbour Trust',
				marks: [{ kind: 'cloud' }, { kind: 'callout' }]
			}
		]);
		const { items } = await world.read('ines', releaseView, { project: 'VFT', number: made.number });
		expect(items[0]!.verdicts).toMatchObject([{ code: 'C', drawn: 2, placed: 0 }]);
		expect((await world.read('ines', releaseAnswers, { release: made.id })).rows).toMatchObject([
			{ code: 'C', page: null, how: null },
			{ words: '1 mark', page: 1, how: 'drawn' },
			{ words: '“Lower by 50 mm”', page: 2, how: 'drawn' }
		]);
		const { db } = world.services.database;
		const [work] = await db.select().from(remark).where(eq(remark.documentId, id));
		expect(work!.text).toContain('see 2 marks on the sheet');

		// The trail pins the very list that goes into the package.
		const [given] = await db
			.select()
			.from(event)
			.where(and(eq(event.kind, 'verdict.given'), eq(event.documentId, id)));
		const packed = await world.act('ines', takeReleasePackage, { release: made.id });
		const zip = new Uint8Array(await zipResponse(world.services, packed.files, packed.name).arrayBuffer());
		const [path, list] = Object.entries(unzipSync(zip)).find(([name]) => name.endsWith('drawn marks.json'))!;
		expect(path).toContain('answers/1 Maren Aldgate/');
		expect(given!.details).toMatchObject({
			drawn: { marks: 2, sha256: createHash('sha256').update(list).digest('hex') }
		});
		expect(JSON.parse(Buffer.from(list).toString())).toMatchObject([
			{ id: 'cloud-0001', by: 'Maren Aldgate' },
			{ id: 'words-0001' }
		]);

		await lay(made.id, id);
		const laid = await onSheet(id, 'P01');
		expect(laid).toMatchObject([
			{ kind: 'cloud', from: 'Maren Aldgate, Vennholm Harbour Trust', layer: '', points: moved },
			{ kind: 'callout', text: 'Lower by 50 mm' }
		]);
		// Done twice, it is there once.
		await handlers(world.services, null as never)['lay-drawn']({ release: made.id, document: id });
		expect(await onSheet(id, 'P01')).toHaveLength(2);
		expect((await world.read('oke', documentView, { document: id })).marked).toContain('P01');
	});

	it('stay as they were signed, and are nobody’s to see or change who holds another pass', async () => {
		const [a, b] = [await sheet(), await sheet()];
		const made = await released(
			[a, b],
			[{ recipient: world.recipient }, { recipient: kaja, documents: [b] }]
		);
		const [maren, tarn] = made.secrets as [string, string];
		await draw(maren, a, [cloud('cloud-0001')]);
		await draw(maren, b, [cloud('cloud-0001')]);
		for (const doing of [() => draw(tarn, a, [cloud('cloud-0001')]), () => seen(tarn, a)])
			expect(await refused(doing())).toMatchObject({ code: 'not-found' });
		expect(await seen(tarn, b)).toEqual([]);
		// The same id in two browsers is two marks.
		await draw(tarn, b, [cloud('cloud-0001', { kind: 'arrow' })]);
		await draw(tarn, b, [], ['cloud-0001']);
		expect(await seen(maren, b)).toHaveLength(1);
		await draw(tarn, b, [cloud('cloud-0001', { kind: 'arrow' })]);
		await sign(maren, b, 'B');
		expect(await refused(draw(maren, b, [], ['cloud-0001']))).toMatchObject({ code: 'conflict' });
		expect((await shown(made, b)).answers).toHaveLength(1);
		await sign(tarn, b, 'B', '', 'Kaja Dorn');
		const both = (await shown(made, b)).answers;
		expect(both.map((one) => [one.company, one.marks[0]!.kind])).toEqual([
			['Vennholm Harbour Trust', 'cloud'],
			['Tarn Steelwork', 'arrow']
		]);
		expect(new Set(both.flatMap((one) => one.marks.map((mark) => mark.id))).size).toBe(2);
		await lay(made.id, b);
		expect(await onSheet(b, 'P01')).toHaveLength(2);
	});

	it('are drawn by several of one client, each under their own name, whoever moves them', async () => {
		const id = await sheet();
		const made = await released([id]);
		const [secret] = made.secrets as [string];
		await draw(secret, id, [cloud('cloud-0001')]);
		const { id: asked } = await world.act(null, askForColleague, {
			...{ secret, name: 'Signe Hald', email: 'signe@trust.example', words: '' }
		});
		await world.act('ines', letColleagueIn, { release: made.id, colleague: asked });
		const [sent] = await world.services.database.db
			.select()
			.from(mail)
			.where(eq(mail.toAddress, 'signe@trust.example'));
		const theirs = /\/pass\/([\w-]+)/.exec(sent!.body)![1]!;
		await draw(theirs, id, [cloud('cloud-0001', { turn: 15 }), cloud('cloud-0002')]);
		expect(await seen(secret, id)).toMatchObject([
			{ id: 'cloud-0001', turn: 15, from: 'Maren Aldgate' },
			{ id: 'cloud-0002', from: 'Signe Hald' }
		]);
	});

	it('on a sheet that was sent in the stead of a drawing are told in words, since they fit only what was sent', async () => {
		const id = await sheet('drawing.dxf');
		await putMark(world, id, 'abcdefghjk', 'LADDER LACKS A CAGE');
		const made = await released([id], [{ recipient: world.recipient }], { withMarks: true });
		const [secret] = made.secrets as [string];
		await draw(secret, id, [cloud('cloud-0001'), cloud('words-0001', { kind: 'text', text: 'And a gate' })]);
		await sign(secret, id, 'C');
		const { db } = world.services.database;
		const work = await db.select().from(remark).where(eq(remark.documentId, id)).orderBy(remark.number);
		expect(work.map((one) => [one.anchor.on, one.text])).toEqual([
			['version', expect.stringContaining('see 2 marks on the sheet')],
			[
				'version',
				expect.stringMatching(/^Drawn on page 1 of what was sent .*“And a gate”; 1 mark without words$/)
			]
		]);
		expect(await onSheet(id, 'P01')).toEqual([]);
		// They are looked at on what was sent.
		const content = await world.read('ines', releaseContent, { release: made.id, document: id });
		expect(content.mediaType).toBe('application/pdf');
	});

	it('are drawn where there is a sheet, as far as a sheet takes, and where the project lets them', async () => {
		const [id, { id: text }] = [await sheet(), await world.add()];
		const made = await released(
			[id, text],
			[{ recipient: world.recipient }, { recipient: kaja, expects: 'receipt' }]
		);
		const [secret, receipt] = made.secrets as [string, string];
		expect(await refused(draw(secret, text, [cloud('cloud-0001')]))).toMatchObject({ code: 'invalid' });
		expect(await refused(draw(receipt, id, [cloud('cloud-0001')]))).toMatchObject({ code: 'conflict' });
		for (const wrong of [
			{ kind: 'stamp' as never },
			{ points: [{ x: 1e20, y: 0 }] },
			{ points: [] },
			{ page: 0 },
			{ id: 'no id!' },
			{ layer: 'MW' } as never,
			{ by: 'ines' } as never
		])
			expect(
				await refused(draw(secret, id, [{ ...cloud('cloud-0001'), ...(wrong as object) }]))
			).toMatchObject({
				code: 'invalid'
			});
		const many = (from: number, to: number) =>
			Array.from({ length: to - from }, (_, i) => cloud(`cloud-${from + i + 1000}`));
		await draw(secret, id, many(0, 150));
		await draw(secret, id, many(150, MOST_DRAWN));
		expect(await refused(draw(secret, id, [cloud('one-more')]))).toMatchObject({ code: 'too-many' });
		await draw(secret, id, [cloud('one-more')], ['cloud-1000']);
		expect(await seen(secret, id)).toHaveLength(MOST_DRAWN);

		expect((await world.read(null, passView, { secret })).mayDraw).toBe(true);
		const { effects } = await world.act('ines', changeSettings, {
			...{ project: 'VFT', answersDraw: false, trial: true }
		});
		expect(effects.join(' ')).toMatch(/[1-9] recipients? ha(s|ve) drawn something/);
		await world.act('ines', changeSettings, { project: 'VFT', answersDraw: false });
		expect((await world.read(null, passView, { secret })).mayDraw).toBe(false);
		expect(await refused(draw(secret, id, [cloud('cloud-1001')]))).toMatchObject({ code: 'conflict' });
		// What is there can still be taken back, and goes along.
		await draw(secret, id, [], ['cloud-1001']);
		await sign(secret, id, 'B');
		expect((await shown(made, id)).answers[0]!.marks).toHaveLength(MOST_DRAWN - 1);
		await world.act('ines', changeSettings, { project: 'VFT', answersDraw: true });
	});
});
