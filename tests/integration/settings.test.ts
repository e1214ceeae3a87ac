import { oneStep } from '../../src/lib/core/releases/route';
import { PDFDocument } from '@cantoo/pdf-lib';
import { isNotNull, sql } from 'drizzle-orm';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readTitleBlock, type SheetArea } from '../../src/lib/core/documents/title-block';
import { standardRule } from '../../src/lib/core/numbering/numbering';
import { eventText } from '../../src/lib/core/events';
import { letIn } from '../../src/lib/server/access/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { takeLock } from '../../src/lib/server/locks/acts';
import { issueRevision } from '../../src/lib/server/documents/acts-revising';
import { documentView } from '../../src/lib/server/documents/views';
import { drawPreview, readContent } from '../../src/lib/server/find/reading';
import { mail } from '../../src/lib/server/platform/db/schema';
import { Mailer } from '../../src/lib/server/platform/mail/send';
import { removePlace } from '../../src/lib/server/removed/acts';
import { settings, titleBlocks } from '../../src/lib/server/settings/views';
import { addDocument } from '../../src/lib/server/documents/acts';
import { changeNumbering, changeSettings } from '../../src/lib/server/settings/acts';
import { projectFrame } from '../../src/lib/server/places/views';
import { activity } from '../../src/lib/server/trail/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
const project = 'VFT';
const usual = standardRule('VFT', [
	{ code: 'MW', name: 'Marine works' },
	{ code: 'AR', name: 'Architecture' }
]);
/** The same without zone and level. */
const short = {
	...usual,
	separator: '.',
	parts: usual.parts
		.filter((part) => !['zone', 'level'].includes(part.key))
		.map((part) => (part.values ? { ...part, pattern: null } : part))
};
const rule = async () => (await world.read('ines', projectFrame, { project })).project.numbering;
const newest = async () => (await world.read('ines', activity, { project })).events[0]!;
const says = async () => {
	const words = { day: String, moment: String };
	return eventText(await newest(), words);
};

beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

describe('how documents are numbered', () => {
	it('is tried without changing anything, and names what would not fit', async () => {
		const { number } = await world.add();
		const before = await rule();
		const tried = await world.act('ines', changeNumbering, { project, rule: short, trial: true });
		expect(tried).toMatchObject({ numbers: 1, misfits: 1 });
		expect(tried.named).toEqual([{ number, why: expect.stringContaining('4 parts') }]);
		expect(await rule()).toEqual(before);
		expect((await newest()).kind).not.toBe('project.numbering-changed');
	});

	it('is changed with what it was in the trail; documents keep their numbers, new ones follow it', async () => {
		const { id } = await world.add();
		expect(await world.act('ines', changeNumbering, { project, rule: short })).toMatchObject({ misfits: 2 });
		expect(await rule()).toEqual(short);
		expect(await says()).toBe(
			'changed how documents are numbered, from VFT-MW-AA-00-DR-0001 to VFT.MW.DR.0001'
		);
		expect((await newest()).details).toMatchObject({ rule: short });
		const upload = await world.send('oke', 'a sheet');
		const add = (number: string) =>
			world.act('oke', addDocument, { folder: world.folder, upload, number, title: 'Sheet' });
		expect((await refused(add('VFT-MW-LS-00-DR-0777'))).code).toBe('invalid');
		await add('VFT.MW.DR.0777');
		await world.revise(id);
		await world.act('ines', changeNumbering, { project, rule: usual });
	});

	it('is refused when it cannot be, and to everybody but controllers', async () => {
		const cannot = {
			...short,
			parts: [{ ...short.parts[0]!, values: null, pattern: '(a+)+$' }, short.parts.at(-1)!]
		};
		expect((await refused(world.act('ines', changeNumbering, { project, rule: cannot }))).sentence).toMatch(
			/which signs/
		);
		expect((await refused(world.act('oke', changeNumbering, { project, rule: short }))).code).toBe(
			'needs-level'
		);
	});
});

