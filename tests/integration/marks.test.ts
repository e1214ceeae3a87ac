import * as Y from 'yjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { MarkFields } from '../../src/lib/core/markup/mark';
import { changeMark, marksOf, scalesOf, writeMark } from '../../src/lib/core/markup/shared';
import { letIn } from '../../src/lib/server/access/acts';
import { carryMarks } from '../../src/lib/server/marks/acts';
import { trail } from '../../src/lib/server/trail/views';
import { documentView } from '../../src/lib/server/documents/views';
import { marks } from '../../src/lib/server/marks/views';
import { Guest, RoomServer } from './room';
import { refused, TestWorld } from './world';

let world: TestWorld;
let rooms: RoomServer;
const idOf = (who: string) => world.people[who]!.person.id;
const roomAt = (id: string, label = 'P01.1') => `marks/${id}/${label}`;

/** Somebody marking up a sheet. */
class Marker extends Guest {
	draw(id: string, fields: Partial<MarkFields> & { by: string }): void {
		writeMark(this.doc, id, {
			kind: 'cloud',
			page: 1,
			points: [
				{ x: 0, y: 0 },
				{ x: 10, y: 10 }
			],
			turn: 0,
			size: 2,
			text: '',
			layer: 'MW',
			at: '2026-11-24T10:00:00.000Z',
			group: null,
			order: 1,
			carried: null,
			...fields
		});
	}
	get ids(): string[] {
		return [...marksOf(this.doc).keys()].sort();
	}
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

describe('marks on a sheet', () => {
	it('are drawn by several at once, kept on their version, and seen by who may look', async () => {
		const { id } = await world.add();
		const [oke, halla, petra] = await Promise.all(
			['oke', 'halla', 'petra'].map((who) => rooms.enter(Marker, who, roomAt(id)))
		);
		await petra!.until(() => petra!.provider.isSynced);
		await halla!.until(() => halla!.provider.isSynced);
		oke!.draw('a', { by: idOf('oke') });
		halla!.draw('b', { by: idOf('halla'), layer: 'AR' });
		petra!.draw('c', { by: idOf('petra') });
		await oke!.until(() => oke!.ids.join() === 'a,b');
		await halla!.until(() => halla!.ids.join() === 'a,b');
		// What Petra drew, who may only look, ends her line before anything of it is kept.
		await petra!.until(() => petra!.closes.length > 0);
		await expect
			.poll(async () =>
				(await world.read('petra', marks, { document: id, label: 'P01.1' })).marks
					.map((m) => [m.id, m.layer])
					.sort()
			)
			.toEqual([
				['a', 'MW'],
				['b', 'AR']
			]);
		// The trail tells once who marked it up, and not of what was refused.
		const drawn = async () =>
			(await world.read('petra', trail, { place: id })).events
				.filter((e) => e.kind === 'marks.drawn')
				.map((e) => e.actor)
				.sort();
		await expect.poll(drawn).toEqual(['Halla Brandt', 'Oke Lindvar']);
		await world.revise(id);
		expect((await world.read('oke', documentView, { document: id })).marked).toEqual(['P01.1']);
		expect((await world.read('oke', marks, { document: id, label: 'P01.2' })).marks).toEqual([]);
		expect(await refused(world.read('oke', marks, { document: id, label: 'P09.9' }))).toMatchObject({
			code: 'not-found'
		});
	});

	it.each([
		['a mark in another’s name', (m: Marker) => m.draw('x', { by: idOf('oke') })],
		['another’s mark moved', (m: Marker) => changeMark(m.doc, 'a', { points: [{ x: 9, y: 9 }] })],
		['another’s mark taken away', (m: Marker) => marksOf(m.doc).delete('a')],
		['what is no mark', (m: Marker) => m.draw('x', { by: idOf('halla'), kind: 'script' as never })],
		['something else altogether', (m: Marker) => m.doc.getMap('other').set('x', 1)]
	])('with Remark one cannot send %s', async (_, does) => {
		const { id } = await world.add();
		const [oke, halla] = await Promise.all(
			['oke', 'halla'].map((who) => rooms.enter(Marker, who, roomAt(id)))
		);
		await oke!.until(() => oke!.provider.isSynced);
		oke!.draw('a', { by: idOf('oke') });
		await halla!.until(() => halla!.ids.join() === 'a');
		does(halla!);
		await halla!.until(() => halla!.closes.includes(4409));
		halla!.close();
		const { marks: kept } = await world.read('oke', marks, { document: id, label: 'P01.1' });
		expect(kept).toMatchObject([
			{
				id: 'a',
				by: idOf('oke'),
				points: [
					{ x: 0, y: 0 },
					{ x: 10, y: 10 }
				]
			}
		]);
	});

	it('of others are changed with Work, but whose they are stays', async () => {
		const { id } = await world.add();
		const [oke, halla] = await Promise.all(
			['oke', 'halla'].map((who) => rooms.enter(Marker, who, roomAt(id)))
		);
		await halla!.until(() => halla!.provider.isSynced);
		halla!.draw('b', { by: idOf('halla'), kind: 'callout', text: 'Check' });
		await oke!.until(() => oke!.ids.join() === 'b');
		changeMark(oke!.doc, 'b', { text: 'Check camber' });
		await halla!.until(() => halla!.says().includes('Check camber'));
		changeMark(oke!.doc, 'b', { by: idOf('oke') });
		await oke!.until(() => oke!.closes.includes(4409));
		oke!.close();
	});

	it('of others that were taken away come back as theirs when that is undone, and as nobody else’s', async () => {
		const { id } = await world.add();
		const [oke, halla] = await Promise.all(
			['oke', 'halla'].map((who) => rooms.enter(Marker, who, roomAt(id)))
		);
		await halla!.until(() => halla!.provider.isSynced);
		halla!.draw('b', { by: idOf('halla') });
		await oke!.until(() => oke!.ids.join() === 'b');
		const undoing = new Y.UndoManager(marksOf(oke!.doc));
		marksOf(oke!.doc).delete('b');
		await halla!.until(() => halla!.ids.length === 0);
		undoing.undo();
		await halla!.until(() => halla!.ids.join() === 'b');
		const kept = async () => (await world.read('oke', marks, { document: id, label: 'P01.1' })).marks;
		expect(await kept()).toMatchObject([{ id: 'b', by: idOf('halla') }]);
		expect(oke!.closes).toEqual([]);
		marksOf(oke!.doc).delete('b');
		await halla!.until(() => halla!.ids.length === 0);
		oke!.draw('b', { by: idOf('petra') });
		await oke!.until(() => oke!.closes.includes(4409));
		oke!.close();
		expect(await kept()).toEqual([]);
	});

	it('are carried over to the next version with whose they are, and with what no longer fits', async () => {
		const { id } = await world.add();
		const [oke, halla] = await Promise.all(
			['oke', 'halla'].map((who) => rooms.enter(Marker, who, roomAt(id)))
		);
		await halla!.until(() => halla!.provider.isSynced);
		await oke!.until(() => oke!.provider.isSynced);
		oke!.draw('a', { by: idOf('oke') });
		scalesOf(oke!.doc).set('1', { perUnit: 20, unit: 'm' });
		halla!.draw('b', { by: idOf('halla') });
		await oke!.until(() => oke!.ids.join() === 'a,b');
		await world.revise(id);
		const carry = { document: id, label: 'P01.2', from: 'P01.1', changed: ['a'] };
		expect(await refused(world.act('petra', carryMarks, carry))).toMatchObject({ code: 'needs-level' });
		expect(await world.act('halla', carryMarks, carry)).toEqual({ carried: 2 });
		const there = await world.read('oke', marks, { document: id, label: 'P01.2' });
		expect(there.marks.map((m) => [m.id, m.by, m.carried]).sort()).toEqual([
			['a', idOf('oke'), 'changed'],
			['b', idOf('halla'), 'same']
		]);
		expect(there.scales).toEqual({ 1: { perUnit: 20, unit: 'm' } });
		expect(await refused(world.act('halla', carryMarks, carry))).toMatchObject({ code: 'conflict' });
	});
});
