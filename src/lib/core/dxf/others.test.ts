/** Drawings that another program wrote (ezdxf, by tests/outside/make_dxf.py). */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { DrawingPages, isEmpty, leftOutWords } from './pages';
import { decodeDxf, readDxf } from './read';
import type { Sheet, Stroke } from './sheet';
import { sheetToSvg } from './svg';
import { titleBlock } from './title-block';

const pagesOf = (name: string) =>
	new DrawingPages(
		readDxf(decodeDxf(readFileSync(join(import.meta.dirname, '../../../../tests/files', name))))
	);
const rounded = (points: ArrayLike<number>) => [...Array.from(points)].map((v) => Math.round(v * 100) / 100);
const onLayer = (sheet: Sheet, name: string) =>
	sheet.strokes.filter((s) => sheet.layers[s.layer]!.name === name);

describe('a drawing that is laid out on two sheets', () => {
	const drawing = pagesOf('sheets.dxf');

	it('has the model and both of them as its pages, in the order of their tabs, and stands for itself by the first', () => {
		expect(drawing.names).toEqual(['Model', 'Walls', 'Piles']);
		expect(drawing.first).toBe(2);
		expect(() => drawing.page(4)).toThrow(RangeError);
	});

	it('gives the title blocks of both sheets, the first one first', () => {
		const { attributes, texts } = drawing.written();
		expect(attributes.filter((a) => a.tag === 'DRAWING_NUMBER').map((a) => a.value)).toEqual([
			'VFT-MW-LS-00-DR-0901',
			'VFT-MW-LS-00-DR-0902'
		]);
		expect(titleBlock(attributes)).toMatchObject({ number: 'VFT-MW-LS-00-DR-0901', revision: 'P02' });
		// Words of the sheets and of the model, each once.
		expect(texts.filter((t) => t.text === 'laid out here')).toHaveLength(2);
		expect(texts.filter((t) => t.text.startsWith('All piles'))).toHaveLength(1);
	});

	it('shows the model in each window, without the layers that are frozen there', () => {
		const [walls, piles] = [drawing.page(2), drawing.page(3)];
		expect(onLayer(walls, 'WALL')).toHaveLength(2);
		expect(onLayer(piles, 'WALL')).toHaveLength(0);
		expect(onLayer(piles, 'PILE')).toHaveLength(5);
		// 8,000 of the model are 200 on paper: the first wall from 0 to 8,000 around the middle at 210.
		expect(rounded(onLayer(walls, 'WALL')[0]!.points)).toEqual([110, 97.5, 310, 97.5]);
		expect(rounded(piles.box)).toEqual([9.5, 9.5, 410.5, 287.5]);
	});

	it('breaks words to the width they were given', () => {
		expect(
			drawing
				.page(1)
				.texts.map((t) => t.text)
				.filter((t) => t !== '')
		).toEqual(['All piles are driven to', 'refusal and cut off at', 'level after testing']);
	});

	it('keeps heavy lines heavier than light ones in a small picture', () => {
		const svg = sheetToSvg(drawing.page(1), 320);
		const widths = [...svg.matchAll(/stroke-width="([\d.]+)"/g)].map((m) => Number(m[1]));
		const [wall, pile] = [Math.max(...widths), Math.min(...widths)];
		expect(wall).toBeGreaterThan(pile * 1.8);
		expect(pile).toBeGreaterThan(0.4);
	});
});

describe('what others draw', () => {
	const odd = pagesOf('odd.dxf').page(1);
	const within = (x1: number, y1: number, x2: number, y2: number) => (s: Stroke) =>
		s.points.every((v, i) => (i % 2 ? v >= y1 && v <= y2 : v >= x1 && v <= x2));

	it('shows points by their mark: a circle with a slanted cross, as large as the drawing says', () => {
		const mark = odd.strokes.filter(within(79, 79, 121, 121));
		expect(mark).toHaveLength(3);
		expect(rounded(mark[0]!.points)).toEqual([80, 80, 120, 120]);
	});

	it('shows faces and grids by their edges, each once', () => {
		// A square and a triangle share one edge: six; three rows and three columns.
		expect(odd.strokes.filter(within(0, 399, 201, 501))).toHaveLength(6);
		expect(odd.strokes.filter(within(299, 399, 401, 501))).toHaveLength(6);
	});

	it('draws lines as wide as they are, and those that grow as areas', () => {
		expect(odd.strokes.filter((s) => s.wide === 20)).toHaveLength(1);
		const arrow = odd.fills.find((f) => !f.gradient && f.loops[0]!.length === 8)!;
		expect(rounded(arrow.loops[0]!)).toEqual([600, 0, 700, 30, 700, -30, 600, 0]);
	});

	it('passes the colours of a gradient into each other', () => {
		const { gradient } = odd.fills.find((f) => f.gradient)!;
		expect(gradient).toMatchObject({ way: 'along', colours: [0xff0000, 0x0000ff] });
		expect(rounded(gradient!.ends)).toEqual([700, 400, 700, 500]);
		expect(sheetToSvg(odd, 600)).toContain('<linearGradient');
	});

	it('draws a dimension that brings no picture of itself, and what a block asks for by its tag', () => {
		const texts = odd.texts.map((t) => t.text);
		expect(texts).toEqual(expect.arrayContaining(['50000', 'LEVEL']));
		expect(odd.strokes.map((s) => rounded(s.points))).toContainEqual([0, -80, 500, -80]);
	});

	it('holds all of a text that ends beyond the last line', () => {
		const text = odd.texts.find((t) => t.text === 'BEYOND THE LAST LINE')!;
		expect(odd.box[2]).toBeGreaterThan(text.x + 15 * text.height * 0.7);
	});

	it('counts what it leaves out, and says so', () => {
		expect(odd.unknown).toEqual({ INSERT: 1, RAY: 1 });
		expect(leftOutWords(odd)).toBe('2 items are not shown (1 × block that the file does not hold, 1 × ray)');
	});

	it('says of a drawing with nothing in it that it is empty', () => {
		const nothing = pagesOf('nothing.dxf');
		expect(nothing.names).toEqual(['Model']);
		expect(isEmpty(nothing.page(1))).toBe(true);
		expect(isEmpty(odd)).toBe(false);
	});
});