describe('settings', () => {
	it('are changed with what they were before in the trail', async () => {
		await world.act('ines', changeSettings, {
			project,
			retentionDays: 90,
			lockLimitDays: 3,
			keepPosition: true
		});
		expect((await newest()).details).toMatchObject({
			retentionDays: 90,
			lockLimitDays: 3,
			before: { retentionDays: 60, lockLimitDays: 5 }
		});
		expect(await says()).toBe(
			'changed how many days locks last from 5 to 3, for how many days removed things can be restored from 60 to 90'
		);
	});

	const tried = async (change: object) =>
		(await world.act('ines', changeSettings, { project, trial: true, ...change })).effects.join(' ');

	it('say before they are changed what comes of it, with figures of today, and change nothing', async () => {
		await world.act('ines', letIn, {
			place: world.folder,
			lines: [{ subject: { email: 'kaja@tarnsteel.example', name: 'Kaja Dorn' }, level: 'download' }]
		});
		const before = await world.read('ines', projectFrame, { project });
		expect(await tried({ outsideLevel: 'view' })).toContain('1 person outside goes down to View');
		expect(await tried({ outsideLevel: null })).toContain('goes down to nothing');
		expect(await tried({ outsideLevel: 'work' })).toContain('Nobody outside holds more or less');
		expect(await tried({ ownDomains: ['vennholm.example', 'tarnsteel.example'] })).toContain(
			'1 person of it'
		);
		expect(await tried({ releasePurposes: [] })).toContain('“For construction”');
		expect(await tried({ publishingPurposes: ['approval', 'as-built'] })).toMatch(
			/“For approval” makes documents Published\. .*“For construction” makes documents Shared/
		);
		expect(await tried({ lockLimitDays: 1 })).toContain('No lock of today');
		expect(await tried({ maxFileBytes: 1_000_000 })).toBe('');
		expect(await tried({ reminders: { receipt: [], before: [], after: [] } })).toContain('stay the same');
		const { number, replyBy } = { number: '0042', replyBy: '2099-12-24' };
		await world.db
			.execute(sql`insert into release (id, project_id, number, title, purpose, state, route, reply_by, built_by)
			select 'rrrrrrrrrr', p.id, 42, 'Test', 'comment', 'building', ${JSON.stringify(oneStep(world.people.halla!.person.id))}::jsonb, ${replyBy}, ${world.people.ines!.person.id}
			from project p where p.code = 'VFT'`);
		expect(
			await tried({ workCalendar: { weekend: ['Sat', 'Sun'], holidays: [{ day: replyBy, name: 'Eve' }] } })
		).toContain(`1 release: ${number} (24 Dec 2099)`);
		expect(await world.read('ines', projectFrame, { project })).toEqual(before);
	});

	it('decide what state an issue gives a document', async () => {
		await world.act('ines', changeSettings, { project, publishingPurposes: ['information'] });
		const { id } = await world.add();
		await world.act('ines', issueRevision, { document: id, purpose: 'information', note: 'for all' });
		expect((await world.read('ines', documentView, { document: id })).row.state).toBe('published');
		await world.act('ines', changeSettings, { project, publishingPurposes: ['construction', 'as-built'] });
		await world.revise(id);
		await world.act('ines', issueRevision, { document: id, purpose: 'information', note: 'again' });
		expect((await world.read('ines', documentView, { document: id })).row.state).toBe('shared');
	});

	it('removals that would be past their time, and come back into it', async () => {
		const { id } = await world.add();
		await world.act('oke', removePlace, { place: id, reason: 'old' });
		await world.db.execute(sql`update removal set removed_at = now() - interval '40 days'`);
		expect(await tried({ retentionDays: 30 })).toContain('1 removal of today can be restored no longer');
		expect(await tried({ retentionDays: 300 })).toContain('stays restorable');
		expect((await world.act('ines', changeSettings, { project, retentionDays: 30 })).effects).toHaveLength(1);
		expect(await tried({ retentionDays: 60 })).toContain('1 removal can be restored again');
	});

	it('send mail under the project’s name, with answers to whom it says', async () => {
		await world.act('ines', changeSettings, {
			project,
			mailSender: { name: 'Document control, Vennholm', replyTo: 'control@vennholm.example' }
		});
		expect((await world.read('ines', settings, { project })).mailSender.name).toBe(
			'Document control, Vennholm'
		);
		const got: { from: string; replyTo: string }[] = [];
		const server = new SMTPServer({
			authOptional: true,
			disabledCommands: ['STARTTLS', 'AUTH'],
			onData: (stream, _session, done) =>
				void simpleParser(stream).then(({ from, replyTo }) => {
					got.push({ from: from?.text ?? '', replyTo: replyTo?.text ?? '' });
					done();
				})
		});
		await new Promise<void>((open) => server.listen(0, '127.0.0.1', open));
		const { port } = server.server.address() as { port: number };
		const [waiting] = await world.db.select().from(mail).where(isNotNull(mail.projectId)).limit(1);
		const mailer = new Mailer(
			{ ...world.config, smtpUrl: `smtp://127.0.0.1:${port}` },
			world.services.database,
			world.services.store
		);
		await mailer.send(waiting!.id);
		mailer.close();
		await new Promise<void>((closed) => server.close(() => closed()));
		expect(got).toEqual([
			{ from: '"Document control, Vennholm" <cupboard@localhost>', replyTo: 'control@vennholm.example' }
		]);
		expect(
			(
				await refused(
					world.act('ines', changeSettings, { project, mailSender: { name: '', replyTo: 'nowhere' } })
				)
			).code
		).toBe('invalid');
		expect((await refused(world.read('oke', settings, { project }))).code).toBe('needs-level');
	});
});

describe('the place of the title block', () => {
	it('is tried on the newest sheets before it is set', async () => {
		const { id, number } = await world.add();
		const sheet = await PDFDocument.create();
		const page = sheet.addPage([841, 594]);
		const font = await sheet.embedFont('Helvetica');
		page.drawText(number, { x: 30, y: 560, size: 10, font });
		page.drawText('P01', { x: 200, y: 560, size: 10, font });
		await world.act('oke', takeLock, { document: id, purpose: 'as a sheet' });
		const upload = await world.send('oke', await sheet.save(), 'sheet.pdf');
		await world.act('oke', handIn, { document: id, upload, note: 'as a sheet' });
		const { hash } = (await world.read('oke', documentView, { document: id })).row;
		await readContent(world.services, hash);
		await drawPreview(world.services, hash);
		const { sheets } = await world.read('ines', titleBlocks, { project });
		const found = sheets.find((one) => one.document === id)!;
		expect(found).toMatchObject({ label: 'P01.2', title: expect.stringContaining('Sheet') as string });
		const { project: here } = await world.read('ines', projectFrame, { project });
		const read = (area: SheetArea) => readTitleBlock(found.words, area, here.numbering, here.revisions);
		// The usual place is the lower right, where nothing stands on this one.
		expect(read(here.titleBlock)).toEqual({ number: null, revision: null });
		expect(read({ left: 0, top: 0, right: 0.6, bottom: 0.2 })).toEqual({
			number,
			revision: 'P01'
		});
		expect((await refused(world.read('oke', titleBlocks, { project }))).code).toBe('needs-level');
	});
});
