import { eq } from 'drizzle-orm';
import { simpleParser, type ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_STAGES } from '../../src/lib/core/register';
import { FIELD_HEADS, plannedHead, type ColumnOf } from '../../src/lib/core/register/import';
import { dayOf } from '../../src/lib/core/time/days';
import { daysLater } from '../../src/lib/core/time/spans';
import { weekdayOf } from '../../src/lib/core/time/working-days';
import { cleanUploads } from '../../src/lib/server/content/content';
import { leavePerson } from '../../src/lib/server/people/acts-membership';
import { mail, project as projectTable } from '../../src/lib/server/platform/db/schema';
import { Mailer } from '../../src/lib/server/platform/mail/send';
import { importDeliverables } from '../../src/lib/server/register/acts-list';
import { addFromTemplate, endTemplate, keepTemplate } from '../../src/lib/server/register/acts-templates';
import { sendReports } from '../../src/lib/server/register/report';
import { registerColumns, registerTemplates } from '../../src/lib/server/register/views-kept';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { project, registerIn } from './register-world';
import { refused, TestWorld } from './world';

let world: TestWorld;
let { add, lines, lineOf, newest, says, nextNumber } = {} as ReturnType<typeof registerIn>;
beforeAll(async () => {
	world = await TestWorld.open();
	({ add, lines, lineOf, newest, says, nextNumber } = registerIn(world));
});
afterAll(() => world.close());

describe('a list that is taken in', () => {
	const heads = [...Object.values(FIELD_HEADS), ...USUAL_STAGES.map(plannedHead)];
	const columns: (ColumnOf | null)[] = [
		'number',
		'title',
		'department',
		'responsible',
		'weight',
		...USUAL_STAGES.map((one): ColumnOf => `planned:${one.key}`)
	];
	const list = (rows: string[][], more: object = {}) =>
		world.act('ines', importDeliverables, { project, file: 'plan.csv', heads, columns, rows, ...more });

	it('is tried first, with the fate of every line; then done as one act', async () => {
		const there = await add({ title: 'Bollard', weight: 2, planned: { comment: '2027-02-01' } });
		const fresh = nextNumber();
		const rows = [
			[there.number, 'Bollards', 'MW', 'oke@vennholm.example', '2', '8 Feb 2027', '', '', ''],
			[fresh, 'Ladder', 'Architecture', '', '', '2027-03-01', '', '', ''],
			['', 'No number', '', '', '', '', '', '', ''],
			[nextNumber(), 'Odd day', 'MW', '', '', '31 Feb 2027', '', '', '']
		];
		const before = await newest();
		const tried = await list(rows, { trial: true });
		expect(tried).toMatchObject({ added: 1, changed: 1, same: 0, refused: 2 });
		expect(tried.lines.map((one) => [one.line, one.fate])).toEqual([
			[3, 'refused'],
			[4, 'refused'],
			[1, 'changed'],
			[2, 'new']
		]);
		expect(tried.lines[2]!.changes).toEqual([
			{ what: 'title', from: 'Bollard', to: 'Bollards' },
			{ what: 'who is responsible', from: '', to: 'Oke Lindvar' },
			{ what: 'For comment', from: '2027-02-01', to: '2027-02-08' }
		]);
		expect(await newest()).toEqual(before);
		expect((await refused(list(rows))).sentence).toContain('2 lines cannot be taken in');
		await list(rows, { leaveOut: true });
		expect(await says()).toBe('took in the list plan.csv: 1 new deliverable, 1 changed');
		expect((await lineOf(there.id)).stages[0]!.planned).toBe('2027-02-08');
		expect((await lineOf(fresh)).stages.map((one) => one.stage)).toEqual(['comment']);
		// Taken in a second time it changes nothing, and writes nothing.
		const same = await newest();
		expect(await list(rows.slice(0, 2))).toMatchObject({ added: 0, changed: 0, same: 2 });
		expect(await newest()).toEqual(same);
	});

	it('is as long as the register of a large project, and changes nothing when it comes again', async () => {
		const rows = Array.from({ length: 2_500 }, (_, i) => [
			`VFT-MW-LG-${String(Math.floor(i / 9_000)).padStart(2, '0')}-DR-${String(i + 1).padStart(4, '0')}`,
			`Panel ${i + 1}`,
			'MW',
			'',
			'1',
			'1 Mar 2031',
			'',
			'',
			''
		]);
		expect(await list(rows)).toMatchObject({ added: 2_500 });
		const later = rows.map((row) => row.with(5, '8 Mar 2031'));
		expect(await list(later)).toMatchObject({ added: 0, changed: 2_500 });
		expect(await list(later)).toMatchObject({ added: 0, changed: 0, same: 2_500 });
		expect((await lines('ines', { zones: ['LG'], from: '2031-03-08', to: '2031-03-08' })).total).toBe(2_500);
	});

	it('knows who is responsible although they left meanwhile', async () => {
		const there = await add({ title: 'Handrail', responsible: world.people.rhosyn!.person.id });
		await world.act('ines', leavePerson, {
			project,
			person: world.people.rhosyn!.person.id,
			reason: 'another job'
		});
		const row = (who: string) => [there.number, 'Handrail', 'MW', who, '1', '', '', '', ''];
		expect(await list([row('Rhosyn Hale')], { trial: true })).toMatchObject({ same: 1, refused: 0 });
		const fresh = [nextNumber(), 'Handrail, east', 'MW', 'Nobody Atall', '', '', '', '', ''];
		expect(await list([fresh], { trial: true })).toMatchObject({ refused: 1 });
	});

	it('remembers how its columns were matched by hand', async () => {
		await world.act('ines', importDeliverables, {
			project,
			file: 'theirs.xlsx',
			heads: ['Blatt', 'Was', 'Farbe'],
			columns: ['number', 'title', null],
			rows: [[nextNumber(), 'Kerb', 'red']]
		});
		const known = (await world.read('ines', registerColumns, { project })).columns;
		expect(known).toMatchObject({ blatt: 'number', was: 'title', farbe: null });
	});

	it('is refused without a column for the number, or with columns that are none', async () => {
		const odd = (of: (string | null)[]) =>
			refused(
				world.act('ines', importDeliverables, {
					project,
					file: 'x.csv',
					heads: of.map(String),
					columns: of,
					rows: [['a']]
				})
			);
		expect(await odd([null])).toMatchObject({ code: 'invalid', facts: { field: 'columns' } });
		expect((await odd(['colour'])).code).toBe('invalid');
	});
});

