import { boxOf } from './box';
import { flattenSome } from './flatten';
import type { Layout } from './layouts';
import { numberOf, type Drawing, type Group } from './read';
import type { Flat } from './curves';
import type { Fill, Sheet, Stroke } from './sheet';

/** Most pieces that all windows of a sheet together show of the model. */
const MOST_SHOWN = 400_000;

type Box = [left: number, bottom: number, right: number, top: number];
/** A window of the sheet and how the model stands in it: paper = turn · model · scale + shift. */
interface Window {
	box: Box;
	place: (x: number, y: number) => [number, number];
	scale: number;
	turn: number;
	/** Layers that are not shown in it, in capitals. */
	off: ReadonlySet<string>;
}

/**
 * A sheet that a drawing is laid out on (paper space), with the model shown in its windows. Windows by their VIEWPORT
 * entities (DXF reference: centre 10, size 40 and 41, view centre 12, view height 45, target 17, twist 51, layers not
 * shown in it 331 and 341). Windows of other forms than rectangles are shown as the rectangles around them.
 */
export function layOut(drawing: Drawing, layout: Layout, model: Sheet): Sheet {
	const paper = flattenSome(
		drawing,
		layout.entities.map((entity, of) => ({ entity, of }))
	);
	const layersByHandle = new Map([...drawing.layers.values()].map((l) => [l.handle, l.name.toUpperCase()]));
	const windows = layout.entities
		.filter((e) => e.type === 'VIEWPORT' && numberOf(e.groups, 69) !== 1 && numberOf(e.groups, 68, 1) !== 0)
		.map((e) => windowOf(e.groups, layersByHandle))
		.filter((w): w is Window => w !== null);
	const layers = [...paper.layers];
	const index = model.layers.map((layer) => {
		const at = layers.findIndex((l) => l.name.toUpperCase() === layer.name.toUpperCase());
		return at >= 0 ? at : layers.push({ ...layer }) - 1;
	});
	const strokes = [...paper.strokes];
	const fills = [...paper.fills];
	const texts = [...paper.texts];
	let cut = paper.cut || model.cut;
	for (const window of windows) {
		const off = model.layers.map((layer) => window.off.has(layer.name.toUpperCase()));
		for (const stroke of model.strokes) {
			if (off[stroke.layer]) continue;
			if (strokes.length > MOST_SHOWN) {
				cut = true;
				break;
			}
			for (const points of clippedLine(placed(stroke.points, window), window.box))
				strokes.push(moved(stroke, points, index[stroke.layer]!, window.scale));
		}
		for (const fill of model.fills) {
			if (off[fill.layer]) continue;
			const loops = fill.loops
				.map((loop) => clippedArea(placed(loop, window), window.box))
				.filter((loop) => loop.length >= 6);
			const { gradient } = fill;
			if (loops.length)
				fills.push({
					...fill,
					loops,
					layer: index[fill.layer]!,
					gradient: gradient && { ...gradient, ends: placed(gradient.ends, window) }
				} satisfies Fill);
		}
		for (const text of model.texts) {
			const [x, y] = window.place(text.x, text.y);
			if (off[text.layer] || !within(window.box, x, y)) continue;
			texts.push({
				...text,
				x,
				y,
				height: text.height * window.scale,
				turn: text.turn + window.turn,
				layer: index[text.layer]!
			});
		}
	}
	const unknown = { ...paper.unknown };
	if (windows.length)
		for (const [kind, count] of Object.entries(model.unknown)) unknown[kind] = (unknown[kind] ?? 0) + count;
	const shown = { ...paper, strokes, fills, texts, layers, unknown, cut };
	return { ...shown, attributes: [...paper.attributes, ...model.attributes], box: boxOf(shown) };
}

