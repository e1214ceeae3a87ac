import { boxOf } from './box';
import { indexColour } from './colours';
import { arc, ellipse, hatchLines, polyline, spline, type Point } from './curves';
import { readMultiLeader } from './multileader';
import { all, hatchLoops, lightVertices, pairs } from './points';
import { numberOf, valueOf, type Drawing, type Entity, type Group } from './read';
import type { Fill, Sheet, Stroke, Text } from './sheet';
import { lettersOf, multilineText, plainText } from './texts';

const MOST_ITEMS = 400_000;
const MOST_DEPTH = 16;
const MOST_COPIES = 20_000;

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

/** The model is what was drawn; paper is the sheet it is laid out on. */
export type Space = 'model' | 'paper';

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

/** Brings a drawing down to strokes, fills and texts. Never throws on odd entities; they are counted as unknown. */
export function flatten(drawing: Drawing, space: Space = 'model'): Sheet {
	return new Flattener(drawing, space).run(drawing.entities.map((entity, of) => ({ entity, of })));
}

/**
 * Brings some entities of a drawing down, as they are now.
 * @param entities with the number that their strokes, fills and texts carry as `of`
 * @param layers of an earlier sheet of the drawing; they keep their places
 */
export function flattenSome(
	drawing: Drawing,
	entities: readonly { entity: Entity; of: number }[],
	layers: Sheet['layers']
): Sheet {
	return new Flattener(drawing, 'model', layers).run(entities);
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
	/** The entity of the file that is brought down now. */
	private of = 0;
	private readonly scale: number;

	constructor(
		private readonly drawing: Drawing,
		private readonly space: Space,
		layers: Sheet['layers'] = []
	) {
		for (const { name, visible } of layers) {
			this.layerIndex.set(name.toUpperCase(), this.layers.length);
			this.layers.push({ name, visible, items: 0 });
		}
		this.scale = numberOf(drawing.header.get('$LTSCALE') ?? [], 40, 1) || 1;
	}

	run(entities: readonly { entity: Entity; of: number }[]): Sheet {
		for (const { entity, of } of entities) {
			this.of = of;
			this.entity(entity, UNIT, { layer: '0', colour: -1, lineType: 'CONTINUOUS', weight: -3 }, 0);
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
		this.strokes.push({ of: this.of, points: flat, layer, colour: style.colour, weight, dash });
	}

	private fill(loops: Point[][], m: Matrix, style: Inherited): void {
		if (this.full()) return;
		const layer = this.layerOf(style.layer);
		this.layers[layer]!.items++;
		this.fills.push({
			of: this.of,
			loops: loops.map((l) => this.project(l, m)),
			layer,
			colour: style.colour
		});
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
		style: Inherited,
		letters: { wide: number; slant: number } = { wide: 1, slant: 0 }
	): void {
		if (text.trim() === '' || !(height > 0) || this.full()) return;
		const layer = this.layerOf(style.layer);
		this.layers[layer]!.items++;
		const size = Math.hypot(m[2], m[3]);
		this.texts.push({
			of: this.of,
			x: m[0] * x + m[2] * y + m[4],
			y: m[1] * x + m[3] * y + m[5],
			height: height * size,
			turn: turn + Math.atan2(m[1], m[0]),
			text,
			...letters,
			alignX,
			alignY,
			layer,
			colour: style.colour
		});
	}

	private entity(entity: Entity, outer: Matrix, from: Inherited, depth: number): void {
		const g = entity.groups;
		if (depth === 0 && (numberOf(g, 67) === 1) !== (this.space === 'paper')) return;
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
			case 'MULTILEADER':
			case 'MLEADER':
				return this.multiLeader(g, outer, style);
			case 'VIEWPORT':
			case 'SEQEND':
				return;
			default:
				this.unknown[entity.type] = (this.unknown[entity.type] ?? 0) + 1;
		}
	}

	private multiLeader(g: readonly Group[], m: Matrix, style: Inherited): void {
		const { lines, text, at, height, turn } = readMultiLeader(g);
		for (const line of lines) this.stroke(line, m, style, 1);
		multilineText(text).forEach((line, i) =>
			this.text(at[0], at[1] - i * height * 1.6, height, turn, line, 0, 1, m, style)
		);
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
			style,
			lettersOf(g)
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
}
