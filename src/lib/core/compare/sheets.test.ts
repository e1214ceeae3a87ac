import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countBits, grown, movedMask, packMask, shared, without, type Mask } from './mask';
import { compareSheets, placingFrom } from './sheets';

/** A white sheet of its own size on which rectangles are drawn black. */
class Paper {
	readonly pixels: Uint8ClampedArray;
	constructor(
		readonly width = 700,
		readonly height = 500
	) {
		this.pixels = new Uint8ClampedArray(width * height * 4).fill(255);
	}
	box(x: number, y: number, w: number, h: number): this {
		for (let j = y; j < y + h; j++)
			for (let i = x; i < x + w; i++)
				if (i >= 0 && j >= 0 && i < this.width && j < this.height)
					this.pixels.fill(0, (j * this.width + i) * 4, (j * this.width + i) * 4 + 3);
		return this;
	}
	/** A drawing of frame, grid and a few details, so that a shift can be found. */
	drawing(dx = 0, dy = 0): this {
		this.box(20 + dx, 20 + dy, 640, 2).box(20 + dx, 460 + dy, 640, 2);
		this.box(20 + dx, 20 + dy, 2, 442).box(658 + dx, 20 + dy, 2, 442);
		for (const x of [90, 170, 310, 333, 520]) this.box(x + dx, 60 + dy, 1, 300);
		for (const y of [77, 120, 260, 310]) this.box(60 + dx, y + dy, 500, 1);
		return this;
	}
	mask(): Mask {
		return packMask(this.pixels, this.width, this.height);
	}
}

const bit = (m: Mask, x: number, y: number) => (m.bits[y * m.stride + (x >> 5)]! >>> (x & 31)) & 1;

describe('masks', () => {
	it('pack every pixel, and count rows and columns', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.nat(69), fc.nat(19)), { maxLength: 60 }),
				fc.integer({ min: -40, max: 40 }),
				fc.integer({ min: -9, max: 9 }),
				(dots, dx, dy) => {
					const paper = new Paper(70, 20);
					for (const [x, y] of dots) paper.box(x, y, 1, 1);
					const mask = paper.mask();
					const set = new Set(dots.map(([x, y]) => y * 70 + x));
					expect(mask.ink).toBe(set.size);
					for (let y = 0; y < 20; y++)
						for (let x = 0; x < 70; x++) expect(bit(mask, x, y)).toBe(set.has(y * 70 + x) ? 1 : 0);
					const moved = movedMask(mask, dx, dy);
					const fits = [...set].filter((p) => {
						const [x, y] = [(p % 70) + dx, Math.floor(p / 70) + dy];
						return x >= 0 && x < 70 && y >= 0 && y < 20;
					});
					expect(moved.ink).toBe(fits.length);
					expect(shared(moved, mask, dx, dy)).toBe(fits.length);
					expect(without(mask, mask).ink).toBe(0);
					expect(without(mask, grown(mask, 1)).ink).toBe(0);
				}
			),
			{ numRuns: 60 }
		);
	});
	it('count bits', () => {
		fc.assert(
			fc.property(fc.integer(), (n) => {
				expect(countBits(n)).toBe([...(n >>> 0).toString(2)].filter((c) => c === '1').length);
			})
		);
	});
});

describe('comparing sheets', () => {
	it('finds nothing between identical sheets', () => {
		const found = compareSheets(new Paper().drawing().mask(), new Paper().drawing().mask());
		expect(found).toMatchObject({ places: [], shift: { x: 0, y: 0 }, tolerance: 0 });
	});

	it('finds nothing when the whole sheet was shifted, and says how far', () => {
		fc.assert(
			fc.property(fc.integer({ min: -19, max: 19 }), fc.integer({ min: -19, max: 19 }), (dx, dy) => {
				const found = compareSheets(new Paper().drawing().mask(), new Paper().drawing(dx, dy).mask());
				expect(found.shift).toEqual({ x: 0 - dx || 0, y: 0 - dy || 0 });
				expect(found.places).toEqual([]);
			}),
			{ numRuns: 15 }
		);
	});

	it('finds one changed digit, and which part was taken away and which added', () => {
		// A 0 becomes an 8: only the bar in the middle is new.
		const zero = (p: Paper) =>
			p.box(400, 400, 6, 1).box(400, 409, 6, 1).box(400, 400, 1, 10).box(405, 400, 1, 10);
		const { places } = compareSheets(
			zero(new Paper().drawing()).mask(),
			zero(new Paper().drawing()).box(400, 404, 6, 1).mask()
		);
		expect(places).toEqual([{ x: 401, y: 404, w: 4, h: 1, takenAway: 0, added: 4 }]);
	});

	it('finds every planted change and invents none', () => {
		const spot = fc.tuple(fc.nat(8), fc.nat(4), fc.boolean());
		fc.assert(
			fc.property(fc.uniqueArray(spot, { maxLength: 12, selector: ([x, y]) => y * 9 + x }), (spots) => {
				const [a, b] = [new Paper().drawing(), new Paper().drawing()];
				for (const [x, y, inAfter] of spots) (inAfter ? b : a).box(66 + x * 64, 82 + y * 80, 9, 7);
				const { places } = compareSheets(a.mask(), b.mask(), { shift: { x: 0, y: 0 } });
				expect(places).toHaveLength(spots.length);
				for (const [x, y, inAfter] of spots)
					expect(
						places.find(
							(p) => p.x >= 66 + x * 64 && p.x < 76 + x * 64 && p.y >= 80 + y * 80 && p.y < 92 + y * 80
						)
					).toMatchObject(inAfter ? { takenAway: 0 } : { added: 0 });
			}),
			{ numRuns: 40 }
		);
	});

	it('compares sheets of different size on the larger ground', () => {
		const { places } = compareSheets(
			new Paper().drawing().mask(),
			new Paper(800, 500).drawing().box(760, 30, 8, 8).mask()
		);
		expect(places).toEqual([{ x: 760, y: 30, w: 8, h: 8, takenAway: 0, added: 64 }]);
	});

	it('reads from the top left to the bottom right', () => {
		const b = new Paper().drawing().box(600, 30, 5, 5).box(40, 36, 5, 5).box(40, 440, 5, 5);
		const { places } = compareSheets(new Paper().drawing().mask(), b.mask());
		expect(places.map((p) => [p.x, p.y])).toEqual([
			[40, 36],
			[600, 30],
			[40, 440]
		]);
	});
});

describe('placing by three marked places', () => {
	it('takes each place to where it was marked', () => {
		const n = fc.integer({ min: -500, max: 500 });
		const point = fc.tuple(n, n);
		fc.assert(
			fc.property(fc.tuple(point, point, point), fc.tuple(point, point, point), (from, to) => {
				const [[x0, y0], [x1, y1], [x2, y2]] = from;
				fc.pre(Math.abs((x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)) > 10);
				const [a, b, c, d, e, f] = placingFrom(from, to);
				from.forEach(([x, y], i) => {
					expect(a * x + c * y + e).toBeCloseTo(to[i]![0], 4);
					expect(b * x + d * y + f).toBeCloseTo(to[i]![1], 4);
				});
			})
		);
	});
	it('refuses three places on one line', () => {
		const line: [number, number][] = [
			[0, 0],
			[1, 1],
			[5, 5]
		];
		expect(() => placingFrom(line, line)).toThrow(/one line/);
	});
});
