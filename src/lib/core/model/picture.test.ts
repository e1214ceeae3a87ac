import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { modelPicture, SIDES, type Body } from './picture';

/** A box from one corner to the opposite one. */
function box([x, y, z]: number[], [dx, dy, dz]: number[], colour: Body['colour']): Body {
	const corners = new Float32Array(
		Array.from({ length: 8 }, (_, i) => [
			x! + (i & 1 ? dx! : 0),
			y! + (i & 2 ? dy! : 0),
			z! + (i & 4 ? dz! : 0)
		]).flat()
	);
	const faces = [
		[0, 1, 3, 2],
		[4, 5, 7, 6],
		[0, 1, 5, 4],
		[2, 3, 7, 6],
		[0, 2, 6, 4],
		[1, 3, 7, 5]
	];
	const triangles = Uint32Array.from(faces.flatMap(([a, b, c, d]) => [a!, b!, c!, a!, c!, d!]));
	return { corners, triangles, colour };
}
const RED: Body['colour'] = [1, 0, 0];
const BLUE: Body['colour'] = [0, 0, 1];
/** How many pixels are more of one colour than of the others. */
function mostly(picture: ReturnType<typeof modelPicture>, channel: number): number {
	let found = 0;
	const { pixels } = picture!;
	for (let i = 0; i < pixels.length; i += 3) {
		const [a, b] = [0, 1, 2].filter((c) => c !== channel).map((c) => pixels[i + c]!);
		if (pixels[i + channel]! > a! + 20 && pixels[i + channel]! > b! + 20) found++;
	}
	return found;
}

describe('a picture of a model', () => {
	it('is as large as it may be, with the model in it', () => {
		const picture = modelPicture([box([0, 0, 0], [20, 10, 1], RED)], 4, 400)!;
		expect(picture.width).toBe(400);
		// Seen from above it is twice as wide as high.
		expect(picture.height).toBeCloseTo(200 + 12, -1);
		const share = mostly(picture, 0) / (picture.width * picture.height);
		expect(share).toBeGreaterThan(0.8);
	});

	it('shows what stands before and hides what stands behind, from each side', () => {
		// A low red box in the south-west of a tall blue one.
		const bodies = [box([0, 0, 0], [4, 4, 4], RED), box([4, 4, 0], [4, 4, 12], BLUE)];
		const red = SIDES.map((_, side) => mostly(modelPicture(bodies, side, 300), 0));
		expect(red[0]).toBeGreaterThan(2 * red[2]!);
		expect(red[2]).toBeLessThan(200);
	});

	it('draws edges, also of a surface that falls away, and none across it', () => {
		const picture = modelPicture([box([0, 0, 0], [10, 10, 10], RED)], 0, 300)!;
		const dark = picture.pixels.filter((value, i) => i % 3 === 0 && value < 110).length;
		expect(dark).toBeGreaterThan(400);
		expect(dark).toBeLessThan(3_000);
	});

	it('is none of nothing, and never fails on what is broken', () => {
		expect(modelPicture([], 0, 100)).toBeNull();
		const number = fc.oneof(fc.double(), fc.integer({ min: -5, max: 5 }));
		fc.assert(
			fc.property(fc.array(number, { maxLength: 30 }), fc.array(fc.nat(12), { maxLength: 12 }), (c, t) => {
				const corners = Float32Array.from(c.slice(0, c.length - (c.length % 3)));
				modelPicture([{ corners, triangles: Uint32Array.from(t), colour: RED }], 1, 60);
			}),
			{ numRuns: 200 }
		);
	});
});
