import { boxOf } from '../dxf/box';
import { flattenSome } from '../dxf/flatten';
import { inModel, layoutsOf } from '../dxf/layouts';
import { numberOf, valueOf, type Drawing, type Entity, type Group } from '../dxf/read';
import { multilineText, plainText } from '../dxf/texts';
import { withoutSame } from './same-entities';

type DrawingChangeKind = 'added' | 'removed' | 'moved' | 'edited';

/** One entity that differs between two drawings. */
export interface DrawingChange {
	kind: DrawingChangeKind;
	/** Its type as the file names it, such as LINE or INSERT. */
	type: string;
	layer: string;
	/** 1 for the model, then the sheets it is laid out on, as they stand in the newer drawing (removed ones after). */
	page: number;
	/** What was edited, in words, with the value before and after; for a move how far. */
	what: { property: string; before: string; after: string }[];
	/** Where it is (after, unless it was removed), in drawing units: left, bottom, right, top. */
	box: [number, number, number, number];
	/** Where it was, when it was moved or edited. */
	boxBefore: [number, number, number, number] | null;
}

/** One entity, taken apart into what makes it the same as another. */
interface Item {
	entity: Entity;
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
const DECIMALS = 4;
/** Differences of coordinates up to this part of the drawing's size come from writing and reading, not from people. */
const JITTER = 1e-6;

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

class Reader {
	private readonly contents = new Map<string, string>();
	constructor(private readonly drawing: Drawing) {}

	items(entities: readonly Entity[]): Item[] {
		return entities.filter((e) => e.type !== 'VIEWPORT').map((e) => this.item(e));
	}

	/** The content of the block that is put in, as one text, so that an edited block is found at every insertion. */
	content(groups: readonly Group[], depth = 0): string {
		const key = (valueOf(groups, 2) ?? '').toUpperCase();
		const known = this.contents.get(key);
		if (known !== undefined) return known;
		this.contents.set(key, '');
		const block = this.drawing.blocks.get(key);
		const text = block && depth < 8 ? block.entities.map((e) => this.item(e, depth + 1).whole).sort() : [];
		const joined = text.join('\n');
		this.contents.set(key, joined);
		return joined;
	}

