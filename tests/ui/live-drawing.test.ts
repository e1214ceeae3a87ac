import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Awareness } from 'y-protocols/awareness';
import * as Y from 'yjs';
import { drawing } from '../../scripts/world/drawings';
import { ownersOf, readEdits, writeBase } from '../../src/lib/core/drawing/shared';
import { attributesOf, layerOf } from '../../src/lib/core/drawing/edited';
import { flatten } from '../../src/lib/core/dxf/flatten';
import { readDxf } from '../../src/lib/core/dxf/read';
import { LiveDrawingState } from '../../src/lib/ui/live/drawing.svelte';

const FILE = readDxf(
	drawing(
		'linkspan',
		{ seed: 'linkspan', edit: 1 },
		{
			number: 'VFT-MW-LS-00-DR-0101',
			title: 'Linkspan',
			revision: 'P02',
			date: '2026-11-26',
			drawn: 'Oke Lindvar',
			department: 'Marine works'
		}
	)
);
const LAYERS = FILE.entities.map(layerOf);
const NAMES = [...new Set(LAYERS)];
const first = (type: string, more: (at: number) => boolean = () => true) =>
	FILE.entities.findIndex((entity, at) => entity.type === type && more(at));
const LINE = first('LINE');
const TEXT = first('TEXT');
const BLOCK = first('INSERT', (at) => FILE.entities[at]!.children.length > 0);

/** The document of the next drawing that is opened; what goes over the line is tried against a real server. */
let room = new Y.Doc();
vi.mock('../../src/lib/ui/live/line.svelte', () => ({
	LiveLine: class {
		readonly doc = room;
		readonly awareness = new Awareness(room);
		ready = () => Promise.resolve();
		close = () => this.awareness.destroy();
	}
}));
vi.mock('../../src/lib/ui/viewers/read-drawing', () => ({
	readDrawing: () => Promise.resolve({ names: ['Model'], model: flatten(FILE), drawing: FILE })
}));
vi.mock('../../src/lib/ui/viewers/draw-sheet', () => ({
	DrawnSheet: class {
		constructor(readonly sheet: unknown) {}
		hide(): void {}
	}
}));

beforeEach(() => {
	room = new Y.Doc();
	writeBase(room, {
		hash: 'h',
		label: 'P02',
		names: NAMES,
		layers: LAYERS.map((name) => NAMES.indexOf(name))
	});
	vi.stubGlobal('fetch', () => Promise.resolve(new Response('')));
});
async function opened(mayWrite = true): Promise<LiveDrawingState> {
	const state = new LiveDrawingState(
		'drawings/d/P02',
		{ id: 'oke', name: 'Oke' },
		() => '/file',
		['mw'],
		() => mayWrite
	);
	await vi.waitFor(() => expect(state.base).not.toBeNull());
	return state;
}
const edits = () => readEdits(room);
const chosen = (state: LiveDrawingState) => state.things[0]!;

