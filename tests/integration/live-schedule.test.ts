import { eq } from 'drizzle-orm';
import ExcelJS from '@protobi/exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readFile } from 'node:fs/promises';
import { columnSchema, type ColumnFields } from '../../src/lib/core/schedule/column';
import { addRows, readSchedule, setCells } from '../../src/lib/core/schedule/shared';
import { letIn } from '../../src/lib/server/access/acts';
import { addDocument } from '../../src/lib/server/documents/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { endLive, handInLive, restoreLive } from '../../src/lib/server/live/acts';
import { addLivePicture, workLive } from '../../src/lib/server/live/acts-texts';
import { addLiveSchedule, workScheduleLive } from '../../src/lib/server/live/acts-schedules';
import { takeLock } from '../../src/lib/server/locks/acts';
import { addRemark } from '../../src/lib/server/remarks/acts';
import { version } from '../../src/lib/server/platform/db/schema';
import { newId } from '../../src/lib/server/platform/ids';
import { documentView } from '../../src/lib/server/documents/views';
import { liveSchedule, liveText } from '../../src/lib/server/live/views';
import { remarks } from '../../src/lib/server/remarks/views';
import { liveFileResponse } from '../../src/lib/server/live/file';
import { Guest, RoomServer } from './room';
import { refused, TestWorld } from './world';

let world: TestWorld;
let rooms: RoomServer;
const idOf = (who: string) => world.people[who]!.person.id;

/** Somebody with the schedule open in a browser. */
class Clerk extends Guest {
	get marks(): unknown[] {
		const { columns, rows } = readSchedule(this.doc);
		return rows.map((r) => r.cells[columns[0]!.id]);
	}
	override says(): string {
		return JSON.stringify(this.marks);
	}
	set(row: number, column: number, value: string | number): void {
		const { columns, rows } = readSchedule(this.doc);
		setCells(this.doc, [{ row: rows[row]!.id, column: columns[column]!.id, value }]);
	}
	add(mark: string): void {
		const { columns, rows } = readSchedule(this.doc);
		addRows(this.doc, rows, rows.length, [{ [columns[0]!.id]: mark }], newId);
	}
}
const enter = (who: string, room: string): Promise<Clerk> => rooms.enter(Clerk, who, room);
const columns: ColumnFields[] = [
	columnSchema.parse({ name: 'Pile', form: 'P-##', unique: true }),
	columnSchema.parse({ name: 'Length', kind: 'number', unit: 'm', total: 'sum' }),
	columnSchema.parse({ name: 'Twice', kind: 'formula', formula: '[Length] * 2', unit: 'm' })
];
const rowsOf = (count: number) => Array.from({ length: count }, (_, i) => [`P-0${i + 1}`, 10 + i, null]);

let serial = 0;
async function begin(rows = rowsOf(3)): Promise<{ id: string; room: string; number: string }> {
	const number = `VFT-MW-LS-00-SH-${String(++serial).padStart(4, '0')}`;
	const { id } = await world.act('oke', addLiveSchedule, {
		folder: world.folder,
		number,
		title: 'Pile schedule',
		schedule: { columns, rows }
	});
	return { id, number, room: (await world.read('oke', documentView, { document: id })).room!.name };
}
async function fileOf(id: string): Promise<ExcelJS.Workbook> {
	const [row] = await world.db.select().from(version).where(eq(version.documentId, id)).orderBy(version.seq);
	const book = new ExcelJS.Workbook();
	await book.xlsx.load(
		(await readFile(await world.services.store.localPath(row!.hash))).buffer as ArrayBuffer
	);
	return book;
}

beforeAll(async () => {
	world = await TestWorld.open();
	rooms = await RoomServer.start(world);
	await world.act('oke', letIn, {
		place: world.folder,
		lines: [
			{ subject: { kind: 'person', id: idOf('halla') }, level: 'remark' },
			{ subject: { kind: 'person', id: idOf('petra') }, level: 'view' }
		]
	});
});
afterAll(async () => {
	rooms.close();
	await world.close();
});

