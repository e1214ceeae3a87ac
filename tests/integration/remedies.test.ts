import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DrawingPages, titleBlockOf } from '../../src/lib/core/dxf/pages';
import { decodeDxf, readDxf } from '../../src/lib/core/dxf/read';
import { oneStep } from '../../src/lib/core/releases/route';
import { daysLater } from '../../src/lib/core/time/spans';
import { cleanUploads } from '../../src/lib/server/content/content';
import { addDocument } from '../../src/lib/server/documents/acts';
import { writeTitleBlock } from '../../src/lib/server/documents/acts-title-block';
import { documentView } from '../../src/lib/server/documents/views';
import { askForLock, takeLock } from '../../src/lib/server/locks/acts';
import { takeNewest } from '../../src/lib/server/releases/acts';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { releaseView } from '../../src/lib/server/releases/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const build = (...documents: string[]) =>
	world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'comment',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(world.people.halla!.person.id),
		documents
	});
const checkOf = async (number: number, name: string) =>
	(await world.read('ines', releaseView, { project: 'VFT', number })).items[0]!.checks.find(
		(one) => one.name === name
	)!;

const lines = (...all: (string | number)[]) => all.join('\n') + '\n';
/** A drawing with a title block; its revision stands in the table of changes too. */
const drawing = (number: string, revision: string) =>
	lines(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1015', 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES') +
	lines(0, 'LINE', 8, 0, 10, 0, 20, 0, 11, 9, 21, 9, 0, 'INSERT', 8, 0, 66, 1, 2, 'SHEET', 10, 0, 20, 0) +
	lines(0, 'ATTRIB', 8, 0, 10, 0, 20, 0, 40, 3, 1, number, 2, 'DRAWING_NO', 70, 0) +
	lines(0, 'ATTRIB', 8, 0, 10, 0, 20, 0, 40, 3, 1, revision, 2, 'REV', 70, 0, 0, 'SEQEND', 8, 0) +
	lines(0, 'TEXT', 8, 0, 10, 0, 20, 0, 40, 3, 1, revision, 0, 'ENDSEC', 0, 'EOF');
let serial = 700;
async function addDrawing(says: string, revision: string) {
	const number = `VFT-MW-LS-00-DR-0${++serial}`;
	const upload = await world.send('oke', drawing(says || number, revision), 'sheet.dxf');
	return world.act('oke', addDocument, { folder: world.folder, upload, number, title: `Sheet ${serial}` });
}
async function newest(document: string): Promise<Uint8Array> {
	const { row } = await world.read('ines', documentView, { document });
	const pieces: Buffer[] = [];
	for await (const piece of world.services.store.read(row.hash)) pieces.push(piece as Buffer);
	return Buffer.concat(pieces);
}

describe('what a release finds is mended in one step', () => {
	it('number and revision are written in the sheet, as a new version that the release takes', async () => {
		const { id, number } = await addDrawing('VFT-MW-LS-00-DR-0999', 'P09');
		const made = await build(id);
		expect(await checkOf(made.number, 'title-block')).toMatchObject({
			result: 'stops',
			remedy: 'write-title-block'
		});
		const { label } = await world.act('ines', writeTitleBlock, { document: id, revision: 'P01' });
		expect(label).toBe('P01.2');
		await world.act('ines', takeNewest, { release: made.id, document: id });
		expect(await checkOf(made.number, 'title-block')).toMatchObject({ result: 'fine' });
		const bytes = await newest(id);
		expect(titleBlockOf(bytes)).toMatchObject({ number, revision: 'P01' });
		const { texts } = new DrawingPages(readDxf(decodeDxf(bytes))).written();
		expect(texts.map((one) => one.text)).toContain('P09');
		const { versions } = await world.read('ines', documentView, { document: id });
		expect(versions.find((one) => one.label === label)).toMatchObject({
			by: 'Ines Maddock',
			note: 'Number and revision P01 written in the title block'
		});
	});

	it('is refused where it cannot be done, and nothing is stored', async () => {
		const { id } = await addDrawing('', 'P01');
		const write = (who: string, revision = 'P01') =>
			refused(world.act(who, writeTitleBlock, { document: id, revision }));
		expect(await write('ines')).toMatchObject({ code: 'conflict' });
		expect(await write('ines', 'Q9')).toMatchObject({ code: 'invalid', facts: { field: 'revision' } });
		expect(await write('petra')).toMatchObject({ code: 'not-found' });
		await world.act('oke', takeLock, { document: id, purpose: 'hinge' });
		expect(await write('ines', 'P02')).toMatchObject({ code: 'in-hand' });
		const text = await world.add();
		expect(
			await refused(world.act('ines', writeTitleBlock, { document: text.id, revision: 'P01' }))
		).toMatchObject({ code: 'invalid' });
		expect((await world.read('ines', documentView, { document: id })).versions).toHaveLength(1);
		// Whoever has it in hand writes it under their lock, and goes on working.
		expect(await world.act('oke', writeTitleBlock, { document: id, revision: 'P02' })).toEqual({
			label: 'P01.2'
		});
		expect((await world.read('oke', documentView, { document: id })).row.lock).not.toBeNull();
	});

	it('two who write at once make one version', async () => {
		const { id } = await addDrawing('', 'P09');
		const both = await Promise.allSettled(
			['ines', 'oke'].map((who) => world.act(who, writeTitleBlock, { document: id, revision: 'P01' }))
		);
		expect(both.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
		expect((await world.read('ines', documentView, { document: id })).versions).toHaveLength(2);
	});

	it('whoever has it in hand is asked for it, once', async () => {
		const { id } = await world.add();
		const made = await build(id);
		await world.act('oke', takeLock, { document: id, purpose: 'hinge' });
		expect(await checkOf(made.number, 'free')).toMatchObject({ remedy: 'ask-holder' });
		await world.act('ines', askForLock, { document: id, note: 'The release waits for it.' });
		expect(await checkOf(made.number, 'free')).toMatchObject({
			remedy: 'leave-out',
			sentence: 'Oke Lindvar has it in hand, and was asked for it.'
		});
	});
});

describe('an issue that is refused in the last moment', () => {
	it('leaves nothing in the store once it is cleaned', async () => {
		const { id } = await world.add();
		const made = await build(id);
		await world.acceptAll(made);
		await world.act('ines', askApproval, { release: made.id });
		await world.approve('halla', made);
		const stored = async () => {
			const all = new Set<string>();
			for await (const hash of world.services.store.list()) all.add(hash);
			return all;
		};
		const before = await stored();
		const issue = (number: number) => world.act('ines', issueRelease, { release: made.id, number });
		expect(await refused(issue(made.number + 1))).toMatchObject({ code: 'invalid' });
		const left = [...(await stored())].filter((hash) => !before.has(hash));
		expect(left.length).toBeGreaterThan(0);
		await cleanUploads(world.services, daysLater(new Date(), 3));
		const after = await stored();
		expect(left.filter((hash) => after.has(hash))).toEqual([]);
		// It can be issued all the same, and what it made now stays.
		const { documents } = await issue(made.number);
		expect(documents).toBe(1);
	});
});
