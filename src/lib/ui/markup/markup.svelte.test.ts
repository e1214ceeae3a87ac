import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Awareness } from 'y-protocols/awareness';
import * as Y from 'yjs';
import type { RoomMode } from '../../core/live/live';
import type { MarkKind } from '../../core/markup/mark';
import { Markup } from './markup.svelte';

function opened(who = 'oke', mode: RoomMode = 'suggest', doc = new Y.Doc()): Markup {
	// What goes over the line is tried against a real server.
	const awareness = new Awareness(doc);
	return new Markup({ doc, awareness, close: () => awareness.destroy() }, { id: who, name: who }, 'MW', mode);
}
/** Two people at one sheet. `meet` brings what each did to the other. */
function together(modes: [RoomMode, RoomMode] = ['suggest', 'suggest']) {
	const docs = [new Y.Doc(), new Y.Doc()];
	const both = [opened('oke', modes[0], docs[0]), opened('rhosyn', modes[1], docs[1])] as const;
	const meet = () => {
		for (const [from, to] of [docs, docs.toReversed()])
			Y.applyUpdate(to!, Y.encodeStateAsUpdate(from!, Y.encodeStateVector(to!)), 'others');
	};
	return { both, meet };
}
/** Draws a mark from one place to another and gives its id. */
function draw(markup: Markup, kind: MarkKind, x = 0, y = 0): string {
	markup.words = 'HAT +3.40';
	markup.begin(kind, 1, { x, y }, 10);
	markup.extend({ x: x + 50, y: y + 40 });
	markup.finish(1);
	return [...markup.chosen][0]!;
}
const kinds = (markup: Markup) => markup.onPage(1).map((mark) => mark.kind);

