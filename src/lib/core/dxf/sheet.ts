import { arc, ellipse, hatchLines, polyline, spline, type Point } from './curves';
import { numberOf, valueOf, type Drawing, type Entity, type Group } from './read';

/** What a drawing comes down to for showing it, in drawing units with y upward. */
export interface Sheet {
	strokes: Stroke[];
	fills: Fill[];
	texts: Text[];
	layers: { name: string; visible: boolean; items: number }[];
	/** Attributes of block insertions, by block and tag; title blocks are read from here. */
	attributes: { block: string; tag: string; value: string }[];
	/** Smallest box around everything visible: left, bottom, right, top. */
	box: [number, number, number, number];
	/** Entities whose kind is not shown, with how many there are. */
	unknown: Record<string, number>;
	/** True when the drawing held more than the limits below let through. */
	cut: boolean;
}
interface Item {
	layer: number;
	/** 0xRRGGBB, or -1 for ink (black on light ground, white on dark). */
	colour: number;
}
export interface Stroke extends Item {
	points: Float64Array;
	/** Millimetres on paper. */
	weight: number;
	/** Dash lengths in drawing units, empty for a full line. */
	dash: number[];
}
export interface Fill extends Item {
	loops: Float64Array[];
}
export interface Text extends Item {
	x: number;
	y: number;
	height: number;
	/** Radians. */
	turn: number;
	text: string;
	/** 0 left, 0.5 middle, 1 right of the text at x. */
	alignX: number;
	/** 0 baseline or bottom, 0.5 middle, 1 top of the text at y. */
	alignY: number;
}

const MOST_ITEMS = 400_000;
const MOST_DEPTH = 16;
const MOST_COPIES = 20_000;

/** Rows of the standard colour index used in practice; others go by the hue rule below. */
const BASIC: Record<number, number> = {
	1: 0xff0000,
	2: 0xb8a000,
	3: 0x00a000,
	4: 0x009aa8,
	5: 0x0000ff,
	6: 0xc000c0,
	8: 0x808080,
	9: 0xa8a8a8
};

/** Colour of an index: 7 is ink, 10 to 249 run through 24 hues in ten shades, 250 to 255 are greys. */
export function indexColour(index: number): number {
	if (index === 7 || index === 0 || index > 255 || index < 0) return -1;
	const basic = BASIC[index];
	if (basic !== undefined) return basic;
	if (index >= 250) {
		const grey = 0x33 + (index - 250) * 0x22;
		return (grey << 16) | (grey << 8) | grey;
	}
	const hue = Math.floor(index / 10 - 1) * 15;
	const shade = [1, 1, 0.65, 0.65, 0.5, 0.5, 0.3, 0.3, 0.15, 0.15][index % 10]!;
	const pale = index % 2 === 1 ? 0.5 : 0;
	const channel = (offset: number) => {
		const k = (offset + hue / 60) % 6;
		const full = Math.max(0, Math.min(1, Math.min(k, 4 - k)));
		return Math.round(255 * shade * (1 - (1 - pale) * full));
	};
	return (channel(5) << 16) | (channel(3) << 8) | channel(1);
}

/** Placement of a block: x' = a x + c y + e, y' = b x + d y + f. */
type Matrix = [a: number, b: number, c: number, d: number, e: number, f: number];
const UNIT: Matrix = [1, 0, 0, 1, 0, 0];

function times(m: Matrix, n: Matrix): Matrix {
	return [
		m[0] * n[0] + m[2] * n[1],
		m[1] * n[0] + m[3] * n[1],
		m[0] * n[2] + m[2] * n[3],
		m[1] * n[2] + m[3] * n[3],
		m[0] * n[4] + m[2] * n[5] + m[4],
		m[1] * n[4] + m[3] * n[5] + m[5]
	];
}

interface Inherited {
	layer: string;
	colour: number;
	lineType: string;
	weight: number;
}

/** Brings a drawing down to strokes, fills and texts. Never throws on odd entities; they are counted as unknown. */
export function flatten(drawing: Drawing): Sheet {
	return new Flattener(drawing).run();
}

class Flattener {
	private readonly strokes: Stroke[] = [];
	private readonly fills: Fill[] = [];
	private readonly texts: Text[] = [];
	private readonly attributes: Sheet['attributes'] = [];
	private readonly unknown: Record<string, number> = {};
	private readonly layerIndex = new Map<string, number>();
	private readonly layers: Sheet['layers'] = [];
	private copies = 0;
	private cut = false;
	private readonly scale: number;

	constructor(private readonly drawing: Drawing) {
		this.scale = numberOf(drawing.header.get('$LTSCALE') ?? [], 40, 1) || 1;
	}

