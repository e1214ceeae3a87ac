import { groupedBy } from '../lists/group';
import { DECIMALS, type Box, type DrawingSide, type Item, type PageReadings } from './drawing-side';
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
	box: Box;
	/** Where it was, when it was moved or edited. */
	boxBefore: Box | null;
}

/** Differences of coordinates up to this part of the drawing's size come from writing and reading, not from people. */
const JITTER = 1e-6;

/** Takes pairs out of two lists whose keys agree; of several the nearest. Gives the pairs, and leaves the rest. */
function pairUp(
	before: Item[],
	after: Item[],
	key: (item: Item) => string,
	fits: (a: Item, b: Item) => boolean = () => true
): { pairs: [Item, Item][]; before: Item[]; after: Item[] } {
	const byKey = groupedBy(after, key);
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

/** Of a page that a drawing has not. */
const NONE = new Float64Array();

/** A drawing that may stand elsewhere: what is asked of it is answered in time. */
export type Asked = {
	[K in 'readings' | 'items' | 'boxes']: (
		...of: Parameters<DrawingSide[K]>
	) => ReturnType<DrawingSide[K]> | Promise<ReturnType<DrawingSide[K]>>;
};

/**
 * Compares two drawings page by page: their models, then the sheets of one name. Entity by entity, as
 * {@link compareItems} says.
 */
export async function compareDrawings(before: Asked, after: Asked): Promise<DrawingChange[]> {
	const [seed] = crypto.getRandomValues(new Uint32Array(1)) as unknown as [number];
	const [a, b] = await Promise.all([before.readings(seed), after.readings(seed)]);
	const key = ({ name }: PageReadings) => name?.toUpperCase() ?? null;
	const at = (of: PageReadings[], name: string | null) => of.findIndex((page) => key(page) === name);
	const names = new Set([...b, ...a].map(key));
	const changes: DrawingChange[][] = [];
	let page = 0;
	for (const name of names) {
		page++;
		const [was, is] = [at(a, name), at(b, name)];
		const rest = withoutSame(a[was]?.prints ?? NONE, b[is]?.prints ?? NONE);
		const [itemsBefore, itemsAfter] = await Promise.all([
			rest.before.length ? before.items(was, rest.before) : [],
			rest.after.length ? after.items(is, rest.after) : []
		]);
		const found = compareItems(itemsBefore, itemsAfter);
		const [wereAt, areAt] = [
			found.flatMap(({ a }) => (a ? [a.at] : [])),
			found.flatMap(({ b }) => (b ? [b.at] : []))
		];
		const [boxesBefore, boxesAfter] = await Promise.all([
			wereAt.length ? before.boxes(was, wereAt) : [],
			areAt.length ? after.boxes(is, areAt) : []
		]);
		const placesBefore = new Map(wereAt.map((one, i) => [one, boxesBefore[i]!]));
		const placesAfter = new Map(areAt.map((one, i) => [one, boxesAfter[i]!]));
		const told = found.map(({ kind, a, b, what }): DrawingChange => {
			const { type, layer } = b ?? a!;
			const [from, to] = [a && placesBefore.get(a.at)!, b && placesAfter.get(b.at)!];
			return { kind, type, layer, page, what, box: to ?? from!, boxBefore: to ? from : null };
		});
		changes.push(
			told.sort(
				(a, b) => a.layer.localeCompare(b.layer) || a.kind.localeCompare(b.kind) || b.box[3] - a.box[3]
			)
		);
	}
	return changes.flat();
}

/** What became of an entity: both when it was moved or edited. */
interface Found {
	kind: DrawingChangeKind;
	a: Item | null;
	b: Item | null;
	what: DrawingChange['what'];
}

/**
 * Compares what of one page does not read the same. Handles are never looked at: programs number them anew with every save.
 * The order of looking matters, each step taking out what it explains: the same; the same place and form with other
 * properties (edited); the same but for noise in the last decimals; the same form elsewhere (moved); one end or
 * centre in its place (stretched); the rest was removed or added.
 */
function compareItems(before: Item[], after: Item[]): Found[] {
	let rest = pairUp(before, after, (i) => i.whole);
	const found: Found[] = [];
	const tell = (kind: DrawingChangeKind, a: Item | null, b: Item | null, what: DrawingChange['what']) =>
		found.push({ kind, a, b, what });
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
	return found;
}

/** The largest coordinate, at least 1. */
function sizeOf(items: Item[]): number {
	let size = 1;
	for (const { points } of items)
		for (const [x, y] of points) size = Math.max(size, Math.abs(x), Math.abs(y));
	return size;
}
