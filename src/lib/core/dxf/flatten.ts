import { boxOf } from './box';
import { arc, ellipse, hatchLines, spline, type Point } from './curves';
import { drawnDimension } from './dimension';
import { gradientOf } from './gradient';
import { inModel } from './layouts';
import { MIRRORED, placed, scaleOf, times, UNIT, type Matrix } from './matrix';
import { meshEdges } from './mesh';
import { readMultiLeader } from './multileader';
import { pointLook, pointMark, type PointLook } from './point-mark';
import { all, hatchLoops, hatchPattern, pairs } from './points';
import { numberOf, valueOf, type Drawing, type Entity, type Group } from './read';
import type { Fill, Sheet, Stroke, Text } from './sheet';
import { PLAIN_STYLE, styleOf, type Style } from './style';
import { multilineRaw, multilineText, placedText } from './texts';
import { heavyPolyline, lightPolyline, type WideLine } from './wide';
import { wrapped } from './letters';

const MOST_ITEMS = 400_000;
const MOST_DEPTH = 16;
const MOST_COPIES = 20_000;
/** Most lines of one text. */
const MOST_LINES = 500;

/** Most lines of a hatch; of a closer one nothing could be told apart. */
const MOST_HATCH_LINES = 4_000;

/** An entity with the number that its strokes, fills and texts carry as `of`. */
export interface Numbered {
	entity: Entity;
	of: number;
}

/** Units of $INSUNITS (DXF reference, header variables) as they are written. */
const UNITS: Record<number, string> = {
	1: 'in',
	2: 'ft',
	4: 'mm',
	5: 'cm',
	6: 'm',
	7: 'km',
	10: 'yd',
	14: 'dm'
};

/** Brings the model of a drawing down to strokes, fills and texts. Never throws: what is not shown is counted. */
export function flatten(drawing: Drawing): Sheet {
	return flattenSome(drawing, numbered(drawing.entities));
}

/** Entities with their places in a list as their numbers. */
const numbered = (entities: readonly Entity[]): Numbered[] =>
	entities.map((entity, of) => ({ entity, of })).filter(({ entity }) => inModel(entity));

/**
 * Brings some entities of a drawing down, as they are now, wherever they stand.
 * @param layers of an earlier sheet of the drawing; they keep their places
 */
export function flattenSome(
	drawing: Drawing,
	entities: readonly Numbered[],
	layers: Sheet['layers'] = []
): Sheet {
	return new Flattener(drawing, layers).run(entities);
}

/** Texts and attributes of some entities of a drawing, and nothing of its lines, which are most of a large one. */
export function wordsOf(drawing: Drawing, entities: readonly Entity[]): Pick<Sheet, 'texts' | 'attributes'> {
	const { texts, attributes } = new Flattener(drawing, [], true).run(
		entities.map((entity, of) => ({ entity, of }))
	);
	return { texts, attributes };
}