	run(): Sheet {
		for (const entity of this.drawing.entities) {
			this.entity(entity, UNIT, { layer: '0', colour: -1, lineType: 'CONTINUOUS', weight: -3 }, 0);
		}
		return {
			strokes: this.strokes,
			fills: this.fills,
			texts: this.texts,
			layers: this.layers,
			attributes: this.attributes,
			unknown: this.unknown,
			cut: this.cut,
			box: this.box()
		};
	}

	private layerOf(name: string): number {
		const key = name.toUpperCase();
		let index = this.layerIndex.get(key);
		if (index === undefined) {
			index = this.layers.length;
			this.layerIndex.set(key, index);
			const known = this.drawing.layers.get(key);
			this.layers.push({ name: known?.name ?? name, visible: known?.visible ?? true, items: 0 });
		}
		return index;
	}

	/** What an entity draws with: its own, its layer's, or its block's. Layer 0 in a block is the insertion's. */
	private style(groups: readonly Group[], from: Inherited): Inherited {
		const own = valueOf(groups, 8) ?? '0';
		const layer = own === '0' ? from.layer : own;
		const known = this.drawing.layers.get(layer.toUpperCase());
		const index = numberOf(groups, 62, 256);
		const trueColour = valueOf(groups, 420);
		const colour =
			trueColour !== null
				? Number(trueColour) & 0xffffff
				: index === 256
					? indexColour(known?.colour ?? 7)
					: index === 0
						? from.colour
						: indexColour(index);
		const lt = (valueOf(groups, 6) ?? 'BYLAYER').toUpperCase();
		const lineType =
			lt === 'BYLAYER' ? (known?.lineType ?? 'CONTINUOUS') : lt === 'BYBLOCK' ? from.lineType : lt;
		const w = numberOf(groups, 370, -1);
		const weight = w === -1 ? (known?.weight ?? -3) : w === -2 ? from.weight : w;
		return { layer, colour, lineType, weight };
	}

	private full(): boolean {
		if (this.strokes.length + this.fills.length + this.texts.length < MOST_ITEMS) return false;
		this.cut = true;
		return true;
	}

	private project(points: Point[], m: Matrix): Float64Array {
		const flat = new Float64Array(points.length * 2);
		points.forEach(([x, y], i) => {
			flat[2 * i] = m[0] * x + m[2] * y + m[4];
			flat[2 * i + 1] = m[1] * x + m[3] * y + m[5];
		});
		return flat;
	}

	private stroke(points: Point[], m: Matrix, style: Inherited, dashScale: number): void {
		if (points.length < 2 || this.full()) return;
		const flat = this.project(points, m);
		if (flat.some((v) => !Number.isFinite(v))) return;
		const layer = this.layerOf(style.layer);
		this.layers[layer]!.items++;
		const dash = (this.drawing.lineTypes.get(style.lineType.toUpperCase()) ?? []).map(
			(d) => Math.abs(d) * this.scale * dashScale
		);
		const weight = style.weight >= 0 ? Math.min(style.weight, 211) / 100 : 0.25;
		this.strokes.push({ points: flat, layer, colour: style.colour, weight, dash });
	}

	private fill(loops: Point[][], m: Matrix, style: Inherited): void {
		if (this.full()) return;
		const layer = this.layerOf(style.layer);
		this.layers[layer]!.items++;
		this.fills.push({ loops: loops.map((l) => this.project(l, m)), layer, colour: style.colour });
	}

	private text(
		x: number,
		y: number,
		height: number,
		turn: number,
		text: string,
		alignX: number,
		alignY: number,
		m: Matrix,
		style: Inherited
	): void {
		if (text.trim() === '' || !(height > 0) || this.full()) return;
		const layer = this.layerOf(style.layer);
		this.layers[layer]!.items++;
		const size = Math.hypot(m[2], m[3]);
		this.texts.push({
			x: m[0] * x + m[2] * y + m[4],
			y: m[1] * x + m[3] * y + m[5],
			height: height * size,
			turn: turn + Math.atan2(m[1], m[0]),
			text,
			alignX,
			alignY,
			layer,
			colour: style.colour
		});
	}

