import { readFile } from 'node:fs/promises';
import { desc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { DxfWriter } from '../../scripts/world/drawings/dxf-writer';
import { attributesOf, wordsOf } from '../../src/lib/core/drawing/edited';
import { itemSchema } from '../../src/lib/core/drawing/item';
import {
	addItem,
	baseOf,
	changeEntity,
	itemsOf,
	layersOf,
	ownersOf,
	readEdits
} from '../../src/lib/core/drawing/shared';
import { decodeDxf, readDxf, type Drawing } from '../../src/lib/core/dxf/read';
import { letIn } from '../../src/lib/server/access/acts';
import { handInLive, restoreLive } from '../../src/lib/server/live/acts';
import { giveLayer, workDrawingLive } from '../../src/lib/server/live/acts-drawings';
import { addRemark } from '../../src/lib/server/remarks/acts';
import { version } from '../../src/lib/server/platform/db/schema';
import { trail } from '../../src/lib/server/trail/views';
import { documentView } from '../../src/lib/server/documents/views';
import { liveDrawing } from '../../src/lib/server/live/views';
import { Guest, RoomServer } from './room';
import { refused, TestWorld } from './world';

let world: TestWorld;
let rooms: RoomServer;
const idOf = (who: string) => world.people[who]!.person.id;

/** A drawing with a line on a layer of Marine works, a text on one of Architecture, a line of nobody, a title block. */
function sheet(): string {
	const w = new DxfWriter(50);
	w.line('MW-STEEL', 0, 0, 1000, 0);
	w.text(100, 100, 2.5, 'HAT +3.40', { layer: 'AR-NOTES' });
	w.line('GRID', 0, 500, 1000, 500);
	w.sheet({
		number: 'VFT-MW-LS-00-DR-0001',
		title: 'Sheet',
		revision: 'P01.1',
		scale: '1:50',
		date: '2026-11-25',
		drawn: 'RH',
		department: 'Marine works'
	});
	return String(w);
}
const [STEEL, NOTE, GRID] = [0, 1, 2];

/** Somebody with the drawing open in a browser. */
class Drafter extends Guest {
	override says(): string {
		const { changes, items } = readEdits(this.doc);
		return JSON.stringify([[...changes], items]);
	}
	get ready(): boolean {
		return baseOf(this.doc).has('hash');
	}
	change(at: number, change: Parameters<typeof changeEntity>[2]): void {
		changeEntity(this.doc, at, change);
	}
	draw(id: string, layer: string, x = 0): void {
		const points = [
			[x, 0],
			[x + 10, 10]
		];
		addItem(this.doc, { id, ...itemSchema.parse({ kind: 'line', layer, points }) });
	}
}
const enter = (who: string, room: string): Promise<Drafter> => rooms.enter(Drafter, who, room);

async function begin(): Promise<{ id: string; room: string }> {
	const { id } = await world.add('oke', sheet());
	await world.act('oke', workDrawingLive, { document: id, base: 'P01.1' });
	return { id, room: (await world.read('oke', documentView, { document: id })).room!.name };
}
async function newest(id: string): Promise<Drawing> {
	const [row] = await world.db
		.select()
		.from(version)
		.where(eq(version.documentId, id))
		.orderBy(desc(version.seq));
	return readDxf(decodeDxf(await readFile(await world.services.store.localPath(row!.hash))));
}

beforeAll(async () => {
	world = await TestWorld.open();
	rooms = await RoomServer.start(world);
	await world.act('oke', letIn, {
		place: world.folder,
		lines: [
			{ subject: { kind: 'person', id: idOf('halla') }, level: 'work' },
			{ subject: { kind: 'person', id: idOf('petra') }, level: 'remark' }
		]
	});
});
afterAll(async () => {
	rooms.close();
	await world.close();
});

describe('a live drawing', () => {
	it('is edited by two departments at once, each on its layers, and handed in as DXF', async () => {
		const { id, room } = await begin();
		const [oke, halla] = [await enter('oke', room), await enter('halla', room)];
		for (const one of [oke, halla]) await one.until(() => one.ready);
		const before = await newest(id);
		const title = before.entities.findIndex((e) => attributesOf(e).some((a) => a.tag === 'REVISION'));
		oke.change(STEEL!, { move: [0, 250] });
		halla.change(NOTE!, { text: 'HAT +3.55' });
		oke.draw('aaaaaaaaaa', 'MW-STEEL');
		halla.draw('bbbbbbbbbb', 'GRID', 50);
		halla.line(false);
		await halla.until(() => halla.closes.length > 0);
		halla.change(GRID!, { move: [5, 5] });
		oke.change(GRID!, { layer: '0' });
		halla.line(true);
		for (const one of [oke, halla])
			await one.until(() => {
				const { changes, items } = readEdits(one.doc);
				return items.length === 2 && changes.size === 3 && changes.get(GRID!)?.move !== undefined;
			});
		expect(readEdits(oke.doc)).toEqual(readEdits(halla.doc));
		await oke.until(() => oke.provider.unsyncedChanges === 0);
		expect(await world.act('oke', handInLive, { document: id, note: 'HAT and the deck' })).toEqual({
			label: 'P01.2'
		});
		const after = await newest(id);
		expect(wordsOf(after.entities[NOTE!]!)).toBe('HAT +3.55');
		expect(after.entities).toHaveLength(before.entities.length + 2);
		// What nobody touched is what it was.
		expect(after.entities[title]).toEqual(before.entities[title]);
		expect(after.blocks).toEqual(before.blocks);
	});

	it('nobody edits another department’s layer, takes one over or changes the base, also with a tampered browser', async () => {
		const { id, room } = await begin();
		const attempts: ((one: Drafter) => void)[] = [
			(one) => one.change(STEEL!, { removed: true }),
			(one) => one.draw('cccccccccc', 'MW-STEEL'),
			(one) => one.change(NOTE!, { layer: 'mw-steel' }),
			(one) => void layersOf(one.doc).set('MW-STEEL', true),
			(one) => void ownersOf(one.doc).set('MW-STEEL', world.departments.AR!),
			(one) => void baseOf(one.doc).set('hash', 'another'),
			(one) => void one.doc.getMap('else').set('x', 1),
			(one) => one.change(99_999, { removed: true }),
			(one) => void itemsOf(one.doc).set('dddddddddd', new Y.Map([['kind', 'script']]) as never)
		];
		for (const [i, attempt] of attempts.entries()) {
			const halla = await enter('halla', room);
			await halla.until(() => halla.ready);
			attempt(halla);
			await halla.until(() => halla.closes.includes(4409));
			halla.close();
			const now = await world.read('oke', liveDrawing, { document: id });
			expect([now.changes, now.items, now.layers, now.base], `attempt ${i}`).toEqual([[], [], [], 'P01.1']);
			expect(now.owners['MW-STEEL']).toBe(world.departments.MW);
		}
		// With Remark one looks on.
		const petra = await enter('petra', room);
		await petra.until(() => petra.ready);
		petra.draw('eeeeeeeeee', 'GRID');
		await petra.until(() => petra.closes.length > 0);
		expect((await world.read('oke', liveDrawing, { document: id })).items).toEqual([]);
	});

	it('leads hand their layers over, and what the new owner does passes at once', async () => {
		const { id, room } = await begin();
		const give = (who: string, layer: string, department: string | null) =>
			world.act(who, giveLayer, { document: id, layer, department });
		// Rhosyn works for Marine works without leading it.
		expect((await refused(give('rhosyn', 'MW-STEEL', world.departments.AR!))).code).toBe('needs-level');
		expect((await refused(give('halla', 'MW-STEEL', world.departments.AR!))).sentence).toBe(
			'The leads of Marine works hand this layer over.'
		);
		expect((await refused(give('oke', 'NO-SUCH', null))).code).toBe('not-found');
		await give('oke', 'mw-steel', world.departments.AR!);
		const halla = await enter('halla', room);
		await halla.until(() => halla.ready);
		halla.change(STEEL!, { move: [1, 1] });
		await halla.until(() => halla.provider.unsyncedChanges === 0);
		expect((await world.read('oke', liveDrawing, { document: id })).changes).toHaveLength(1);
		const { events } = await world.read('oke', trail, { place: id });
		expect(events.find((e) => e.kind === 'live.layer-given')?.details).toMatchObject({
			layer: 'MW-STEEL',
			from: 'MW',
			to: 'AR'
		});
	});

	it('goes back to an earlier version, and carries remarks on what it shows', async () => {
		const { id, room } = await begin();
		const oke = await enter('oke', room);
		await oke.until(() => oke.ready);
		oke.change(GRID!, { move: [9, 9] });
		await oke.until(() => oke.provider.unsyncedChanges === 0);
		await world.act('oke', handInLive, { document: id, note: 'grid' });
		await world.act('oke', restoreLive, { document: id, label: 'P01.1' });
		await oke.until(() => readEdits(oke.doc).changes.size === 0);
		const anchor = { on: 'entity', entity: String(GRID), x: 0, y: 500 };
		await world.act('petra', addRemark, { document: id, anchor, text: 'Which grid?' });
		expect(
			(
				await refused(
					world.act('petra', addRemark, { document: id, anchor: { ...anchor, entity: '../1' }, text: 'x' })
				)
			).code
		).toBe('invalid');
	});

	it('begins on DXF drawings only', async () => {
		const { id } = await world.add('oke', 'just a text');
		expect(
			(await refused(world.act('oke', workDrawingLive, { document: id, base: 'P01.1' }))).sentence
		).toMatch(/no file that can be edited together as a drawing/);
		const broken = await world.add('oke', sheet().slice(0, 3_000));
		expect(
			(await refused(world.act('oke', workDrawingLive, { document: broken.id, base: 'P01.1' }))).sentence
		).toMatch(/damaged/);
	});
});
