import { mkdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDocument } from '../../src/lib/server/documents/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { takeLock } from '../../src/lib/server/locks/acts';
import { removePlace } from '../../src/lib/server/removed/acts';
import { changeDocument } from '../../src/lib/server/places/acts-organise';
import { learnWords, readContent, readMissed } from '../../src/lib/server/find/reading';
import { writtenIn } from '../../src/lib/server/formats/written';
import { find } from '../../src/lib/server/find/views';
import { docx, pdfText, xlsx } from '../../scripts/world/papers';
import { TestWorld } from './world';

let world: TestWorld;
let fender: string;
beforeAll(async () => {
	world = await TestWorld.open();
	fender = await add('Fender layout', 'VFT-MW-LS-00-DR-1201', 'The fenders stand on neoprene. Ünterlage');
	await add('Linkspan bearing schedule', 'VFT-MW-LS-00-SH-1202', 'bearing list');
	await readMissed(world.services);
	await learnWords(world.db);
});
afterAll(() => world.close());

async function add(title: string, number: string, text: string, folder = world.folder, name = 'a.txt') {
	const upload = await world.send('oke', text, name);
	return (await world.act('oke', addDocument, { folder, upload, number, title })).id;
}
const found = async (q: string, who = 'rhosyn') => {
	const answer = await world.read(who, find, { project: 'VFT', q });
	return { ...answer, titles: answer.rows.map((r) => r.title) };
};

describe('finding', () => {
	it.each([
		['part of a number', '-1201'],
		['the end of a number', '1201'],
		['a whole number', 'VFT-MW-LS-00-DR-1201'],
		['parts of a number without its digits', 'MW-LS DR fender'],
		['words of the title in any order', 'LAYOUT fender'],
		['the beginnings of words', 'fend lay'],
		['words inside', 'neoprene'],
		['words inside in any case and script', 'üNTERLAGE'],
		['a word of the title and one inside', 'layout neoprene']
	])('finds by %s', async (_, q) => {
		const answer = await found(q);
		expect(answer.titles).toEqual(['Fender layout']);
		expect(answer.close).toBe(false);
	});

	it('shows where words inside stand', async () => {
		expect((await found('neoprene')).passages).toEqual({
			[fender]: 'The fenders stand on neoprene. Ünterlage'
		});
		expect((await found('layout')).passages).toEqual({});
	});

	it('finds with typing errors and by parts of words, and says that it does', async () => {
		for (const q of ['fedner', 'fendr layuot', 'neoprena', 'opren']) {
			const answer = await found(q);
			expect(answer.titles, q).toEqual(['Fender layout']);
			expect(answer.close, q).toBe(true);
		}
		expect(await found('zzzzqqq')).toMatchObject({ rows: [], close: false, more: false });
	});

	it('puts what is named by the words before what only holds them', async () => {
		await add('Bearing replacement', 'VFT-MW-LS-00-RP-1203', 'nothing else');
		await add('Notes', 'VFT-MW-LS-00-RP-1204', 'on the bearing');
		await readMissed(world.services);
		expect((await found('bearing')).titles.at(-1)).toBe('Notes');
	});

	it('finds a long text by its last page, and nothing by what is only packed into letters', async () => {
		const page = (n: number) =>
			`Page ${n}. ${'The operator checks the pressure before each lift. '.repeat(60)}`;
		const manual =
			Array.from({ length: 311 }, (_, i) => page(i + 1)).join('\n') + '\nThe last word is quernstone.';
		const packed = Buffer.from('attachment '.repeat(40)).toString('base64');
		await add('Operation manual', 'VFT-MW-LS-00-RP-1301', `${manual}\n${packed}`);
		// Figures without end: more different words than can be kept of one text.
		const figures = Array.from({ length: 160_000 }, (_, i) => `f${i}x${i * 7}`).join(' ');
		await add('Level readings', 'VFT-MW-LS-00-RP-1302', `riddle ${figures}`);
		await readMissed(world.services);
		expect((await found('quernstone')).titles).toEqual(['Operation manual']);
		expect((await found(packed.slice(0, 40))).titles).toEqual([]);
		expect((await found('riddle')).titles).toEqual(['Level readings']);
	});

	it('takes quotes, signs and operators for nothing but signs', async () => {
		for (const q of [`fender' | 'linkspan`, 'fender & !', "''", '&|!()', '%_%', '\\\\', ':*', 'layout:*'])
			await found(q);
		expect((await found("fender' & layout:*")).titles).toEqual(['Fender layout']);
	});

	it('follows a document through a new title, a new version and its removal', async () => {
		const id = await add('Mooring plan', 'VFT-MW-LS-00-DR-1205', 'first text obelisk');
		expect((await found('mooring')).titles).toEqual(['Mooring plan']);
		await world.act('oke', changeDocument, { document: id, title: 'Berthing plan' });
		expect((await found('mooring')).titles).toEqual([]);
		expect((await found('berthing')).titles).toEqual(['Berthing plan']);
		await readMissed(world.services);
		expect((await found('obelisk')).titles).toEqual(['Berthing plan']);
		await world.act('oke', takeLock, { document: id, purpose: 'new text' });
		const upload = await world.send('oke', 'second text pyramid', 'a.txt');
		await world.act('oke', handIn, { document: id, upload, note: 'other words' });
		expect((await found('obelisk')).titles).toEqual([]);
		await readMissed(world.services);
		expect((await found('pyramid')).titles).toEqual(['Berthing plan']);
		await world.act('oke', removePlace, { place: id, reason: 'not needed' });
		expect((await found('pyramid')).titles).toEqual([]);
	});

	it('knows the words of bytes that were read before, and of bytes that are read twice', async () => {
		await add('A copy', 'VFT-MW-LS-00-RP-1206', 'The fenders stand on neoprene. Ünterlage');
		expect((await found('neoprene')).titles.sort()).toEqual(['A copy', 'Fender layout']);
		const [row] = await world.db.execute<{ hash: string }>(
			sql`select hash from content_text where text like '%neoprene%'`
		);
		await readContent(world.services, row!.hash);
		expect((await found('neoprene')).titles).toHaveLength(2);
	});

	it('tells nobody of words in what they may not look at, with typing errors either', async () => {
		const secret = 'VFT-MW-LS-00-RP-1207';
		await add('Kryptonite tender', secret, 'quetzalcoatl');
		await readMissed(world.services);
		await learnWords(world.db);
		for (const q of ['kryptonite', 'kryptonit tendre', 'quetzalcoatl', 'etzalc', '1207']) {
			expect((await found(q)).titles, q).toEqual(['Kryptonite tender']);
			expect(await found(q, 'edda'), q).toEqual({
				rows: [],
				titles: [],
				close: false,
				more: false,
				passages: {}
			});
		}
	});
});

