import { boxOf } from '../dxf/box';
import { flattenSome } from '../dxf/flatten';
import { inModel, layoutsOf } from '../dxf/layouts';
import { numberOf, valueOf, type Drawing, type Entity, type Group } from '../dxf/read';
import { multilineText, plainText } from '../dxf/texts';
import { Fingerprint } from './fingerprint';

/** Left, bottom, right, top in drawing units. */
export type Box = [number, number, number, number];

/** One entity, taken apart into what makes it the same as another. */
export interface Item {
	/** Its place among the entities of its page. */
	at: number;
	type: string;
	layer: string;
	/** Points of its definition. */
	points: [number, number][];
	/** Lengths and angles of its form. */
	numbers: number[];
	/** Type and form, wherever it stands: points from the first one on, radii, angles, scales. */
	form: string;
	/** Form and place. */
	geometry: string;
	/** Properties by name, for saying what was edited. */
	properties: Map<string, string>;
	/** Everything. */
	whole: string;
}

/** Coordinates are compared to this many decimals; files are written with more or fewer. */
export const DECIMALS = 4;
const round = (value: number) => {
	const rounded = Math.round(value * 10 ** DECIMALS) / 10 ** DECIMALS;
	return Object.is(rounded, -0) ? 0 : rounded;
};

/** Group codes that hold lengths and angles of the form, by type where they mean something else otherwise. */
const FORM_CODES = new Set([40, 41, 42, 43, 44, 45, 50, 51, 52, 70, 71, 72, 73, 74, 90, 91, 92, 93]);
const PROPERTY: Record<number, string> = { 62: 'colour', 6: 'line type', 370: 'line weight', 420: 'colour' };
const TEXTS = new Set(['TEXT', 'MTEXT', 'ATTRIB', 'ATTDEF']);

function pointsOf(groups: readonly Group[]): [number, number][] {
	const points: [number, number][] = [];
	let open: [number, number] | null = null;
	let openCode = 0;
	for (const [code, value] of groups) {
		if (code >= 10 && code <= 18) {
			open = [Number(value), 0];
			openCode = code;
			points.push(open);
		} else if (code >= 20 && code <= 28 && open && code === openCode + 10) open[1] = Number(value);
	}
	return points.map(([x, y]) => [Number.isFinite(x) ? x : 0, Number.isFinite(y) ? y : 0]);
}

function textOf(entity: Entity): string {
	const parts = entity.groups.filter(([code]) => code === 1 || code === 3).map(([, value]) => value);
	return entity.type === 'MTEXT' ? multilineText(parts.join('')).join(' ') : plainText(parts.join(''));
}

/** Points of a definition. Where a text is aligned, its first point moves with its words and only the second counts. */
function anchored(type: string, groups: readonly Group[]): [number, number][] {
	const points = pointsOf(groups);
	const aligned = type === 'TEXT' && (numberOf(groups, 72) !== 0 || numberOf(groups, 73) !== 0);
	return aligned && points.length > 1 ? points.slice(1, 2) : points;
}

/** Points in the order that does not depend on which end a line was drawn from. */
function settled(type: string, points: [number, number][]): [number, number][] {
	if (type !== 'LINE' || points.length < 2) return points;
	const [a, b] = points as [[number, number], [number, number]];
	return a[0] < b[0] || (a[0] === b[0] && a[1] <= b[1]) ? [a, b] : [b, a];
}

/** The points that an entity is defined by. */
function definedBy({ type, groups, children }: Entity): [number, number][] {
	const own = type === 'POLYLINE' ? children.flatMap((v) => pointsOf(v.groups).slice(0, 1)) : null;
	return settled(type, own ?? anchored(type, groups));
}

const blockOf = (groups: readonly Group[]) => (valueOf(groups, 2) ?? '').toUpperCase();

/** Takes entities of a drawing apart. */
class Reader {
	private readonly contents = new Map<string, string>();
	constructor(private readonly drawing: Drawing) {}

	/** The content of the block that is put in, as one text, so that an edited block is found at every insertion. */
	content(key: string, depth = 0): string {
		const known = this.contents.get(key);
		if (known !== undefined) return known;
		this.contents.set(key, '');
		const block = this.drawing.blocks.get(key);
		const text = block && depth < 8 ? block.entities.map((e) => this.item(e, depth + 1).whole).sort() : [];
		const joined = text.join('\n');
		this.contents.set(key, joined);
		return joined;
	}

