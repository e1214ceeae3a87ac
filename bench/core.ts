import { decide, type Step, type Subject } from '../src/lib/core/access/decide';
import { LEVELS } from '../src/lib/core/access/levels';
import { packMask } from '../src/lib/core/compare/mask';
import { compareSheets } from '../src/lib/core/compare/sheets';
import { perSecond, type Line } from './measure';

/** Decisions of core over a way of three places with a dozen entries. */
export function decisions(): Line {
	const who: Subject = {
		personId: 'p1',
		projectId: 'x',
		controller: false,
		departments: ['d1', 'd2'],
		leads: [],
		groups: ['g1', 'g2'],
		outside: false,
		ceiling: null
	};
	const ways: Step[][] = Array.from({ length: 64 }, (_, w) =>
		Array.from({ length: 3 }, (_, s) => ({
			closed: (w + s) % 11 === 0,
			entries: Array.from({ length: 4 }, (_, e) => ({
				subjectKind: (['person', 'department', 'group', 'everyone'] as const)[(w + e) % 4]!,
				subjectId: ['p1', 'd1', 'g2', 'x', 'p2', 'd9'][(w + s + e) % 6]!,
				level: LEVELS[(w * 7 + e) % 7]!,
				exactly: false,
				endsAt: e === 3 ? 5 : null
			}))
		}))
	);
	const value = perSecond((n) => void decide(who, ways[n & 63]!, 10));
	const map = new Map(ways.map((_, i) => [`k${i}`, i]));
	const lookups = perSecond((n) => void map.get(`k${n & 63}`));
	return {
		what: 'access decisions in core',
		value,
		unit: '/s',
		budget: 2_000_000,
		least: true,
		baseline: { what: 'map look-ups', value: lookups }
	};
}

/** An A1 sheet at 150 dpi with many lines, as pixels; `changed` draws a few more. */
function sheetPixels(changed: boolean): Uint8ClampedArray {
	const [width, height] = [4967, 3508];
	const pixels = new Uint8ClampedArray(width * height * 4).fill(255);
	let seed = 11;
	const next = (most: number) => (seed = (seed * 48271) % 2147483647) % most;
	const line = (x: number, y: number, length: number, upright: boolean) => {
		for (let i = 0; i < length; i++) {
			const [px, py] = upright ? [x, y + i] : [x + i, y];
			if (px < width && py < height) pixels.fill(0, (py * width + px) * 4, (py * width + px) * 4 + 3);
		}
	};
	for (let i = 0; i < 12_000; i++) line(next(width), next(height), 20 + next(120), i % 2 === 0);
	if (changed) for (let i = 0; i < 25; i++) line(100 + i * 190, 100 + i * 130, 14, false);
	return pixels;
}

/** Comparing two sheets, from packed pixels to numbered places, as the worker does once they are drawn. */
export function comparing(): Line[] {
	const timed = <T>(doing: () => T) => {
		const begin = performance.now();
		return { value: doing(), took: performance.now() - begin };
	};
	const [before, after] = [sheetPixels(false), sheetPixels(true)];
	// Both are turned into ink at the same time, in a worker each: the longer of the two counts.
	const [one, other] = [before, after].map((pixels) => timed(() => packMask(pixels, 4967, 3508)));
	const found = timed(() => compareSheets(one!.value, other!.value));
	if (found.value.places.length !== 25)
		throw new Error(`${found.value.places.length} places of 25 were found`);
	const copy = timed(() => Uint8ClampedArray.from(before));
	return [
		{
			what: 'compare two A1 sheets at 150 dpi, once drawn (25 of 25 changes found)',
			value: Math.max(one!.took, other!.took) + found.took,
			unit: 'ms',
			budget: 300,
			baseline: { what: 'copying one of them', value: copy.took }
		}
	];
}