describe('a live schedule', () => {
	it('begins as an open file that any office program reads, with its formulas and rules', async () => {
		const { id } = await begin();
		const book = await fileOf(id);
		expect(book.worksheets.map((s) => s.name)).toEqual(['VFT-MW-LS-00-SH-0001', 'Totals', 'Columns']);
		const sheet = book.worksheets[0]!;
		expect(sheet.getCell('A2').value).toBe('P-01');
		expect(sheet.getCell('C3').value).toMatchObject({ formula: 'B3 * 2', result: 22 });
		expect(book.worksheets[2]!.getCell('B3').value).toBe('number');
	});

	it('is filled in by two at once, through a lost line, and nothing is lost', async () => {
		const { id, room } = await begin();
		const [oke, rhosyn] = [await enter('oke', room), await enter('rhosyn', room)];
		await Promise.all([oke, rhosyn].map((one) => one.until(() => one.marks.length === 3)));
		oke.set(0, 1, 12.5);
		await rhosyn.until(
			() => readSchedule(rhosyn.doc).rows[0]!.cells[readSchedule(rhosyn.doc).columns[1]!.id] === 12.5
		);
		rhosyn.line(false);
		await rhosyn.until(() => rhosyn.closes.length > 0);
		rhosyn.add('P-10');
		oke.add('P-11');
		oke.set(1, 0, 'P-02a');
		rhosyn.set(1, 1, 99);
		rhosyn.line(true);
		for (const one of [oke, rhosyn])
			await one.until(() => one.marks.length === 5 && one.marks.includes('P-02a'));
		expect(readSchedule(oke.doc)).toEqual(readSchedule(rhosyn.doc));
		// Before anything is said of it, it is stored.
		await world.services.rooms.record.flush(room);
		const now = await world.read('petra', liveSchedule, { document: id });
		expect(now.rows).toHaveLength(5);
		expect(Object.values(now.rows[1]!.cells).sort()).toEqual([99, 'P-02a']);
	});

	it('is only read by who may not work here, also with a tampered browser', async () => {
		const { id, room } = await begin();
		const oke = await enter('oke', room);
		for (const who of ['halla', 'petra']) {
			const guest = await enter(who, room);
			await guest.until(() => guest.marks.length === 3);
			guest.add(`by ${who}`);
			await guest.until(() => guest.closes.includes(4409));
			guest.close();
		}
		await oke.until(() => oke.marks.length === 3);
		// What may be written comes through, after what may not.
		oke.add('P-04');
		const rhosyn = await enter('rhosyn', room);
		await rhosyn.until(() => rhosyn.marks.includes('P-04'));
		expect(rhosyn.marks).toEqual(['P-01', 'P-02', 'P-03', 'P-04']);
		await world.services.rooms.record.flush(room);
		expect((await world.read('oke', liveSchedule, { document: id })).rows).toHaveLength(4);
	});

	it('is read by the others while somebody has it in hand', async () => {
		const { id, room } = await begin();
		const rhosyn = await enter('rhosyn', room);
		await rhosyn.until(() => rhosyn.marks.length === 3);
		const away = await enter('rhosyn', room);
		await away.until(() => away.marks.length === 3);
		away.line(false);
		away.add('P-09');
		await world.act('oke', takeLock, { document: id, purpose: 'levels' });
		await rhosyn.until(() => rhosyn.closes.length > 0);
		// What they did elsewhere without a line, before the lock, is not swallowed: they are told that it does not go in.
		away.line(true);
		await away.until(() => away.closes.includes(4409));
		away.close();
		expect((await world.read('rhosyn', liveSchedule, { document: id })).rows).toHaveLength(3);
		expect((await world.read('rhosyn', documentView, { document: id })).room).toMatchObject({
			kind: 'schedule',
			mode: 'read'
		});
	});

	it('makes versions, goes back to one, and ends as a file', async () => {
		const { id, room } = await begin();
		const oke = await enter('oke', room);
		await oke.until(() => oke.marks.length === 3);
		expect((await refused(world.act('oke', handInLive, { document: id, note: 'x' }))).sentence).toMatch(
			/Nothing was changed/
		);
		oke.add('P-04');
		await world.services.rooms.read(room, () => {});
		await oke.until(() => oke.provider.unsyncedChanges === 0);
		expect(await world.act('oke', handInLive, { document: id, note: 'one more', format: 'ods' })).toEqual({
			label: 'P01.2'
		});
		const wrong = await refused(world.act('oke', handInLive, { document: id, note: 'x', format: 'docx' }));
		expect(wrong.sentence).toBe('It is kept as XLSX or ODS or CSV.');
		await world.act('oke', restoreLive, { document: id, label: 'P01.1' });
		await oke.until(() => oke.marks.length === 3);
		expect((await refused(world.act('oke', endLive, { document: id }))).code).toBe('conflict');
		await world.act('oke', handInLive, { document: id, note: 'as before', format: 'csv' });
		await world.act('oke', endLive, { document: id });
		expect((await world.read('oke', documentView, { document: id })).row.kind).toBe('file');
	});

	it('is taken as XLSX, ODS and CSV by who may take, and as nothing else', async () => {
		const { id } = await begin();
		const take = (who: string, format: string) =>
			liveFileResponse(world.services, world.people[who]!, id, format);
		const csv = await (await take('oke', 'csv')).text();
		expect(csv).toBe('Pile,Length,Twice\r\nP-01,10,20\r\nP-02,11,22\r\nP-03,12,24\r\n');
		const ods = new Uint8Array(await (await take('oke', 'ods')).arrayBuffer());
		expect(new TextDecoder('latin1').decode(ods.subarray(30, 90))).toContain(
			'application/vnd.oasis.opendocument.spreadsheet'
		);
		expect((await refused(take('oke', 'docx'))).code).toBe('invalid');
		expect((await refused(take('petra', 'csv'))).code).toBe('needs-level');
	});

	it('begins on a file, once, and only with what was the newest', async () => {
		const upload = await world.send('oke', 'Pile,Length\nP-01,10\n', 'piles.csv');
		const { id } = await world.act('oke', addDocument, {
			folder: world.folder,
			upload,
			number: 'VFT-MW-LS-00-SH-0800',
			title: 'Piles'
		});
		const schedule = { columns: columns.slice(0, 2), rows: [['P-01', 10]] };
		expect(
			(await refused(world.act('oke', workScheduleLive, { document: id, base: 'P09', schedule }))).code
		).toBe('stale-base');
		await world.act('oke', workScheduleLive, { document: id, base: 'P01.1', schedule });
		expect(
			(await refused(world.act('oke', workScheduleLive, { document: id, base: 'P01.1', schedule }))).sentence
		).toBe('This is edited together already.');
		const other = await world.send('oke', 'other');
		expect((await refused(world.act('oke', handIn, { document: id, upload: other, note: 'x' }))).code).toBe(
			'conflict'
		);
	});

	it('refuses what is no schedule', async () => {
		const add = (schedule: unknown) =>
			refused(
				world.act('oke', addLiveSchedule, {
					folder: world.folder,
					number: 'VFT-MW-LS-00-SH-0900',
					title: 'x',
					schedule
				})
			);
		expect((await add({ columns: [], rows: [] })).sentence).toContain('A schedule has at least one column.');
		expect((await add({ columns: [columns[0], columns[0]], rows: [] })).sentence).toContain(
			'Two columns have the same name.'
		);
		expect((await add({ columns, rows: [[{ no: 'cell' }]] })).code).toBe('invalid');
	});

	it('keeps to its kind: no passages, no pictures, no text', async () => {
		const { id } = await begin();
		const upload = await world.send('oke', 'x');
		expect((await refused(world.act('oke', addLivePicture, { document: id, upload }))).sentence).toBe(
			'Only a text that is edited together has this.'
		);
		expect((await refused(world.read('oke', liveText, { document: id }))).code).toBe('not-found');
		const text = { type: 'doc', content: [{ type: 'paragraph' }] };
		expect((await refused(world.act('oke', workLive, { document: id, base: 'P01.1', text }))).code).toBe(
			'conflict'
		);
		const anchor = { on: 'passage', from: 'x', to: 'y' };
		expect((await refused(world.act('oke', addRemark, { document: id, anchor, text: 'x' }))).code).toBe(
			'invalid'
		);
	});

	it('carries remarks on its cells', async () => {
		const { id } = await begin();
		const { columns: c, rows } = await world.read('halla', liveSchedule, { document: id });
		const anchor = { on: 'cell', row: rows[1]!.id, column: c[1]!.id };
		await world.act('halla', addRemark, {
			document: id,
			anchor,
			text: 'Too short?',
			quote: 'P-02, Length: 11'
		});
		const [made] = (await world.read('oke', remarks, { document: id })).remarks;
		expect(made).toMatchObject({ anchor, quote: 'P-02, Length: 11', by: 'Halla Brandt' });
		const plain = await world.add();
		expect(
			(await refused(world.act('oke', addRemark, { document: plain.id, anchor, text: 'x' }))).sentence
		).toBe('This can be remarked on in a live schedule only.');
	});

	it('takes 5,000 pasted rows at once', async () => {
		const { room } = await begin();
		const [oke, rhosyn] = [await enter('oke', room), await enter('rhosyn', room)];
		for (const one of [oke, rhosyn]) await one.until(() => one.marks.length === 3);
		const { columns: c, rows } = readSchedule(oke.doc);
		oke.doc.transact(() =>
			addRows(
				oke.doc,
				rows,
				3,
				Array.from({ length: 5_000 }, (_, i) => ({ [c[0]!.id]: `P-${i}`, [c[1]!.id]: i })),
				newId
			)
		);
		await rhosyn.until(() => readSchedule(rhosyn.doc).rows.length === 5_003);
		expect(readSchedule(rhosyn.doc)).toEqual(readSchedule(oke.doc));
	});
});