	item(entity: Entity, depth = 0): Omit<Item, 'at'> {
		const { type, groups } = entity;
		const layer = valueOf(groups, 8) ?? '0';
		const points = definedBy(entity);
		const properties = new Map<string, string>([['layer', layer]]);
		const form: string[] = [type];
		const numbers: number[] = [];
		for (const [code, value] of groups) {
			if (PROPERTY[code]) properties.set(PROPERTY[code], value.trim());
			else if (FORM_CODES.has(code) && type !== 'DIMENSION') {
				form.push(`${code}:${round(Number(value))}`);
				numbers.push(Number(value));
			}
		}
		if (TEXTS.has(type)) {
			properties.set('text', textOf(entity));
			properties.set('text style', valueOf(groups, 7) ?? '');
		}
		if (type === 'INSERT') {
			const name = valueOf(groups, 2) ?? '';
			form.push(name.toUpperCase());
			for (const child of entity.children)
				if (child.type === 'ATTRIB')
					properties.set(`attribute ${valueOf(child.groups, 2) ?? ''}`, textOf(child));
			properties.set('content of the block', this.content(blockOf(groups), depth));
		}
		if (type === 'DIMENSION') {
			form.push(valueOf(groups, 70) ?? '');
			properties.set('dimension text', valueOf(groups, 1) ?? '');
			properties.set('dimension value', String(round(numberOf(groups, 42, 0))));
			// The block of a dimension is drawn anew with every save; its name says nothing, its texts do.
			const drawn = this.drawing.blocks.get((valueOf(groups, 2) ?? '').toUpperCase());
			const shown = drawn?.entities
				.filter((e) => TEXTS.has(e.type))
				.map(textOf)
				.join(' ');
			if (shown) properties.set('dimension value', shown);
		}
		if (type === 'HATCH') form.push(valueOf(groups, 2) ?? '');
		const [first] = points;
		const relative = points.map(([x, y]) => `${round(x - first![0])},${round(y - first![1])}`).join(' ');
		const formText = `${form.join('|')} ${relative}`;
		const geometry = `${form.join('|')} ${points.map(([x, y]) => `${round(x)},${round(y)}`).join(' ')}`;
		return {
			type,
			layer,
			points,
			numbers,
			form: formText,
			geometry,
			properties,
			whole: `${geometry} ${[...properties].map(([k, v]) => `${k}=${v}`).join('|')}`
		};
	}
}

/** Group codes that programs number anew with every save: handles, owners and what they keep about them. */
const NUMBERED = new Set([5, 100, 102, 105, 330, 360]);

/** Stands before an entity, where groups have their code, which is never so large. */
const ENTITY = 0x10000;
/** Stands between the code of a group and its value, and the next one. */
const GROUP = 0x20000;

/** Takes an entity as it reads, apart from what is numbered anew. */
function read(print: Fingerprint, { type, groups, children }: Entity): void {
	print.number(ENTITY);
	print.text(type);
	for (const [code, value] of groups)
		if (!NUMBERED.has(code)) {
			print.number(GROUP + code);
			print.text(value);
		}
	for (const child of children) read(print, child);
}

/** The entities of a page as they read, in the order of the file. */
export interface PageReadings {
	/** Null for the model. */
	name: string | null;
	/**
	 * A number for what each reads as, and what the block holds that it shows; NaN for what may look different though it
	 * reads the same, and has to be taken apart.
	 */
	prints: Float64Array;
}

/** Most entities whose true extents are worked out; of more the points of their definition must do. */
const MOST_BOXES = 4_000;

/**
 * One of two drawings that are compared. What is asked of it and what it answers is plain data, so that each can stand
 * in a worker of its own, and neither is read twice.
 */
export class DrawingSide {
	private readonly reader: Reader;
	private readonly pages: { name: string | null; entities: readonly Entity[] }[];
	private boxesMade = 0;

	constructor(private readonly drawing: Drawing) {
		this.reader = new Reader(drawing);
		this.pages = [{ name: null, entities: drawing.entities.filter(inModel) }, ...layoutsOf(drawing)].map(
			({ name, entities }) => ({ name, entities: entities.filter((e) => e.type !== 'VIEWPORT') })
		);
	}

	/** The model first, then its sheets. @param seed of their numbers; of two drawings that are compared, the same */
	readings(seed: number): PageReadings[] {
		const print = new Fingerprint(seed);
		const contents = new Map<string, number>();
		const contentOf = (block: string): number => {
			let known = contents.get(block);
			if (known === undefined) {
				const content = new Fingerprint(seed);
				content.begin();
				content.text(this.reader.content(block));
				contents.set(block, (known = content.value));
			}
			return known;
		};
		return this.pages.map(({ name, entities }): PageReadings => {
			const prints = Float64Array.from(entities, (entity) => {
				if (entity.type === 'DIMENSION') return NaN;
				print.begin();
				if (entity.type === 'INSERT') print.text(String(contentOf(blockOf(entity.groups))));
				read(print, entity);
				return print.value;
			});
			return { name, prints };
		});
	}

	/** Some entities of a page, taken apart. @param page from 0 on, as in the readings */
	items(page: number, which: readonly number[]): Item[] {
		return which.map((at) => ({ at, ...this.reader.item(this.pages[page]!.entities[at]!) }));
	}

	/** Where some entities of a page are. */
	boxes(page: number, which: readonly number[]): Box[] {
		return which.map((at) => this.box(this.pages[page]!.entities[at]!));
	}

	private box(entity: Entity): Box {
		if (this.boxesMade++ < MOST_BOXES) {
			const sheet = flattenSome(this.drawing, [{ entity, of: 0 }]);
			const all = { ...sheet, layers: sheet.layers.map((l) => ({ ...l, visible: true })) };
			if (sheet.strokes.length || sheet.fills.length || sheet.texts.length) return boxOf(all);
		}
		const points = definedBy(entity);
		const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
		if (!xs.length) return [0, 0, 0, 0];
		return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
	}
}