const RADIANS = Math.PI / 180;

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
	/** The entity of the file that is brought down now. */
	private of = 0;
	private readonly scale: number;
	private readonly points: PointLook;

	constructor(
		private readonly drawing: Drawing,
		layers: Sheet['layers'],
		private readonly wordsOnly = false
	) {
		for (const { name, visible } of layers) {
			this.layerIndex.set(name.toUpperCase(), this.layers.length);
			this.layers.push({ name, visible, items: 0 });
		}
		this.scale = numberOf(drawing.header.get('$LTSCALE') ?? [], 40, 1) || 1;
		this.points = pointLook(drawing);
	}

	run(entities: readonly Numbered[]): Sheet {
		for (const { entity, of } of entities) {
			this.of = of;
			this.entity(entity, UNIT, PLAIN_STYLE, 0);
		}
		const shown = {
			strokes: this.strokes,
			fills: this.fills,
			texts: this.texts,
			layers: this.layers,
			attributes: this.attributes,
			unknown: this.unknown,
			unit: UNITS[numberOf(this.drawing.header.get('$INSUNITS') ?? [], 70)] ?? '',
			cut: this.cut
		};
		return { ...shown, box: boxOf(shown) };
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

	private full(): boolean {
		if (this.strokes.length + this.fills.length + this.texts.length < MOST_ITEMS) return false;
		this.cut = true;
		return true;
	}

	/** Counts one that is not shown. */
	private leftOut(type: string): void {
		this.unknown[type] = (this.unknown[type] ?? 0) + 1;
	}

	private on(style: Style): number {
		const layer = this.layerOf(style.layer);
		this.layers[layer]!.items++;
		return layer;
	}

	private readonly dashes = new Map<string, number[]>();

	/** Dash lengths of a line type; one list for all lines that have it. */
	private dashOf(lineType: string, dashScale: number): number[] {
		const key = `${lineType.toUpperCase()} ${dashScale}`;
		let dash = this.dashes.get(key);
		if (!dash) {
			const plain = this.drawing.lineTypes.get(lineType.toUpperCase()) ?? [];
			this.dashes.set(key, (dash = plain.map((d) => Math.abs(d) * this.scale * dashScale)));
		}
		return dash;
	}

	private stroke(points: Point[], m: Matrix, style: Style, dashScale = 1, wide = 0): void {
		if (this.wordsOnly || points.length < 2 || this.full()) return;
		const flat = placed(points, m);
		if (flat.some((v) => !Number.isFinite(v))) return;
		const dash = this.dashOf(style.lineType, dashScale);
		const weight = style.weight >= 0 ? Math.min(style.weight, 211) / 100 : 0.25;
		this.strokes.push({
			of: this.of,
			points: flat,
			layer: this.on(style),
			colour: style.colour,
			weight,
			wide: wide * scaleOf(m),
			dash
		});
	}

	private fill(loops: Point[][], m: Matrix, style: Style, gradient: Fill['gradient'] = null): void {
		if (this.wordsOnly || this.full()) return;
		const flat = loops.map((l) => placed(l, m));
		if (flat.some((l) => l.some((v) => !Number.isFinite(v)))) return;
		this.fills.push({ of: this.of, loops: flat, layer: this.on(style), colour: style.colour, gradient });
	}

	/** @param text where it stands and how, in the units of what it is part of */
	private text(
		text: Pick<Text, 'x' | 'y' | 'height' | 'turn' | 'text' | 'alignX' | 'alignY'> &
			Partial<Pick<Text, 'wide' | 'slant'>>,
		m: Matrix,
		style: Style
	): void {
		if (text.text.trim() === '' || !(text.height > 0) || this.full()) return;
		const { x, y } = text;
		this.texts.push({
			wide: 1,
			slant: 0,
			...text,
			of: this.of,
			x: m[0] * x + m[2] * y + m[4],
			y: m[1] * x + m[3] * y + m[5],
			height: text.height * Math.hypot(m[2], m[3]),
			turn: text.turn + Math.atan2(m[1], m[0]),
			layer: this.on(style),
			colour: style.colour
		});
	}

	private entity(entity: Entity, outer: Matrix, from: Style, depth: number): void {
		const g = entity.groups;
		if (numberOf(g, 60) === 1) return;
		const style = styleOf(this.drawing, g, from);
		const m = numberOf(g, 230, 1) < 0 ? times(outer, MIRRORED) : outer;
		const before = this.strokes.length + this.fills.length;
		const shown = this.drawn(entity, outer, m, style) ?? this.composed(entity, outer, m, style, depth);
		if (shown === 'unknown') return this.leftOut(entity.type);
		if (shown === 'drawn' && this.strokes.length + this.fills.length === before && !this.cut)
			this.leftOut(entity.type);
	}

	/** Lines and areas; null for what is no such thing. */
	private drawn(
		{ type, groups: g, children }: Entity,
		outer: Matrix,
		m: Matrix,
		style: Style
	): 'drawn' | null {
		const n = (code: number, otherwise = 0) => numberOf(g, code, otherwise);
		const at = (code: number): Point => [n(code), n(code + 10)];
		const line = (points: Point[], axes: Matrix) => this.stroke(points, axes, style, n(48, 1));
		switch (type) {
			case 'LINE':
				line([at(10), at(11)], outer);
				break;
			case 'LWPOLYLINE':
				this.wideLine(lightPolyline(g), m, style, n(48, 1));
				break;
			case 'POLYLINE': {
				const mesh = meshEdges({ type, groups: g, children });
				if (mesh) for (const edge of mesh) line(edge, outer);
				else this.wideLine(heavyPolyline({ type, groups: g, children }), m, style, n(48, 1));
				break;
			}
			case 'CIRCLE':
				line(arc(n(10), n(20), n(40), 0, 2 * Math.PI), m);
				break;
			case 'ARC': {
				let sweep = (n(51) - n(50)) * RADIANS;
				if (sweep <= 0) sweep += 2 * Math.PI;
				line(arc(n(10), n(20), n(40), n(50) * RADIANS, sweep), m);
				break;
			}
			case 'ELLIPSE':
				line(ellipse(n(10), n(20), n(11), n(21), n(40, 1), n(41), n(42, 2 * Math.PI)), outer);
				break;
			case 'SPLINE': {
				const control = pairs(g, 10, 20);
				line(control.length ? spline(n(71, 3), control, all(g, 40), all(g, 41)) : pairs(g, 11, 21), outer);
				break;
			}
			case 'LEADER':
				line(pairs(g, 10, 20), outer);
				break;
			case 'SOLID':
			case 'TRACE':
				this.fill([[at(10), at(11), [n(13, n(12)), n(23, n(22))], at(12)]], m, style);
				break;
			case '3DFACE':
				line([at(10), at(11), at(12), at(13), at(10)], outer);
				break;
			default:
				return null;
		}
		return 'drawn';
	}

	/** Words, marks, and what is put together out of others. */
	private composed(
		entity: Entity,
		outer: Matrix,
		m: Matrix,
		style: Style,
		depth: number
	): 'drawn' | 'done' | 'unknown' {
		const g = entity.groups;
		switch (entity.type) {
			case 'TEXT':
			case 'ATTRIB':
				this.text(placedText(g, valueOf(g, 1) ?? ''), m, style);
				return 'done';
			case 'ATTDEF':
				this.definition(g, m, style, depth);
				return 'done';
			case 'MTEXT':
				this.manyText(g, m, style);
				return 'done';
			case 'HATCH':
				return this.hatch(g, m, style);
			case 'POINT':
				for (const line of pointMark([numberOf(g, 10), numberOf(g, 20)], this.points))
					this.stroke(line, outer, { ...style, lineType: 'CONTINUOUS' });
				return 'done';
			case 'INSERT':
				return this.insert(entity, m, style, depth);
			case 'DIMENSION':
			case 'ARC_DIMENSION':
			case 'LARGE_RADIAL_DIMENSION':
				return this.blockAt(valueOf(g, 2) ?? '', outer, style, depth)
					? 'done'
					: this.dimension(g, outer, style);
			case 'ACAD_TABLE':
				return this.blockAt(
					valueOf(g, 2) ?? '',
					times(outer, [1, 0, 0, 1, numberOf(g, 10), numberOf(g, 20)]),
					style,
					depth
				)
					? 'done'
					: 'unknown';
			case 'MULTILEADER':
			case 'MLEADER':
				this.multiLeader(g, outer, style);
				return 'done';
			case 'VIEWPORT':
			case 'SEQEND':
				return 'done';
			default:
				return 'unknown';
		}
	}

	private wideLine({ points, wide, tapers }: WideLine, m: Matrix, style: Style, dashScale: number): void {
		for (const area of tapers) this.fill([area], m, style);
		this.stroke(points, m, tapers.length ? { ...style, weight: 0 } : style, dashScale, wide);
	}

	private dimension(g: readonly Group[], m: Matrix, style: Style): 'drawn' | 'unknown' {
		const drawn = drawnDimension(this.drawing, g);
		if (!drawn) return 'unknown';
		for (const line of drawn.lines) this.stroke(line, m, style);
		for (const head of drawn.heads) this.fill([head], m, style);
		const { text, height, turn } = drawn;
		this.text({ x: drawn.at[0], y: drawn.at[1], height, turn, text, alignX: 0.5, alignY: 0.5 }, m, style);
		return 'drawn';
	}

	private multiLeader(g: readonly Group[], m: Matrix, style: Style): void {
		const { lines, text, at, height, turn } = readMultiLeader(g);
		for (const line of lines) this.stroke(line, m, style);
		multilineText(text).forEach((line, i) =>
			this.text(
				{ x: at[0], y: at[1] - i * height * 1.6, height, turn, text: line, alignX: 0, alignY: 1 },
				m,
				style
			)
		);
	}

	/** What a block asks to be filled in: by itself its tag is shown, within a block only what stands fast. */
	private definition(g: Group[], m: Matrix, style: Style, depth: number): void {
		const flags = numberOf(g, 70);
		if (flags & 1) return;
		if (depth === 0) this.text(placedText(g, valueOf(g, 2) ?? ''), m, style);
		else if (flags & 2) this.text(placedText(g, valueOf(g, 1) ?? ''), m, style);
	}

	private manyText(g: Group[], m: Matrix, style: Style): void {
		const height = numberOf(g, 40, 1);
		const { wide = 1 } = this.drawing.textStyles.get((valueOf(g, 7) ?? 'STANDARD').toUpperCase()) ?? {};
		const letters = wide > 0.05 && wide < 20 ? wide : 1;
		const lines = wrapped(multilineText(multilineRaw(g)), numberOf(g, 41) / letters, height, MOST_LINES);
		const attach = numberOf(g, 71, 1) - 1;
		const turn =
			valueOf(g, 11) !== null ? Math.atan2(numberOf(g, 21), numberOf(g, 11)) : numberOf(g, 50) * RADIANS;
		const lead = height * 1.6 * numberOf(g, 44, 1);
		const total = (lines.length - 1) * lead;
		const first = [0, total / 2, total][Math.floor(attach / 3)] ?? 0;
		lines.forEach((text, i) => {
			const down = i * lead - first;
			this.text(
				{
					x: numberOf(g, 10) + Math.sin(turn) * down,
					y: numberOf(g, 20) - Math.cos(turn) * down,
					height,
					turn,
					text,
					wide: letters,
					alignX: [0, 0.5, 1][attach % 3] ?? 0,
					alignY: [1, 0.5, 0][Math.floor(attach / 3)] ?? 1
				},
				m,
				style
			);
		});
	}

	private insert(entity: Entity, m: Matrix, style: Style, depth: number): 'done' | 'unknown' {
		const g = entity.groups;
		const name = valueOf(g, 2) ?? '';
		const sx = numberOf(g, 41, 1);
		const sy = numberOf(g, 42, 1);
		const turn = numberOf(g, 50) * RADIANS;
		const cos = Math.cos(turn);
		const sin = Math.sin(turn);
		const columns = Math.max(1, numberOf(g, 70, 1));
		const rows = Math.max(1, numberOf(g, 71, 1));
		const block = this.drawing.blocks.get(name.toUpperCase());
		const base = block?.base ?? [0, 0];
		for (const child of entity.children) {
			this.attributes.push({
				block: name,
				tag: (valueOf(child.groups, 2) ?? '').trim().toUpperCase(),
				value: placedText(child.groups, valueOf(child.groups, 1) ?? '').text
			});
			if ((numberOf(child.groups, 70) & 1) === 0) this.entity(child, m, style, depth + 1);
		}
		// A drawing that is only referred to stands in the file as a block without content.
		if (!block || block.elsewhere) return 'unknown';
		for (let r = 0; r < rows; r++) {
			for (let c = 0; c < columns; c++) {
				if (++this.copies > MOST_COPIES) {
					this.cut = true;
					return 'done';
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
		return 'done';
	}

	/** Draws what a block holds; false when the drawing has no such block. */
	private blockAt(name: string, m: Matrix, style: Style, depth: number): boolean {
		const block = this.drawing.blocks.get(name.toUpperCase());
		if (!block) return false;
		if (depth >= MOST_DEPTH) this.cut = true;
		else for (const entity of block.entities) this.entity(entity, m, style, depth + 1);
		return true;
	}

	private hatch(g: Group[], m: Matrix, style: Style): 'done' | 'unknown' {
		const loops = hatchLoops(g).filter((loop) => loop.length > 2);
		if (!loops.length) return 'unknown';
		const gradient = gradientOf(g, loops);
		if (gradient) this.fill(loops, m, style, { ...gradient, ends: placed(gradient.ends, m) });
		else if (numberOf(g, 70) === 1) this.fill(loops, m, style);
		else {
			const lines = hatchPattern(g).map(({ angle, gap }) => hatchLines(loops, angle, gap, MOST_HATCH_LINES));
			if (lines.every((of) => of === null)) return 'unknown';
			for (const of of lines)
				for (const [a, b] of of ?? [])
					this.stroke([a, b], m, { ...style, lineType: 'CONTINUOUS', weight: 9 });
		}
		return 'done';
	}
}