	private item(entity: Entity, depth = 0): Item {
		const { type, groups } = entity;
		const layer = valueOf(groups, 8) ?? '0';
		const own = type === 'POLYLINE' ? entity.children.flatMap((v) => pointsOf(v.groups).slice(0, 1)) : null;
		const points = settled(type, own ?? anchored(type, groups));
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
			properties.set('content of the block', this.content(groups, depth));
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
			entity,
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

/** Takes pairs out of two lists whose keys agree; of several the nearest. Gives the pairs, and leaves the rest. */
function pairUp(
	before: Item[],
	after: Item[],
	key: (item: Item) => string,
	fits: (a: Item, b: Item) => boolean = () => true
): { pairs: [Item, Item][]; before: Item[]; after: Item[] } {
	const byKey = new Map<string, Item[]>();
	for (const item of after) {
		const k = key(item);
		const list = byKey.get(k);
		if (list) list.push(item);
		else byKey.set(k, [item]);
	}
	const taken = new Set<Item>();
	const pairs: [Item, Item][] = [];
	const restBefore: Item[] = [];
	for (const item of before) {
		const list = byKey.get(key(item));
		let best: Item | null = null;
		let nearest = Infinity;
		for (const other of list ?? []) {
			if (taken.has(other)) continue;
			const distance = apart(item, other);
			if (distance < nearest && fits(item, other)) [best, nearest] = [other, distance];
			if (distance === 0) break;
		}
		if (best) {
			taken.add(best);
			pairs.push([item, best]);
			// What is taken is not looked at again: lists of thousands of equal items stay quick.
			if (list![0] === best) list!.shift();
		} else restBefore.push(item);
	}
	return { pairs, before: restBefore, after: after.filter((i) => !taken.has(i)) };
}

function apart(a: Item, b: Item): number {
	const [p, q] = [a.points[0], b.points[0]];
	return p && q ? Math.hypot(p[0] - q[0], p[1] - q[1]) : 0;
}

function edits(a: Item, b: Item): DrawingChange['what'] {
	const what: DrawingChange['what'] = [];
	for (const name of new Set([...a.properties.keys(), ...b.properties.keys()])) {
		const before = a.properties.get(name) ?? '';
		const after = b.properties.get(name) ?? '';
		if (before === after) continue;
		if (name === 'content of the block') what.push({ property: name, before: 'as it was', after: 'changed' });
		else what.push({ property: name, before, after });
	}
	return what;
}

const format = (value: number) => String(Math.round(value * 1000) / 1000);
const shape = (item: Item) =>
	place(item.points) + (item.numbers.length ? ` (${item.numbers.map(format).join(', ')})` : '');
const place = (points: [number, number][]) => points.map(([x, y]) => `${format(x)}, ${format(y)}`).join('; ');

/** A drawing with what is needed again and again while it is compared. */
interface Side {
	reader: Reader;
	boxes: Boxes;
}

/**
 * Compares two drawings page by page: their models, then the sheets of one name. Entity by entity, as
 * {@link compareEntities} says.
 */
export function compareDrawings(before: Drawing, after: Drawing): DrawingChange[] {
	const [a, b] = [before, after].map((drawing): Side => ({
		reader: new Reader(drawing),
		boxes: new Boxes(drawing)
	})) as [Side, Side];
	const [layoutsBefore, layoutsAfter] = [layoutsOf(before), layoutsOf(after)];
	const key = (layout: { name: string }) => layout.name.toUpperCase();
	const gone = layoutsBefore.filter((l) => !layoutsAfter.some((other) => key(other) === key(l)));
	const changes = compareEntities(a, b, before.entities.filter(inModel), after.entities.filter(inModel), 1);
	[...layoutsAfter, ...gone].forEach((layout, i) => {
		const was = layoutsBefore.find((l) => key(l) === key(layout));
		const is = layoutsAfter.find((l) => key(l) === key(layout));
		changes.push(...compareEntities(a, b, was?.entities ?? [], is?.entities ?? [], i + 2));
	});
	return changes;
}

/** Whether an entity that reads the same in both looks the same: it may show another part of its drawing. */
function looksAsItReads(a: Side, b: Side, { type, groups }: Entity): boolean {
	if (type === 'INSERT') return a.reader.content(groups) === b.reader.content(groups);
	return type !== 'DIMENSION';
}

/**
 * Compares the entities of one page. Handles are never looked at: programs number them anew with every save.
 * The order of looking matters, each step taking out what it explains: the same; the same place and form with other
 * properties (edited); the same but for noise in the last decimals; the same form elsewhere (moved); one end or
 * centre in its place (stretched); the rest was removed or added.
 */
function compareEntities(
	a: Side,
	b: Side,
	before: readonly Entity[],
	after: readonly Entity[],
	page: number
): DrawingChange[] {
	const [restBefore, restAfter] = withoutSame(before, after, (entity) => looksAsItReads(a, b, entity));
	let rest = pairUp(a.reader.items(restBefore), b.reader.items(restAfter), (i) => i.whole);
	const changes: DrawingChange[] = [];
	const boxes = { before: a.boxes, after: b.boxes };
	const tell = (kind: DrawingChangeKind, a: Item | null, b: Item | null, what: DrawingChange['what']) => {
		const shown = b ?? a!;
		changes.push({
			kind,
			type: shown.type,
			layer: shown.layer,
			page,
			what,
			box: b ? boxes.after.of(b) : boxes.before.of(a!),
			boxBefore: a && b ? boxes.before.of(a) : null
		});
	};
	const next = (
		key: (i: Item) => string,
		fits: ((a: Item, b: Item) => boolean) | undefined,
		each: (a: Item, b: Item) => void
	) => {
		rest = pairUp(rest.before, rest.after, key, fits);
		for (const [a, b] of rest.pairs) each(a, b);
	};
	next(
		(i) => i.geometry,
		undefined,
		(a, b) => tell('edited', a, b, edits(a, b))
	);
	const noise = Math.max(sizeOf([...rest.before, ...rest.after]) * JITTER, 2 * 10 ** -DECIMALS);
	const close = (a: Item, b: Item) =>
		a.points.length === b.points.length &&
		a.numbers.length === b.numbers.length &&
		a.numbers.every((n, at) => Math.abs(n - b.numbers[at]!) <= noise) &&
		a.points.every((p, n) => Math.hypot(p[0] - b.points[n]![0], p[1] - b.points[n]![1]) <= noise);
	next(
		(i) => `${i.type}|${[...i.properties.values()].join('|')}`,
		close,
		() => {}
	);
	const move = (a: Item, b: Item): DrawingChange['what'] => [
		...(a.points[0] && b.points[0]
			? [{ property: 'place', before: place([a.points[0]]), after: place([b.points[0]]) }]
			: []),
		...edits(a, b)
	];
	next(
		(i) => `${i.form}|${[...i.properties.values()].join('|')}`,
		undefined,
		(a, b) => tell('moved', a, b, move(a, b))
	);
	const touches = (a: Item, b: Item) => {
		const ends = (i: Item) => [i.points[0], i.points.at(-1)].filter((p) => p !== undefined);
		return ends(a).some((p) => ends(b).some((q) => Math.hypot(p[0] - q[0], p[1] - q[1]) <= noise));
	};
	next(
		(i) => `${i.type}|${i.layer}`,
		touches,
		(a, b) => tell('edited', a, b, [{ property: 'form', before: shape(a), after: shape(b) }, ...edits(a, b)])
	);
	for (const item of rest.before) tell('removed', item, null, []);
	for (const item of rest.after) tell('added', null, item, []);
	return changes.sort(
		(a, b) => a.layer.localeCompare(b.layer) || a.kind.localeCompare(b.kind) || b.box[3] - a.box[3]
	);
}

/** The largest coordinate, at least 1. */
function sizeOf(items: Item[]): number {
	let size = 1;
	for (const { points } of items)
		for (const [x, y] of points) size = Math.max(size, Math.abs(x), Math.abs(y));
	return size;
}

/** Most entities whose true extents are worked out; of more the points of their definition must do. */
const MOST_BOXES = 4_000;

class Boxes {
	private made = 0;
	constructor(private readonly drawing: Drawing) {}

	of(item: Item): DrawingChange['box'] {
		if (this.made++ < MOST_BOXES) {
			const sheet = flattenSome(this.drawing, [{ entity: item.entity, of: 0 }]);
			const all = { ...sheet, layers: sheet.layers.map((l) => ({ ...l, visible: true })) };
			if (sheet.strokes.length || sheet.fills.length || sheet.texts.length) return boxOf(all);
		}
		const xs = item.points.map((p) => p[0]);
		const ys = item.points.map((p) => p[1]);
		if (!xs.length) return [0, 0, 0, 0];
		return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
	}
}
