import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { moves, ViewPort } from './view-port.svelte';

function port(sheetWidth = 840, sheetHeight = 594): ViewPort {
	const made = new ViewPort();
	Object.assign(made, { width: 1000, height: 600, sheetWidth, sheetHeight });
	made.fit();
	return made;
}
/** Where a point of the sheet is on the screen. */
const onScreen = (p: ViewPort, x: number, y: number) => [x * p.scale + p.x, y * p.scale + p.y];

describe('a sheet on the screen', () => {
	it('is shown whole, in the middle, with a margin', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 9_000 }), fc.integer({ min: 1, max: 9_000 }), (w, h) => {
				const p = port(w, h);
				const [left, top] = onScreen(p, 0, 0);
				const [right, bottom] = onScreen(p, w, h);
				expect(Math.min(left!, top!)).toBeGreaterThanOrEqual(15.9);
				expect(left! + right!).toBeCloseTo(1000);
				expect(top! + bottom!).toBeCloseTo(600);
				expect([p.isWhole, p.percent]).toEqual([true, 100]);
			})
		);
	});

	it('keeps what is under the pointer there while it is zoomed, and back again', () => {
		const factor = fc.double({ min: 0.5, max: 2, noNaN: true });
		fc.assert(
			fc.property(fc.array(factor, { maxLength: 8 }), fc.nat(1000), fc.nat(600), (factors, x, y) => {
				const p = port();
				const under = [(x - p.x) / p.scale, (y - p.y) / p.scale];
				for (const by of factors) {
					p.zoom(by, x, y);
					const [nowX, nowY] = onScreen(p, under[0]!, under[1]!);
					expect(nowX).toBeCloseTo(x, 4);
					expect(nowY).toBeCloseTo(y, 4);
				}
			})
		);
	});

	it('is never zoomed out of sight, nor into nothing', () => {
		const p = port();
		const whole = p.scale;
		p.zoom(1e9);
		expect(p.scale).toBeCloseTo(whole * 64);
		p.zoom(1e-9);
		expect(p.scale).toBeCloseTo(whole / 8);
	});

	it('brings a box into the middle as large as it stands', () => {
		const p = port();
		p.zoom(4);
		p.showBox(100, 50, 20, 10);
		expect(onScreen(p, 110, 55)).toEqual([500, 300]);
	});
});

describe('hands on a sheet', () => {
	let element: HTMLElement;
	let p: ViewPort;
	let leave: () => void;
	beforeEach(() => {
		vi.stubGlobal(
			'ResizeObserver',
			class {
				observe() {}
				disconnect() {}
			}
		);
		element = document.createElement('div');
		element.setPointerCapture = () => {};
		document.body.append(element);
		p = port();
		leave = moves(p)(element);
	});
	afterEach(() => {
		leave();
		element.remove();
	});
	const pointer = (type: string, pointerId: number, clientX: number, clientY: number, button = 0) =>
		element.dispatchEvent(
			Object.assign(new MouseEvent(type, { clientX, clientY, button, bubbles: true }), { pointerId })
		);
	const key = (name: string, more: KeyboardEventInit = {}) => {
		const event = new KeyboardEvent('keydown', { key: name, cancelable: true, ...more });
		element.dispatchEvent(event);
		return event.defaultPrevented;
	};

	it('drag it with one finger, and stop when it is lifted', () => {
		const { x, y } = p;
		pointer('pointerdown', 1, 100, 100);
		pointer('pointermove', 1, 130, 90);
		expect([p.x - x, p.y - y]).toEqual([30, -10]);
		pointer('pointerup', 1, 130, 90);
		pointer('pointermove', 1, 500, 500);
		expect([p.x - x, p.y - y]).toEqual([30, -10]);
	});

	it('leave it to others when another button of the mouse is pressed', () => {
		const { x } = p;
		pointer('pointerdown', 1, 100, 100, 2);
		pointer('pointermove', 1, 200, 100);
		expect(p.x).toBe(x);
	});

	it('spread it with two fingers, around the place between them', () => {
		const whole = p.scale;
		pointer('pointerdown', 1, 400, 300);
		pointer('pointerdown', 2, 600, 300);
		pointer('pointermove', 2, 800, 300);
		expect(p.scale / whole).toBeCloseTo(2);
		pointer('pointermove', 2, 600, 300);
		expect(p.scale / whole).toBeCloseTo(1);
	});

	it('zoom and move it by keys, and leave the browser’s own keys to it', () => {
		const { x, scale } = p;
		expect(key('+')).toBe(true);
		expect(p.scale).toBeCloseTo(scale * 1.25);
		expect(key('0')).toBe(true);
		expect(p.scale).toBeCloseTo(scale);
		expect(key('ArrowRight')).toBe(true);
		expect(p.x).toBe(x - 60);
		expect([key('+', { ctrlKey: true }), key('a')]).toEqual([false, false]);
		expect(p.x).toBe(x - 60);
	});

	it('turn the wheel to zoom, and with Shift to go sideways', () => {
		const { x, scale } = p;
		element.dispatchEvent(new WheelEvent('wheel', { deltaY: -100, clientX: 500, clientY: 300 }));
		expect(p.scale).toBeGreaterThan(scale);
		p.fit();
		element.dispatchEvent(new WheelEvent('wheel', { deltaY: 40, shiftKey: true }));
		expect([p.x, p.scale]).toEqual([x - 40, scale]);
	});

	it('let go of it when it is taken off the page', () => {
		leave();
		const { scale } = p;
		key('+');
		expect(p.scale).toBe(scale);
	});
});