	private entity(entity: Entity, outer: Matrix, from: Inherited, depth: number): void {
		const g = entity.groups;
		// Paper space is laid out in part by viewports; the model is what is shown.
		if (depth === 0 && numberOf(g, 67) === 1) return;
		if (numberOf(g, 60) === 1) return;
		const style = this.style(g, from);
		// An extrusion of 0,0,-1 mirrors the entity's own coordinates.
		const m = numberOf(g, 230, 1) < 0 ? times(outer, [-1, 0, 0, 1, 0, 0]) : outer;
		const dashScale = numberOf(g, 48, 1);
		const n = (code: number, otherwise = 0) => numberOf(g, code, otherwise);
		const rad = Math.PI / 180;
		switch (entity.type) {
			case 'LINE':
				return this.stroke(
					[
						[n(10), n(20)],
						[n(11), n(21)]
					],
					outer,
					style,
					dashScale
				);
			case 'LWPOLYLINE': {
				const [vertices, bulges] = lightVertices(g);
				return this.stroke(polyline(vertices, bulges, (n(70) & 1) === 1), m, style, dashScale);
			}
			case 'POLYLINE': {
				const real = entity.children.filter((v) => (numberOf(v.groups, 70) & 16) === 0);
				const vertices = real.map((v): Point => [numberOf(v.groups, 10), numberOf(v.groups, 20)]);
				return this.stroke(
					polyline(
						vertices,
						real.map((v) => numberOf(v.groups, 42)),
						(n(70) & 1) === 1
					),
					m,
					style,
					dashScale
				);
			}
			case 'CIRCLE':
				return this.stroke(arc(n(10), n(20), n(40), 0, 2 * Math.PI), m, style, dashScale);
			case 'ARC': {
				let sweep = (n(51) - n(50)) * rad;
				if (sweep <= 0) sweep += 2 * Math.PI;
				return this.stroke(arc(n(10), n(20), n(40), n(50) * rad, sweep), m, style, dashScale);
			}
			case 'ELLIPSE':
				return this.stroke(
					ellipse(n(10), n(20), n(11), n(21), n(40, 1), n(41), n(42, 2 * Math.PI)),
					outer,
					style,
					dashScale
				);
			case 'SPLINE': {
				const control = pairs(g, 10, 20);
				const points = control.length ? spline(n(71, 3), control, all(g, 40), all(g, 41)) : pairs(g, 11, 21);
				return this.stroke(points, outer, style, dashScale);
			}
			case 'LEADER':
				return this.stroke(pairs(g, 10, 20), outer, style, dashScale);
			case 'SOLID':
			case 'TRACE':
				return this.fill(
					[
						[
							[n(10), n(20)],
							[n(11), n(21)],
							[n(13, n(12)), n(23, n(22))],
							[n(12), n(22)]
						]
					],
					m,
					style
				);
			case '3DFACE':
				return this.stroke(
					[
						[n(10), n(20)],
						[n(11), n(21)],
						[n(12), n(22)],
						[n(13), n(23)],
						[n(10), n(20)]
					],
					outer,
					style,
					dashScale
				);
			case 'HATCH':
				return this.hatch(g, m, style);
			case 'TEXT':
			case 'ATTRIB':
				return this.singleText(g, m, style);
			case 'MTEXT':
				return this.manyText(g, m, style);
			case 'INSERT':
				return this.insert(entity, m, style, depth);
			case 'DIMENSION':
				return this.blockAt(valueOf(g, 2) ?? '', outer, style, depth);
			case 'POINT':
			case 'ATTDEF':
			case 'VIEWPORT':
			case 'SEQEND':
				return;
			default:
				this.unknown[entity.type] = (this.unknown[entity.type] ?? 0) + 1;
		}
	}

	private singleText(g: Group[], m: Matrix, style: Inherited): void {
		const across = numberOf(g, 72);
		const up = numberOf(g, 73, numberOf(g, 74));
		const aligned = across !== 0 || up !== 0;
		const [cx, cy] = aligned && valueOf(g, 11) !== null ? [11, 21] : [10, 20];
		const alignX = across === 1 || across === 4 ? 0.5 : across === 2 ? 1 : 0;
		const alignY = across === 4 || up === 2 ? 0.5 : up === 3 ? 1 : 0;
		this.text(
			numberOf(g, cx!),
			numberOf(g, cy!),
			numberOf(g, 40, 1),
			(numberOf(g, 50) * Math.PI) / 180,
			plainText(valueOf(g, 1) ?? ''),
			alignX,
			alignY,
			m,
			style
		);
	}

