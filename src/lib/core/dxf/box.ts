import { textWidth } from './letters';
import type { Sheet, Text } from './sheet';

/**
 * Smallest box around everything on visible layers: left, bottom, right, top. Stray points far away would make
 * the drawing a dot, so ends beyond ten times the span of the middle 98 % are left out.
 */
export function boxOf(shown: Pick<Sheet, 'strokes' | 'fills' | 'texts' | 'layers'>): Sheet['box'] {
	const xs: number[] = [];
	const ys: number[] = [];
	const add = (x: number, y: number, layer: number) => {
		if (!shown.layers[layer]!.visible) return;
		xs.push(x);
		ys.push(y);
	};
	for (const s of shown.strokes)
		for (let i = 0; i < s.points.length; i += 2) {
			const [x, y, half] = [s.points[i]!, s.points[i + 1]!, s.wide / 2];
			add(x - half, y - half, s.layer);
			if (half) add(x + half, y + half, s.layer);
		}
	for (const f of shown.fills)
		for (const l of f.loops) for (let i = 0; i < l.length; i += 2) add(l[i]!, l[i + 1]!, f.layer);
	for (const t of shown.texts) for (const [x, y] of cornersOf(t)) add(x, y, t.layer);
	if (!xs.length) return [0, 0, 100, 100];
	const [left, right] = span(xs);
	const [bottom, top] = span(ys);
	return [left, bottom, right > left ? right : left + 1, top > bottom ? top : bottom + 1];
}

/** Corners of the box that a text's letters fill, from its first one on; what hangs below the line is left out. */
function cornersOf(t: Text): [x: number, y: number][] {
	const width = textWidth(t.text, t.height) * t.wide;
	const [cos, sin] = [Math.cos(t.turn), Math.sin(t.turn)];
	const [left, low] = [-t.alignX * width, -t.alignY * t.height];
	return [
		[left, low],
		[left + width, low],
		[left + width, low + t.height],
		[left, low + t.height]
	].map(([dx, dy]) => [t.x + dx! * cos - dy! * sin, t.y + dx! * sin + dy! * cos]);
}

/** Of more values than this the middle is told from some of them: it only has to be about right. */
const MOST_SORTED = 20_000;

function span(values: readonly number[]): [number, number] {
	const every = Math.ceil(values.length / MOST_SORTED);
	const some = Float64Array.from({ length: Math.ceil(values.length / every) }, (_, i) => values[i * every]!);
	some.sort();
	const low = some[Math.floor(some.length * 0.01)]!;
	const high = some[Math.ceil(some.length * 0.99) - 1]!;
	const reach = (high - low || 1) * 10;
	let [from, to] = [high, low];
	for (const value of values) {
		if (value < from && value >= low - reach) from = value;
		if (value > to && value <= high + reach) to = value;
	}
	return [from, to];
}