function windowOf(g: readonly Group[], layers: ReadonlyMap<string, string>): Window | null {
	const [cx, cy, width, height] = [10, 20, 40, 41].map((code) => numberOf(g, code)) as [
		number,
		number,
		number,
		number
	];
	const viewHeight = numberOf(g, 45);
	if (!(width > 0 && height > 0 && viewHeight > 0)) return null;
	const scale = height / viewHeight;
	const [vx, vy, tx, ty] = [12, 22, 17, 27].map((code) => numberOf(g, code)) as [
		number,
		number,
		number,
		number
	];
	const turn = (numberOf(g, 51) * Math.PI) / 180;
	const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
	return {
		box: [cx - width / 2, cy - height / 2, cx + width / 2, cy + height / 2],
		place: (x, y) => {
			const [dx, dy] = [x - tx, y - ty];
			return [cx + (cos * dx - sin * dy - vx) * scale, cy + (sin * dx + cos * dy - vy) * scale];
		},
		scale,
		turn,
		off: new Set(
			g
				.filter(([code]) => code === 331 || code === 341)
				.flatMap(([, handle]) => layers.get(handle.trim().toUpperCase()) ?? [])
		)
	};
}

const within = ([left, bottom, right, top]: Box, x: number, y: number) =>
	x >= left && x <= right && y >= bottom && y <= top;

function placed(points: Flat, { place }: Window): Flat {
	const out: number[] = [];
	for (let i = 0; i < points.length; i += 2) out.push(...place(points[i]!, points[i + 1]!));
	return out.slice();
}

const moved = (stroke: Stroke, points: Flat, layer: number, scale: number): Stroke => ({
	...stroke,
	points,
	layer,
	wide: stroke.wide * scale,
	dash: stroke.dash.map((d) => d * scale)
});

/** The parts of a line within a box (Liang and Barsky, 1984), joined where they follow each other. */
export function clippedLine(points: Flat, [left, bottom, right, top]: Box): Flat[] {
	const parts: number[][] = [];
	let open: number[] | null = null;
	for (let i = 0; i + 3 < points.length; i += 2) {
		const [x1, y1, x2, y2] = [points[i]!, points[i + 1]!, points[i + 2]!, points[i + 3]!];
		const [dx, dy] = [x2 - x1, y2 - y1];
		let [from, to] = [0, 1];
		for (const [p, q] of [
			[-dx, x1 - left],
			[dx, right - x1],
			[-dy, y1 - bottom],
			[dy, top - y1]
		] as const) {
			if (p === 0) {
				if (q < 0) to = -1;
			} else if (p < 0) from = Math.max(from, q / p);
			else to = Math.min(to, q / p);
		}
		if (from > to) {
			open = null;
			continue;
		}
		if (!open || from > 0) parts.push((open = [x1 + from * dx, y1 + from * dy]));
		open.push(x1 + to * dx, y1 + to * dy);
		if (to < 1) open = null;
	}
	return parts;
}

/** An area within a box (Sutherland and Hodgman, 1974). */
export function clippedArea(points: Flat, [left, bottom, right, top]: Box): Flat {
	let corners: [number, number][] = [];
	for (let i = 0; i < points.length; i += 2) corners.push([points[i]!, points[i + 1]!]);
	const sides: [axis: 0 | 1, at: number, sign: 1 | -1][] = [
		[0, left, 1],
		[0, right, -1],
		[1, bottom, 1],
		[1, top, -1]
	];
	for (const [axis, at, sign] of sides) {
		const inside = (p: [number, number]) => (p[axis] - at) * sign >= 0;
		const next: [number, number][] = [];
		corners.forEach((p, i) => {
			const before = corners.at(i - 1)!;
			if (inside(p) !== inside(before)) {
				const t = (at - before[axis]) / (p[axis] - before[axis]);
				next.push([before[0] + t * (p[0] - before[0]), before[1] + t * (p[1] - before[1])]);
			}
			if (inside(p)) next.push(p);
		});
		corners = next;
	}
	return corners.flat();
}
