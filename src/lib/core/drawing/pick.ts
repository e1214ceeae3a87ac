import type { Sheet, Stroke, Text } from '../dxf/sheet';
import type { Shown } from '../dxf/snap';
import type { XY } from './item';

/** What an entity comes down to on the sheet. */
export interface Shapes {
	strokes: Stroke[];
	texts: Text[];
}

/** The strokes and texts of a sheet by the entity that they come from. */
export function byEntity(sheet: Sheet): Map<number, Shapes> {
	const found = new Map<number, Shapes>();
	const of = (n: number) => {
		let shapes = found.get(n);
		if (!shapes) found.set(n, (shapes = { strokes: [], texts: [] }));
		return shapes;
	};
	for (const stroke of sheet.strokes) of(stroke.of).strokes.push(stroke);
	for (const text of sheet.texts) of(text.of).texts.push(text);
	return found;
}

/** Width of a letter against its height, near enough for telling whether a point lies on words. */
const LETTER = 0.85;

/** The first text that a point lies on, or within reach of. */
export function textAt(texts: readonly Text[], [x, y]: XY, reach: number, shown: Shown): Text | undefined {
	return texts.find((t) => {
		if (!shown(t.layer, t.of)) return false;
		const [cos, sin] = [Math.cos(-t.turn), Math.sin(-t.turn)];
		const [dx, dy] = [x - t.x, y - t.y];
		const width = t.text.length * t.height * LETTER * t.wide;
		const along = dx * cos - dy * sin + t.alignX * width;
		const up = dx * sin + dy * cos + t.alignY * t.height;
		return along > -reach && along < width + reach && up > -reach && up < t.height + reach;
	});
}

/** Whether everything of an entity lies within the box between two points, and is shown. */
export function liesWithin({ strokes, texts }: Shapes, a: XY, b: XY, on: readonly boolean[]): boolean {
	if (!strokes.length && !texts.length) return false;
	const [left, right] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
	const [bottom, top] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
	const inside = (x: number, y: number) => x >= left && x <= right && y >= bottom && y <= top;
	return (
		strokes.every(({ points, layer }) => {
			for (let i = 0; i < points.length; i += 2) if (!inside(points[i]!, points[i + 1]!)) return false;
			return on[layer] === true;
		}) && texts.every((t) => inside(t.x, t.y))
	);
}