describe('marks on a sheet', () => {
	it('are drawn on one’s own layer, and chosen', () => {
		const markup = opened();
		const id = draw(markup, 'cloud');
		expect(markup.marks.get(id)).toMatchObject({ kind: 'cloud', layer: 'MW', by: 'oke', page: 1 });
		expect([...markup.chosen]).toEqual([id]);
	});

	it('that say nothing yet are not there: a click, or words without any', () => {
		const markup = opened();
		markup.begin('rectangle', 1, { x: 5, y: 5 }, 10);
		markup.finish(1);
		markup.words = '  ';
		markup.begin('text', 1, { x: 5, y: 5 }, 10);
		markup.finish(1);
		expect(markup.marks.size).toBe(0);
		expect(markup.canUndo).toBe(false);
	});

	it('keep their order among themselves when they go to the front or the back', () => {
		const markup = opened();
		const ids = (['cloud', 'arrow', 'line', 'ellipse'] as const).map((kind, i) =>
			draw(markup, kind, i * 100)
		);
		const pick = (...which: number[]) => {
			markup.chosen.clear();
			for (const i of which) markup.chosen.add(ids[i]!);
		};
		pick(1, 0);
		markup.toFront();
		expect(kinds(markup)).toEqual(['line', 'ellipse', 'cloud', 'arrow']);
		pick(3, 0);
		markup.toBack();
		expect(kinds(markup)).toEqual(['ellipse', 'cloud', 'line', 'arrow']);
		markup.undo();
		expect(kinds(markup)).toEqual(['line', 'ellipse', 'cloud', 'arrow']);
	});

	it('are copied with their groups and their order, as one’s own', () => {
		const { both, meet } = together();
		const [oke, rhosyn] = both;
		const [cloud, arrow] = [draw(oke, 'cloud'), draw(oke, 'arrow', 100)];
		for (const id of [cloud, arrow]) oke.chosen.add(id);
		oke.group();
		draw(oke, 'line', 200);
		meet();
		for (const mark of rhosyn.onPage(1)) rhosyn.chosen.add(mark.id);
		rhosyn.copy();
		rhosyn.paste(2, 7);
		const made = rhosyn.onPage(2);
		expect(made.map((mark) => mark.kind)).toEqual(['cloud', 'arrow', 'line']);
		expect(made.every((mark) => mark.by === 'rhosyn')).toBe(true);
		expect(made[0]!.points[0]).toEqual({ x: 7, y: 7 });
		expect(made[0]!.group).not.toBeNull();
		expect(made[0]!.group).toBe(made[1]!.group);
		expect(made[0]!.group).not.toBe(rhosyn.marks.get(cloud)!.group);
		expect(made[2]!.group).toBeNull();
		rhosyn.undo();
		expect(rhosyn.onPage(2)).toEqual([]);
	});

	it('of others are moved by who may work, not by who may only remark', () => {
		const { both, meet } = together(['suggest', 'write']);
		const [oke, rhosyn] = both;
		const [his, hers] = [draw(oke, 'cloud'), draw(rhosyn, 'arrow', 100)];
		meet();
		for (const id of [his, hers]) {
			oke.chosen.add(id);
			rhosyn.chosen.add(id);
		}
		oke.moveBy(10, 0);
		expect(oke.marks.get(hers)!.points[0]!.x).toBe(100);
		expect(oke.marks.get(his)!.points[0]!.x).toBe(10);
		meet();
		rhosyn.moveBy(0, 5);
		meet();
		expect(oke.marks.get(his)!.points[0]).toEqual({ x: 10, y: 5 });
		oke.chosen.clear();
		oke.chosen.add(hers);
		oke.remove();
		expect(oke.marks.has(hers)).toBe(true);
	});

	it('are chosen with their group, and let go with it', () => {
		const markup = opened();
		const ids = [draw(markup, 'cloud'), draw(markup, 'arrow', 100)];
		for (const id of ids) markup.chosen.add(id);
		markup.group();
		const line = draw(markup, 'line', 200);
		markup.choose(markup.marks.get(ids[0]!)!, true);
		expect([...markup.chosen].sort()).toEqual([...ids, line].sort());
		markup.choose(markup.marks.get(ids[1]!)!, true);
		expect([...markup.chosen]).toEqual([line]);
	});

	it('of a layer that is hidden are not shown, and of somebody who took one away it is not chosen any more', () => {
		const { both, meet } = together();
		const [oke, rhosyn] = both;
		const id = draw(oke, 'cloud');
		meet();
		rhosyn.chosen.add(id);
		rhosyn.hidden.add('MW');
		expect(rhosyn.onPage(1)).toEqual([]);
		oke.remove();
		meet();
		expect([...rhosyn.chosen]).toEqual([]);
	});

	it('taking back reaches one’s own changes only, each by itself', () => {
		const act = fc.record({
			who: fc.nat(1),
			does: fc.constantFrom(
				'draw',
				'move',
				'turn',
				'front',
				'copy',
				'group',
				'remove',
				'undo',
				'redo',
				'meet'
			),
			which: fc.nat(5),
			value: fc.integer({ min: 1, max: 90 })
		});
		fc.assert(
			fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
				const { both, meet } = together(['write', 'write']);
				const state = (markup: Markup) =>
					JSON.stringify([...markup.marks].sort(([a], [b]) => (a < b ? -1 : 1)));
				for (const { who, does, which, value } of acts) {
					const markup = both[who]!;
					const some = markup.onPage(1);
					if (does === 'draw') draw(markup, value % 2 ? 'cloud' : 'arrow', value);
					else if (does === 'meet') meet();
					else if (does === 'undo') markup.undo();
					else if (does === 'redo') markup.redo();
					else if (some.length) {
						markup.chosen.clear();
						markup.choose(some[which % some.length]!, false);
						const before = state(markup);
						if (does === 'move') markup.moveBy(value, -value);
						else if (does === 'turn') markup.turnBy(value);
						else if (does === 'front') markup.toFront();
						else if (does === 'group') markup.group();
						else if (does === 'remove') markup.remove();
						else {
							markup.copy();
							markup.paste(1, value);
						}
						const after = state(markup);
						markup.undo();
						expect(state(markup)).toBe(before);
						markup.redo();
						expect(state(markup)).toBe(after);
					}
				}
				meet();
				expect(state(both[0])).toBe(state(both[1]));
				both.forEach((markup) => markup.close());
			}),
			{ numRuns: 200 }
		);
	});
});
