import { arc, type Point } from './curves';
import { numberOf, valueOf, type Drawing, type Group } from './read';
import { multilineText } from './texts';

/** What a dimension comes down to when the file brings no picture of it. */
export interface DrawnDimension {
	lines: Point[][];
	/** Arrow heads, filled. */
	heads: Point[][];
	text: string;
	at: Point;
	height: number;
	/** Radians. */
	turn: number;
}

interface Sizes {
	text: number;
	arrow: number;
	decimals: number;
	/** What the measured length is multiplied by. */
	factor: number;
}

/** Sizes by the dimension's style, else by the drawing (DXF reference, DIMSTYLE: codes 40, 41, 140, 144, 271). */
function sizesOf(drawing: Drawing, g: readonly Group[]): Sizes {
	const style = drawing.dimensionStyles.get((valueOf(g, 3) ?? '').toUpperCase()) ?? [];
	const said = (code: number, variable: string, headCode: number, otherwise: number) =>
		numberOf(style, code, numberOf(drawing.header.get(variable) ?? [], headCode, otherwise));
	const scale = said(40, '$DIMSCALE', 40, 1) || 1;
	return {
		text: said(140, '$DIMTXT', 40, 2.5) * scale,
		arrow: said(41, '$DIMASZ', 40, 2.5) * scale,
		decimals: Math.max(0, Math.min(8, said(271, '$DIMDEC', 70, 2))),
		factor: Math.abs(said(144, '$DIMLFAC', 40, 1)) || 1
	};
}

const away = (a: Point, b: Point) => Math.hypot(b[0] - a[0], b[1] - a[1]);
const towards = (a: Point, b: Point) => Math.atan2(b[1] - a[1], b[0] - a[0]);
const middle = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

/**
 * Draws a dimension from the points it measures (DXF reference, DIMENSION; kinds by code 70: 0 turned, 1 aligned,
 * 2 and 5 angles, 3 diameter, 4 radius, 6 ordinate). Null when its points make no dimension.
 */
export function drawnDimension(drawing: Drawing, g: readonly Group[]): DrawnDimension | null {
	const point = (x: number): Point => [numberOf(g, x), numberOf(g, x + 10)];
	const sizes = sizesOf(drawing, g);
	const kind = numberOf(g, 70) & 7;
	const drawn =
		kind <= 1
			? straight(point, kind === 1 ? null : (numberOf(g, 50) * Math.PI) / 180, sizes)
			: kind === 2 || kind === 5
				? angle(point, kind === 5, sizes)
				: kind === 3 || kind === 4
					? across(point, kind === 3, sizes)
					: ordinate(point, (numberOf(g, 70) & 64) !== 0);
	if (!drawn || ![...drawn.lines.flat(2), drawn.measure].every(Number.isFinite)) return null;
	const measure = numberOf(g, 42, drawn.measure);
	const value =
		kind === 2 || kind === 5
			? `${trimmed((measure * 180) / Math.PI, 1)}°`
			: `${kind === 3 ? '⌀' : kind === 4 ? 'R' : ''}${trimmed(measure * sizes.factor, sizes.decimals)}`;
	const said = multilineText(valueOf(g, 1) ?? '').join(' ');
	const written = valueOf(g, 1)?.trim() === '' && (valueOf(g, 1) ?? '') !== '' ? '' : said || '<>';
	const at = valueOf(g, 11) === null ? drawn.at : point(11);
	// Words are read from below or from the right.
	let turn = drawn.turn % Math.PI;
	if (turn > Math.PI / 2 + 1e-9) turn -= Math.PI;
	if (turn <= -Math.PI / 2 + 1e-9) turn += Math.PI;
	return {
		lines: drawn.lines,
		heads: drawn.heads,
		text: written.replaceAll('<>', value),
		at,
		height: sizes.text,
		turn
	};
}

const trimmed = (value: number, decimals: number) => String(Number(value.toFixed(decimals)));

interface Figure {
	lines: Point[][];
	heads: Point[][];
	measure: number;
	at: Point;
	turn: number;
}
type Points = (x: number) => Point;

/** An arrow head with its tip at a point, seen from the direction it points to. */
function head([x, y]: Point, direction: number, size: number): Point[] {
	const wing = (turn: number): Point => [
		x - size * Math.cos(direction + turn),
		y - size * Math.sin(direction + turn)
	];
	return [[x, y], wing(0.165), wing(-0.165)];
}

function straight(point: Points, turned: number | null, { arrow }: Sizes): Figure {
	const [line, a, b] = [point(10), point(13), point(14)];
	const turn = turned ?? towards(a, b);
	const [ux, uy] = [Math.cos(turn), Math.sin(turn)];
	const foot = (p: Point): Point => {
		const along = (p[0] - line[0]) * ux + (p[1] - line[1]) * uy;
		return [line[0] + along * ux, line[1] + along * uy];
	};
	const [from, to] = [foot(a), foot(b)];
	const direction = towards(from, to);
	return {
		lines: [
			[a, from],
			[b, to],
			[from, to]
		],
		heads: [head(from, direction + Math.PI, arrow), head(to, direction, arrow)],
		measure: away(from, to),
		at: middle(from, to),
		turn
	};
}

function angle(point: Points, threePoints: boolean, { arrow }: Sizes): Figure | null {
	const vertex = threePoints ? point(15) : crossing(point(13), point(14), point(15), point(10));
	if (!vertex) return null;
	const [a, b] = threePoints ? [point(13), point(14)] : [point(14), point(10)];
	const through = point(threePoints ? 10 : 16);
	const radius = away(vertex, through);
	const start = towards(vertex, a);
	const full = 2 * Math.PI;
	const sweepTo = (end: number) => (((end - start) % full) + full) % full;
	const sweep = sweepTo(towards(vertex, b));
	// The arc goes the way that leads through the point given for it.
	const turned = sweepTo(towards(vertex, through)) <= sweep ? sweep : sweep - full;
	const way = arc(vertex[0], vertex[1], radius, start, turned);
	const sign = Math.sign(turned) * (Math.PI / 2);
	return {
		lines: [way],
		heads: [head(way[0]!, start - sign, arrow), head(way.at(-1)!, start + turned + sign, arrow)],
		measure: Math.abs(turned),
		at: way[Math.floor(way.length / 2)]!,
		turn: 0
	};
}

/** Where the line through two points meets the line through two others; null when they run side by side. */
function crossing(a: Point, b: Point, c: Point, d: Point): Point | null {
	const [px, py, qx, qy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
	const by = px * qy - py * qx;
	if (Math.abs(by) < 1e-12) return null;
	const t = ((c[0] - a[0]) * qy - (c[1] - a[1]) * qx) / by;
	return [a[0] + t * px, a[1] + t * py];
}

function across(point: Points, diameter: boolean, { arrow }: Sizes): Figure {
	const [from, to] = diameter ? [point(15), point(10)] : [point(10), point(15)];
	const direction = towards(from, to);
	return {
		lines: [[from, to]],
		heads: [head(to, direction, arrow), ...(diameter ? [head(from, direction + Math.PI, arrow)] : [])],
		measure: away(from, to),
		at: middle(from, to),
		turn: direction
	};
}

function ordinate(point: Points, alongX: boolean): Figure {
	const [origin, of, end] = [point(10), point(13), point(14)];
	return {
		lines: [[of, end]],
		heads: [],
		measure: Math.abs(alongX ? of[0] - origin[0] : of[1] - origin[1]),
		at: end,
		turn: alongX ? Math.PI / 2 : 0
	};
}
