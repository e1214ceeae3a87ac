import { describe, expect, it } from 'vitest';
import type { Sheet } from '../../core/dxf/sheet';
import { Measure } from './measure.svelte';
import { ViewPort } from './view-port.svelte';

/** A square of ten metres on its own layer, in a sheet of a hundred. */
const sheet: Sheet = {
	strokes: [
		{
			of: 0,
			points: [10, 10, 20, 10, 20, 20, 10, 20, 10, 10],
			layer: 0,
			colour: -1,
			weight: 0.25,
			wide: 0,
			dash: []
		}
	],
	fills: [],
	texts: [],
	layers: [],
	attributes: [],
	box: [0, 0, 100, 100],
	unknown: {},
	unit: 'm',
	cut: false
};
function measuring() {
	const port = new ViewPort();
	Object.assign(port, { scale: 5, x: 0, y: 0, width: 500, height: 500 });
	const measure = new Measure(sheet);
	/** Goes near a point of the drawing, a few pixels off, and clicks. */
	const click = (x: number, y: number, off = 4) => {
		measure.hover(x * 5 + off, (100 - y) * 5 - off, port, [true]);
		measure.set();
	};
	return { measure, click, port };
}

describe('measuring on a drawing', () => {
	it('says what to do before the first point', () => {
		expect(measuring().measure.says).toBe('Click the first point; ends, crossings and middles hold it.');
	});

	it('holds on to ends that are near, and measures from one to the other', () => {
		const { measure, click } = measuring();
		click(10, 10);
		click(20, 10);
		measure.end();
		expect(measure.says).toBe('10 m');
	});

	it('holds on to nothing on a layer that is switched off', () => {
		const { measure, port } = measuring();
		measure.hover(10 * 5 + 4, (100 - 10) * 5, port, [false]);
		expect(measure.at).toMatchObject({ kind: 'free', x: 10.8, y: 10 });
	});

	it('measures an area, and what is around it', () => {
		const { measure, click } = measuring();
		measure.what = 'area';
		for (const [x, y] of [
			[10, 10],
			[20, 10],
			[20, 20],
			[10, 20]
		] as const)
			click(x, y);
		measure.end();
		expect(measure.says).toBe('100 m², around it 40 m');
	});

	it('follows the pointer until it is ended, and begins anew after that', () => {
		const { measure, click, port } = measuring();
		click(10, 10);
		measure.hover(60 * 5, (100 - 10) * 5, port, [true]);
		expect(measure.says).toBe('50 m');
		measure.end();
		click(20, 20);
		expect(measure.points).toEqual([{ x: 20, y: 20 }]);
		measure.clear();
		expect([measure.points, measure.done]).toEqual([[], false]);
	});

	it('sets no point while the pointer was nowhere yet', () => {
		const measure = new Measure(sheet);
		measure.set();
		measure.end();
		expect([measure.points, measure.done]).toEqual([[], false]);
	});
});