describe('a drawing on screen', () => {
	it('shows what was moved, said and put on other layers, and takes each back by itself', async () => {
		const state = await opened();
		state.choose(String(TEXT));
		state.moveBy([100, 50]);
		state.moveBy([-30, 0]);
		state.setWords(chosen(state), 'HAT +3.55');
		expect(edits().changes.get(TEXT)).toEqual({ move: [70, 50], text: 'HAT +3.55' });
		expect(LiveDrawingState.words(chosen(state))).toBe('HAT +3.55');
		state.undo();
		expect(edits().changes.get(TEXT)).toEqual({ move: [70, 50] });
		state.undo();
		expect(edits().changes.get(TEXT)).toEqual({ move: [100, 50] });
		state.asInFile(chosen(state));
		expect(edits().changes.size).toBe(0);
		state.undo();
		expect(edits().changes.get(TEXT)).toEqual({ move: [100, 50] });
	});

	it('is drawn in by exact points; what is complete is added on the layer in hand', async () => {
		const state = await opened();
		state.tool = 'line';
		state.layer = NAMES[0]!;
		state.set([0, 0]);
		expect(edits().items).toEqual([]);
		state.set([5_000, 2_500]);
		expect(edits().items).toMatchObject([
			{
				kind: 'line',
				layer: NAMES[0],
				points: [
					[0, 0],
					[5_000, 2_500]
				]
			}
		]);
		state.tool = 'polyline';
		state.set([0, 0]);
		state.finish();
		expect(edits().items).toHaveLength(1);
	});

	it('leaves layers of others alone: nothing is moved, removed, drawn or put there', async () => {
		const state = await opened();
		ownersOf(room).set(LAYERS[LINE]!.toUpperCase(), 'st');
		const own = NAMES.find((name) => name !== LAYERS[LINE])!;
		state.choose(String(LINE));
		state.moveBy([10, 10]);
		state.copyBy([10, 10]);
		state.choose(String(LINE));
		state.remove();
		state.tool = 'line';
		state.layer = LAYERS[LINE]!;
		state.set([0, 0]);
		state.set([1, 1]);
		const other = LAYERS.findIndex((name) => name === own);
		state.choose(String(other));
		state.setLayer(LAYERS[LINE]!);
		expect(edits()).toMatchObject({ changes: new Map(), items: [] });
	});

	it('changes nothing where one only looks', async () => {
		const state = await opened(false);
		state.choose(String(LINE));
		state.moveBy([10, 10]);
		state.remove();
		state.switchLayer(NAMES[0]!, true);
		expect(edits()).toEqual({ changes: new Map(), items: [], layers: new Map() });
	});

	it('copies what was changed as it is now: moved, with its new words and attributes', async () => {
		const state = await opened();
		state.choose(String(TEXT));
		state.moveBy([100, 0]);
		state.setWords(chosen(state), 'Copied');
		state.copyBy([0, 1_000]);
		const made = chosen(state);
		expect(made.item).toMatchObject({ kind: 'copy', of: TEXT, text: 'Copied', points: [[100, 1_000]] });
		expect(LiveDrawingState.words(made)).toBe('Copied');
		state.choose(String(BLOCK));
		state.setAttribute(chosen(state), 0, 'C01');
		const now = attributesOf(chosen(state).entity);
		state.copyBy([500, 0]);
		expect(attributesOf(chosen(state).entity)).toEqual(now);
		expect(now[0]!.value).toBe('C01');
	});

	it('moves and copies what was added like everything else', async () => {
		const state = await opened();
		state.tool = 'circle';
		state.set([100, 100]);
		state.set([130, 100]);
		const [circle] = edits().items;
		state.choose(circle!.id);
		state.moveBy([1, 2]);
		expect(edits().items[0]!.points).toEqual([[101, 102]]);
		state.copyBy([10, 0]);
		expect(edits().items.map((item) => item.points[0])).toEqual(
			expect.arrayContaining([
				[101, 102],
				[111, 102]
			])
		);
		expect(chosen(state).item!.id).not.toBe(circle!.id);
		state.remove();
		expect(edits().items).toHaveLength(1);
	});

	it('lets go of what somebody else took away', async () => {
		const state = await opened();
		state.choose(String(LINE));
		const other = new Y.Doc();
		Y.applyUpdate(other, Y.encodeStateAsUpdate(room));
		other.getMap('changes').set(`${LINE}/removed`, true);
		Y.applyUpdate(room, Y.encodeStateAsUpdate(other));
		expect(state.chosen.size).toBe(0);
	});

	it('finds what lies at a place, as it lies now', async () => {
		const state = await opened();
		const [x, y] = LiveDrawingState.place(state.find(String(LINE))!);
		const key = state.pick(x, y, 1);
		expect(key).not.toBeNull();
		state.choose(String(LINE));
		state.moveBy([50_000, 50_000]);
		expect(state.pick(x + 50_000, y + 50_000, 1)).toBe(String(LINE));
	});
});