	private manyText(g: Group[], m: Matrix, style: Inherited): void {
		const raw = g
			.filter(([code]) => code === 3 || code === 1)
			.map(([, value]) => value)
			.join('');
		const lines = multilineText(raw).slice(0, 500);
		const height = numberOf(g, 40, 1);
		const attach = numberOf(g, 71, 1) - 1;
		const turn =
			valueOf(g, 11) !== null
				? Math.atan2(numberOf(g, 21), numberOf(g, 11))
				: (numberOf(g, 50) * Math.PI) / 180;
		const lead = height * 1.6 * numberOf(g, 44, 1);
		const total = (lines.length - 1) * lead;
		const first = [0, total / 2, total][Math.floor(attach / 3)] ?? 0;
		lines.forEach((text, i) => {
			const down = i * lead - first;
			this.text(
				numberOf(g, 10) + Math.sin(turn) * down,
				numberOf(g, 20) - Math.cos(turn) * down,
				height,
				turn,
				text,
				[0, 0.5, 1][attach % 3] ?? 0,
				[1, 0.5, 0][Math.floor(attach / 3)] ?? 1,
				m,
				style
			);
		});
	}

	private insert(entity: Entity, m: Matrix, style: Inherited, depth: number): void {
		const g = entity.groups;
		const name = valueOf(g, 2) ?? '';
		const sx = numberOf(g, 41, 1);
		const sy = numberOf(g, 42, 1);
		const turn = (numberOf(g, 50) * Math.PI) / 180;
		const cos = Math.cos(turn);
		const sin = Math.sin(turn);
		const columns = Math.max(1, numberOf(g, 70, 1));
		const rows = Math.max(1, numberOf(g, 71, 1));
		const base = this.drawing.blocks.get(name.toUpperCase())?.base ?? [0, 0];
		for (let r = 0; r < rows; r++) {
			for (let c = 0; c < columns; c++) {
				if (++this.copies > MOST_COPIES) {
					this.cut = true;
					return;
				}
				const dx = c * numberOf(g, 44);
				const dy = r * numberOf(g, 45);
				const place: Matrix = [
					cos * sx,
					sin * sx,
					-sin * sy,
					cos * sy,
					numberOf(g, 10) + cos * dx - sin * dy,
					numberOf(g, 20) + sin * dx + cos * dy
				];
				this.blockAt(name, times(times(m, place), [1, 0, 0, 1, -base[0], -base[1]]), style, depth);
			}
		}
		for (const child of entity.children) {
			this.attributes.push({
				block: name,
				tag: (valueOf(child.groups, 2) ?? '').trim().toUpperCase(),
				value: plainText(valueOf(child.groups, 1) ?? '')
			});
			if ((numberOf(child.groups, 70) & 1) === 0) this.entity(child, m, style, depth + 1);
		}
	}

	private blockAt(name: string, m: Matrix, style: Inherited, depth: number): void {
		const block = this.drawing.blocks.get(name.toUpperCase());
		if (!block) return;
		if (depth >= MOST_DEPTH) {
			this.cut = true;
			return;
		}
		for (const entity of block.entities) this.entity(entity, m, style, depth + 1);
	}

	private hatch(g: Group[], m: Matrix, style: Inherited): void {
		const loops = hatchLoops(g).filter((loop) => loop.length > 2);
		if (!loops.length) return;
		if (numberOf(g, 70) === 1) return this.fill(loops, m, style);
		const patterns: { angle: number; gap: number }[] = [];
		g.forEach(([code, value], i) => {
			if (code !== 53) return;
			const line = g.slice(i, i + 8);
			const angle = (Number(value) * Math.PI) / 180;
			// The gap is the part of the offset across the line.
			patterns.push({
				angle,
				gap: Math.abs(numberOf(line, 46) * Math.cos(angle) - numberOf(line, 45) * Math.sin(angle))
			});
		});
		for (const { angle, gap } of patterns.slice(0, 8)) {
			for (const [a, b] of hatchLines(loops, angle, gap, 4_000))
				this.stroke([a, b], m, { ...style, lineType: 'CONTINUOUS', weight: 9 }, 1);
		}
	}

	/**
	 * Box around everything on visible layers. Stray points far away would make the drawing a dot, so ends
	 * beyond ten times the span of the middle 98 % are left out.
	 */
	private box(): Sheet['box'] {
		const xs: number[] = [];
		const ys: number[] = [];
		const add = (x: number, y: number, layer: number) => {
			if (!this.layers[layer]!.visible) return;
			xs.push(x);
			ys.push(y);
		};
		for (const s of this.strokes)
			for (let i = 0; i < s.points.length; i += 2) add(s.points[i]!, s.points[i + 1]!, s.layer);
		for (const f of this.fills)
			for (const l of f.loops) for (let i = 0; i < l.length; i += 2) add(l[i]!, l[i + 1]!, f.layer);
		for (const t of this.texts) add(t.x, t.y, t.layer);
		if (!xs.length) return [0, 0, 100, 100];
		const [left, right] = span(xs);
		const [bottom, top] = span(ys);
		return [left, bottom, right > left ? right : left + 1, top > bottom ? top : bottom + 1];
	}
}

