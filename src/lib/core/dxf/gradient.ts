import { indexColour } from './colours';
import type { Flat, Point } from './curves';
import { numberOf, valueOf, type Group } from './read';

/** Colours that pass into each other across an area. */
export interface Gradient {
	/** Along a line from its first end to its second, or around its first end out to its second. */
	way: 'along' | 'around';
	/** x and y of both ends in drawing units. */
	ends: Flat;
	/** Colours at even distances from the first end to the second. */
	colours: number[];
}

/**
 * The gradient of a hatch, its ends in the hatch's own units; null for an even one (DXF reference, HATCH: 450 to 470).
 * Curved ones are drawn straight.
 */
export function gradientOf(
	g: readonly Group[],
	loops: readonly Point[][]
):
	| (Omit<Gradient, 'ends'> & {
			ends: [Point, Point];
	  })
	| null {
	if (numberOf(g, 450) !== 1) return null;
	const given = coloursOf(g);
	if (given.length < 2) return null;
	const name = (valueOf(g, 470) ?? 'LINEAR').trim().toUpperCase();
	const inverted = name.startsWith('INV');
	const [first, second] = inverted ? [given[1]!, given[0]!] : [given[0]!, given[1]!];
	const xs = loops.flat().map((p) => p[0]);
	const ys = loops.flat().map((p) => p[1]);
	const [left, right] = [xs.reduce((a, b) => Math.min(a, b)), xs.reduce((a, b) => Math.max(a, b))];
	const [bottom, top] = [ys.reduce((a, b) => Math.min(a, b)), ys.reduce((a, b) => Math.max(a, b))];
	const centre: Point = [(left + right) / 2, (bottom + top) / 2];
	const [halfWidth, halfHeight] = [(right - left) / 2, (top - bottom) / 2];
	if (/SPHERICAL/.test(name)) {
		const end: Point = [centre[0] + Math.hypot(halfWidth, halfHeight), centre[1]];
		return { way: 'around', ends: [centre, end], colours: [second, first] };
	}
	const turn = numberOf(g, 460);
	const reach = Math.abs(Math.cos(turn)) * halfWidth + Math.abs(Math.sin(turn)) * halfHeight;
	const [dx, dy] = [Math.cos(turn) * reach, Math.sin(turn) * reach];
	return {
		way: 'along',
		ends: [
			[centre[0] - dx, centre[1] - dy],
			[centre[0] + dx, centre[1] + dy]
		],
		colours: /CYLINDER/.test(name) ? [first, second, first] : [first, second]
	};
}

/** The two colours: as true colours, else by index; of one colour alone its tint is the second. */
function coloursOf(g: readonly Group[]): number[] {
	const exact = g.filter(([code]) => code === 421).map(([, value]) => Number(value) & 0xffffff);
	const colours = exact.length
		? exact
		: g.filter(([code]) => code === 63).map(([, v]) => indexColour(Number(v)));
	const [one] = colours;
	if (one === undefined || (numberOf(g, 452) !== 1 && colours.length > 1)) return colours;
	// 0 is black, 0.5 the colour itself, 1 white.
	const tint = Math.max(0, Math.min(1, numberOf(g, 462, 1)));
	const channel = (shift: number) => {
		const value = (Math.max(0, one) >> shift) & 255;
		return Math.round(tint < 0.5 ? value * tint * 2 : value + (255 - value) * (tint - 0.5) * 2);
	};
	return [one, (channel(16) << 16) | (channel(8) << 8) | channel(0)];
}