describe('templates', () => {
	it('make the like of some deliverables again, with free numbers and days from a beginning on', async () => {
		const head = 'VFT-MW-TM-00-DR-';
		const [plan, section] = [
			await add({ number: `${head}0001`, title: 'Berth plan', planned: { comment: '2030-01-07' } }),
			await add({
				number: `${head}0002`,
				title: 'Berth section',
				weight: 2,
				planned: { comment: '2030-01-14' }
			})
		];
		const deliverables = [plan.id, section.id];
		const kept = await world.act('ines', keepTemplate, { project, name: 'A berth', deliverables });
		expect(await says()).toBe('keeps 2 deliverables as the template “A berth”');
		const input = {
			project,
			template: kept.id,
			department: world.departments.AR,
			parts: { zone: 'BT' },
			begins: '2031-03-03'
		};
		const tried = await world.act('ines', addFromTemplate, { ...input, trial: true });
		expect(tried.deliverables).toEqual([
			{ number: 'VFT-AR-BT-00-DR-0001', title: 'Berth plan', planned: { comment: '2031-03-03' } },
			{ number: 'VFT-AR-BT-00-DR-0002', title: 'Berth section', planned: { comment: '2031-03-10' } }
		]);
		expect((await refused(lineOf('VFT-AR-BT-00-DR-0001'))).code).toBe('not-found');
		// Two at the same time get numbers of their own.
		await Promise.all([world.act('ines', addFromTemplate, input), world.act('ines', addFromTemplate, input)]);
		const made = await lines('ines', { zones: ['BT'] });
		expect(made.rows.map((row) => row.number.slice(-4))).toEqual(['0001', '0002', '0003', '0004']);
		expect(made.rows.map((row) => row.weight)).toEqual([1, 2, 1, 2]);
		expect((await world.read('ines', registerTemplates, { project })).templates).toMatchObject([
			{ name: 'A berth', deliverables: 2 }
		]);
		await world.act('ines', endTemplate, { project, template: kept.id });
		expect((await refused(world.act('ines', addFromTemplate, input))).code).toBe('not-found');
		expect((await refused(world.read('oke', registerTemplates, { project }))).code).toBe('needs-level');
	});
});

describe('the weekly report', () => {
	it('goes to the list once a week with the whole register, however many servers run', async () => {
		const now = new Date();
		const weekday = weekdayOf(dayOf(now, 'UTC'));
		const to = ['rut@harbourtrust.example', 'site@vennholm.example'];
		await world.db.update(projectTable).set({ timeZone: 'UTC' });
		const report = (of: object) => ({ project, registerReport: { weekday, to, ...of } });
		const tried = await world.act('ines', changeSettings, { ...report({}), trial: true });
		expect(tried.effects[0]).toContain('The whole register goes to 2 addresses each week');
		await sendReports(world.services, now);
		expect(await world.mailsTo(to[0]!)).toEqual([]);
		await world.act('ines', changeSettings, report({}));
		await Promise.all([sendReports(world.services, now), sendReports(await world.beside(), now)]);
		await sendReports(world.services, daysLater(now, 3));
		for (const address of to) expect(await world.mailsTo(address)).toHaveLength(1);
		await sendReports(world.services, daysLater(now, 7));
		expect(await world.mailsTo(to[0]!)).toHaveLength(2);

		// What goes with the mail is kept as long as the mail is, and arrives as a file.
		const [waiting] = await world.db.select().from(mail).where(eq(mail.toAddress, to[0]!)).limit(1);
		await cleanUploads(world.services, daysLater(now, 30));
		const got: ParsedMail[] = [];
		const server = new SMTPServer({
			authOptional: true,
			disabledCommands: ['STARTTLS'],
			onData: (stream, _, done) =>
				void simpleParser(stream).then((one) => {
					got.push(one);
					done();
				})
		});
		await new Promise<void>((open) => server.listen(0, '127.0.0.1', open));
		const { port } = server.server.address() as { port: number };
		const mailer = new Mailer(
			{ ...world.config, smtpUrl: `smtp://127.0.0.1:${port}` },
			world.services.database,
			world.services.store
		);
		await mailer.send(waiting!.id);
		mailer.close();
		await new Promise<void>((closed) => server.close(() => closed()));
		const [file] = got[0]!.attachments;
		expect(file).toMatchObject({
			contentType: 'application/pdf',
			filename: expect.stringMatching(/^VFT register .*pdf$/)
		});
		expect(file!.content.subarray(0, 5).toString()).toBe('%PDF-');
	});
});