describe('what stands written in files', () => {
	const made = join(tmpdir(), `cupboard-written-${process.pid}`);
	beforeAll(() => mkdir(made));
	afterAll(() => rm(made, { recursive: true }));
	const read = async (bytes: Uint8Array | string, mediaType: string) => {
		const path = join(made, 'file');
		await writeFile(path, bytes);
		return writtenIn({ path, mediaType, size: bytes.length });
	};
	const at = new Date('2026-11-23T08:00:00Z');
	const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
	const SHEET = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

	it('is read from office files, PDF, drawings, tables and pages', async () => {
		expect(await read(await docx('VFT-1', 'Corrosion protection of steel', 'P01', 0), WORD)).toContain(
			'Corrosion protection of steel'
		);
		expect(await read(await xlsx('VFT-2', 'Door schedule', 'P01', 0), SHEET)).toMatch(/Door schedule|VFT-2/);
		expect(
			await read(await pdfText('SP', 'VFT-3', 'Bearing supplier report', 0, at), 'application/pdf')
		).toContain('Bearing supplier report');
		expect(await read('<html><style>p{}</style><p>One</p><p>T<b>w</b>o &amp; &#51;</p>', 'text/html')).toBe(
			'One Two & 3'
		);
	});

	it('is nothing for pictures, and ends at a bound for what is endless', async () => {
		expect(await read(new Uint8Array(40), 'image/png')).toBe('');
		expect(await read('word '.repeat(700_000), 'text/plain')).toHaveLength(3_000_000);
	});

	it('fails for what is damaged, and the document can still be found by its name', async () => {
		await expect(read('PK not a zip', WORD)).rejects.toThrow();
		await add('Damaged method', 'VFT-MW-LS-00-RP-1208', '%PDF-1.4 broken', world.folder, 'a.pdf');
		await readMissed(world.services);
		expect((await found('damaged')).titles).toEqual(['Damaged method']);
	});
});
