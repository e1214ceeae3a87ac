import { describe, expect, it } from 'vitest';
import { hatchLoops, lightVertices, pairs } from './points';
import type { Group } from './read';
import { lettersOf, multilineText, plainText } from './texts';

const groups = (...all: (string | number)[]): Group[] =>
	Array.from({ length: all.length / 2 }, (_, i) => [Number(all[2 * i]), String(all[2 * i + 1])] as Group);

describe('text of a drawing', () => {
	it.each([
		['%%c300 %%p5', '⌀300 ±5'],
		['slope 3%%d', 'slope 3°'],
		['%%uUNDERLINED%%u', 'UNDERLINED'],
		['100%%%', '100%'],
		['\\U+2205 bar', '∅ bar'],
		['plain % sign', 'plain % sign']
	])('%s reads %s', (raw, said) => expect(plainText(raw)).toBe(said));

	it.each([
		['one\\Ptwo', ['one', 'two']],
		['{\\fArial|b1|i0;Bold} and \\C1;red', ['Bold and red']],
		['\\H2.5x;tall\\~one', ['tall one']],
		['\\S1^2; bars', ['1/2 bars']],
		['\\LUnderlined\\l', ['Underlined']],
		['a \\{brace\\} and a \\\\ stroke', ['a {brace} and a \\ stroke']],
		['{\\W0.8;{nested} words}', ['nested words']],
		['old^Jbreak', ['old', 'break']]
	])('%s of several lines reads %j', (raw, said) => expect(multilineText(raw)).toEqual(said));

	it('is as wide and slanted as can still be read', () => {
		expect(lettersOf(groups(41, 0.8, 51, 15))).toEqual({ wide: 0.8, slant: (15 * Math.PI) / 180 });
		expect(lettersOf(groups())).toEqual({ wide: 1, slant: 0 });
		expect(lettersOf(groups(41, 0))).toMatchObject({ wide: 1 });
		expect(lettersOf(groups(41, 400))).toMatchObject({ wide: 1 });
		// Files write a slant to the left as 345 degrees.
		expect(lettersOf(groups(51, 345)).slant).toBeCloseTo((-15 * Math.PI) / 180, 9);
		expect(lettersOf(groups(51, 90)).slant).toBe(0);
	});
});

describe('points of a drawing', () => {
	it('of a light polyline carry the bulge that follows them', () => {
		expect(lightVertices(groups(90, 2, 10, 1, 20, 2, 42, 0.5, 10, 3, 20, 4))).toEqual([
			[
				[1, 2],
				[3, 4]
			],
			[0.5, 0]
		]);
		// A bulge or a height before any vertex belongs to none.
		expect(lightVertices(groups(42, 1, 20, 7))).toEqual([[], []]);
	});
	it('come in pairs of any two codes', () => {
		expect(pairs(groups(11, 1, 21, 2, 11, 3, 21, 4), 11, 21)).toEqual([
			[1, 2],
			[3, 4]
		]);
	});
});

describe('loops of a hatch', () => {
	it('are polylines, closed', () => {
		const [loop] = hatchLoops(
			groups(91, 1, 92, 2, 72, 0, 73, 1, 93, 3, 10, 0, 20, 0, 10, 4, 20, 0, 10, 4, 20, 4, 75, 0)
		);
		expect(loop).toEqual([
			[0, 0],
			[4, 0],
			[4, 4],
			[0, 0]
		]);
	});
	it('are edges one after another: lines, and arcs either way round', () => {
		const half = (turn: number) =>
			hatchLoops(
				groups(
					91,
					1,
					92,
					1,
					93,
					2,
					72,
					1,
					10,
					5,
					20,
					0,
					11,
					-5,
					21,
					0,
					72,
					2,
					10,
					0,
					20,
					0,
					40,
					5,
					50,
					180,
					51,
					360,
					73,
					turn,
					75,
					0
				)
			)[0]!;
		expect(half(1)[0]).toEqual([5, 0]);
		expect(Math.min(...half(1).map((p) => p[1]))).toBeCloseTo(-5, 6);
		// Clockwise the angles are mirrored at the axis (DXF reference, boundary path data).
		expect(Math.max(...half(0).map((p) => p[1]))).toBeCloseTo(5, 6);
	});
	it('are as many as there are, whatever the file says', () => {
		expect(hatchLoops(groups(91, 900_000, 92, 2, 10, 0, 20, 0, 75, 0))).toHaveLength(1);
		expect(hatchLoops(groups(10, 0, 20, 0))).toEqual([]);
	});
});