function span(values: number[]): [number, number] {
	const sorted = Float64Array.from(values).sort();
	const low = sorted[Math.floor(sorted.length * 0.01)]!;
	const high = sorted[Math.ceil(sorted.length * 0.99) - 1]!;
	const reach = (high - low || 1) * 10;
	let from = 0;
	let to = sorted.length - 1;
	while (sorted[from]! < low - reach) from++;
	while (sorted[to]! > high + reach) to--;
	return [sorted[from]!, sorted[to]!];
}

function lightVertices(g: readonly Group[]): [Point[], number[]] {
	const vertices: Point[] = [];
	const bulges: number[] = [];
	for (const [code, value] of g) {
		if (code === 10) {
			vertices.push([Number(value), 0]);
			bulges.push(0);
		} else if (code === 20 && vertices.length) vertices.at(-1)![1] = Number(value);
		else if (code === 42 && bulges.length) bulges[bulges.length - 1] = Number(value);
	}
	return [vertices, bulges];
}

function all(g: readonly Group[], code: number): number[] {
	return g.filter((x) => x[0] === code).map((x) => Number(x[1]));
}

function pairs(g: readonly Group[], cx: number, cy: number): Point[] {
	const points: Point[] = [];
	for (const [code, value] of g) {
		if (code === cx) points.push([Number(value), 0]);
		else if (code === cy && points.length) points.at(-1)![1] = Number(value);
	}
	return points;
}

/** Boundary loops of a hatch: polylines with bulges, or edges (line, arc, ellipse, spline). */
function hatchLoops(g: readonly Group[]): Point[][] {
	const loops: Point[][] = [];
	let i = g.findIndex(([code]) => code === 91);
	if (i < 0) return loops;
	const count = Math.min(Number(g[i]![1]), 5_000);
	i++;
	const rad = Math.PI / 180;
	for (let loop = 0; loop < count && i < g.length; loop++) {
		while (i < g.length && g[i]![0] !== 92) i++;
		const isPolyline = (Number(g[i]?.[1]) & 2) === 2;
		let end = i + 1;
		while (end < g.length && g[end]![0] !== 92 && g[end]![0] !== 75 && g[end]![0] !== 97) end++;
		const part = g.slice(i + 1, end);
		i = end;
		if (isPolyline) {
			const [vertices, bulges] = lightVertices(part);
			loops.push(polyline(vertices, bulges, true));
			continue;
		}
		const points: Point[] = [];
		const starts = part.flatMap(([code], at) => (code === 72 ? [at] : []));
		starts.forEach((at, k) => {
			const edge = part.slice(at, starts[k + 1] ?? part.length);
			const n = (code: number, otherwise = 0) => numberOf(edge, code, otherwise);
			const turn = n(73, 1) === 0 ? -1 : 1;
			if (n(72) === 1) points.push([n(10), n(20)], [n(11), n(21)]);
			else if (n(72) === 2)
				points.push(...arc(n(10), n(20), n(40), turn * n(50) * rad, turn * (n(51) - n(50)) * rad));
			else if (n(72) === 3)
				points.push(...ellipse(n(10), n(20), n(11), n(21), turn * n(40, 1), n(50) * rad, n(51, 360) * rad));
			else if (n(72) === 4)
				points.push(...spline(n(94, 3), pairs(edge, 10, 20), all(edge, 40), all(edge, 42)));
		});
		loops.push(points);
	}
	return loops;
}

/** Text of TEXT and attributes: %% codes and \U+XXXX resolved. */
export function plainText(raw: string): string {
	return raw
		.replace(/\\U\+([0-9A-Fa-f]{4})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
		.replace(/%%[dD]/g, '°')
		.replace(/%%[pP]/g, '±')
		.replace(/%%[cC]/g, '⌀')
		.replace(/%%[uUoOkK]/g, '')
		.replace(/%%%/g, '%');
}

/** Lines of MTEXT with its inline codes taken out. */
export function multilineText(raw: string): string[] {
	return plainText(raw)
		.replace(/\\S([^;^#/]*)[\^#/]([^;]*);/g, '$1/$2')
		.replace(/\\[ACcFfHhQTWpx][^;\\{}]*;/g, '')
		.replace(/\\[LlOoKk]/g, '')
		.replace(/\\~/g, ' ')
		.split(/\\[PNX]|\^J/)
		.map((line) =>
			line
				.replace(/(?<!\\)[{}]/g, '')
				.replace(/\\([\\{}])/g, '$1')
				.trim()
		);
}
