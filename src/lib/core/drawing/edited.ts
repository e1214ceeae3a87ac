import { all } from '../dxf/points';
import { numberOf, valueOf, type Drawing, type Entity, type Group } from '../dxf/read';
import { multilineText, plainText } from '../dxf/texts';
import type { Change, Item, XY } from './item';

/** Codes of the coordinates that move with an entity (DXF reference, ENTITIES); others are directions or sizes. */
const MOVING: Record<string, readonly number[]> = {
	LINE: [10, 11],
	LWPOLYLINE: [10],
	POLYLINE: [],
	VERTEX: [10],
	CIRCLE: [10],
	ARC: [10],
	ELLIPSE: [10],
	TEXT: [10, 11],
	ATTRIB: [10, 11],
	MTEXT: [10],
	INSERT: [10],
	POINT: [10],
	SOLID: [10, 11, 12, 13],
	TRACE: [10, 11, 12, 13],
	'3DFACE': [10, 11, 12, 13],
	SPLINE: [10, 11],
	LEADER: [10]
};
/** Kinds whose coordinates are in the drawing's own axes even when the entity is turned over. */
const IN_WORLD = new Set([
	'LINE',
	'ELLIPSE',
	'MTEXT',
	'POINT',
	'3DFACE',
	'SPLINE',
	'LEADER',
	'VERTEX',
	'POLYLINE'
]);
const WITH_WORDS = new Set(['TEXT', 'MTEXT', 'DIMENSION']);

/** Whether an entity can be moved and copied here. Hatches and dimensions hang together with others and stay. */
export const movable = (type: string): boolean => type in MOVING && type !== 'VERTEX' && type !== 'ATTRIB';
/** Whether an entity has words of its own that can be changed. */
export const hasWords = (type: string): boolean => WITH_WORDS.has(type);

export const layerOf = (entity: Entity): string => valueOf(entity.groups, 8) ?? '0';

/** The words of an entity as people read and change them. */
export function wordsOf({ type, groups }: Entity): string {
	if (type === 'MTEXT')
		return multilineText(
			groups
				.filter(([code]) => code === 3 || code === 1)
				.map(([, value]) => value)
				.join('')
		).join('\n');
	const raw = valueOf(groups, 1) ?? '';
	return type === 'DIMENSION' ? (raw === '<>' ? '' : multilineText(raw).join(' ')) : plainText(raw);
}

/** The attributes of a block insertion, with their tags. */
export function attributesOf(entity: Entity): { tag: string; value: string }[] {
	return entity.children.map(({ groups }) => ({
		tag: valueOf(groups, 2) ?? '',
		value: plainText(valueOf(groups, 1) ?? '')
	}));
}

const oneLine = (text: string) => text.replace(/\s*[\r\n]+\s*/g, ' ');
/** Words of a text of several lines: signs that would be taken for formatting are marked, lines end with \P. */
const manyLines = (text: string) => text.replace(/[\\{}]/g, '\\$&').replace(/\r?\n/g, '\\P');

const figure = (n: number) => String(Number(n.toFixed(9)));

/** Groups with one code set; groups that stay are the very same, so that a writer can leave them as they stand. */
function withValue(groups: readonly Group[], code: number, value: string): Group[] {
	let done = false;
	const found = groups.map((group): Group => {
		if (done || group[0] !== code) return group;
		done = true;
		return group[1] === value ? group : [code, value];
	});
	if (!done) found.splice(placeFor(found, code), 0, [code, value]);
	return found;
}

/**
 * Where a new group of an entity belongs: the layer to what every entity has, words to what is first said of its kind
 * (DXF reference, subclass markers), and all before what other programs have hung on.
 */
function placeFor(groups: readonly Group[], code: number): number {
	const ends = (from: number) => {
		const at = groups.findIndex(([c], i) => i >= from && (c === 100 || c === 101 || c >= 1000));
		return at < 0 ? groups.length : at;
	};
	const common = groups.findIndex(([c, value]) => c === 100 && value === 'AcDbEntity');
	if (common < 0) return ends(0);
	const own = ends(common + 1);
	return code === 8 || groups[own]?.[0] !== 100 ? own : ends(own + 1);
}

function movedGroups(type: string, groups: readonly Group[], [dx, dy]: XY): Group[] {
	const codes = MOVING[type] ?? [];
	const across = numberOf(groups, 230, 1) < 0 && !IN_WORLD.has(type) ? -dx : dx;
	return groups.map((group): Group => {
		const [code, value] = group;
		const upright = codes.includes(code - 10);
		if (!codes.includes(code) && !upright) return group;
		const n = Number(value);
		return Number.isFinite(n) ? [code, figure(n + (upright ? dy : across))] : group;
	});
}

/** Words put into a dimension's picture: its block holds them as a text. */
export function withDimensionWords(entities: readonly Entity[], words: string): Entity[] {
	return entities.map((entity) =>
		entity.type === 'MTEXT' || entity.type === 'TEXT' ? withWords(entity, words) : entity
	);
}

function withWords(entity: Entity, words: string): Entity {
	if (entity.type === 'TEXT') return { ...entity, groups: withValue(entity.groups, 1, oneLine(words)) };
	if (entity.type === 'DIMENSION')
		return { ...entity, groups: withValue(entity.groups, 1, manyLines(oneLine(words))) };
	// Longer texts are cut into pieces of 250 letters; the last stands under code 1.
	const pieces = manyLines(words).match(/[\s\S]{1,250}/g) ?? [''];
	const at = entity.groups.findIndex(([code]) => code === 1 || code === 3);
	const rest = entity.groups.filter(([code]) => code !== 1 && code !== 3);
	rest.splice(
		at < 0 ? placeFor(rest, 1) : at,
		0,
		...pieces.map((piece, i): Group => [i === pieces.length - 1 ? 1 : 3, piece])
	);
	return { ...entity, groups: rest };
}

/** An entity with what was changed of it; null when it was taken away. */
export function editedEntity(entity: Entity, change: Change): Entity | null {
	if (change.removed) return null;
	const { type } = entity;
	let { groups, children } = entity;
	if (change.move && movable(type)) {
		groups = movedGroups(type, groups, change.move);
		children = children.map((child) => ({
			...child,
			groups: movedGroups(child.type, child.groups, change.move!)
		}));
	}
	if (change.layer !== undefined) groups = withValue(groups, 8, change.layer);
	if (change.attributes)
		children = children.map((child, i) => {
			const value = change.attributes![String(i)];
			return value === undefined || child.type !== 'ATTRIB'
				? child
				: { ...child, groups: withValue(child.groups, 1, oneLine(value)) };
		});
	const made = { type, groups, children };
	return change.text !== undefined && hasWords(type) ? withWords(made, change.text) : made;
}

const g = (code: number, value: string | number): Group => [
	code,
	typeof value === 'number' ? figure(value) : value
];
const at = ([x, y]: XY, code = 10): Group[] => [g(code, x), g(code + 10, y), g(code + 20, 0)];

/** Attributes that a block asks for, with what they say at first. */
export function asksFor(drawing: Drawing, block: string): { tag: string; prompt: string; value: string }[] {
	return (drawing.blocks.get(block.toUpperCase())?.entities ?? [])
		.filter((e) => e.type === 'ATTDEF' && (numberOf(e.groups, 70) & 2) === 0)
		.map(({ groups }) => ({
			tag: valueOf(groups, 2) ?? '',
			prompt: valueOf(groups, 3) || valueOf(groups, 2) || '',
			value: plainText(valueOf(groups, 1) ?? '')
		}));
}

/** The attributes of a new block insertion: placed as the block defines them, with the values given. */
function attributesAt(drawing: Drawing, item: Item): Entity[] {
	const block = drawing.blocks.get((item.block ?? '').toUpperCase());
	const scale = item.scale ?? 1;
	const turn = ((item.turn ?? 0) * Math.PI) / 180;
	const [cos, sin] = [Math.cos(turn) * scale, Math.sin(turn) * scale];
	const base = block?.base ?? [0, 0];
	const [x, y] = item.points[0]!;
	const placed = (px: number, py: number): XY => {
		const [rx, ry] = [px - base[0], py - base[1]];
		return [x + cos * rx - sin * ry, y + sin * rx + cos * ry];
	};
	return (block?.entities ?? [])
		.filter((e) => e.type === 'ATTDEF' && (numberOf(e.groups, 70) & 2) === 0)
		.map(({ groups }, i) => {
			const n = (code: number, otherwise = 0) => numberOf(groups, code, otherwise);
			const aligned = valueOf(groups, 11) !== null && (n(72) !== 0 || n(74) !== 0);
			return {
				type: 'ATTRIB',
				groups: [
					g(8, item.layer),
					...at(placed(n(10), n(20))),
					g(40, n(40, 1) * scale),
					g(1, oneLine(item.attributes?.[i] ?? valueOf(groups, 1) ?? '')),
					g(50, n(50) + (item.turn ?? 0)),
					g(2, valueOf(groups, 2) ?? ''),
					g(70, n(70)),
					...(aligned ? [g(72, n(72)), ...at(placed(n(11), n(21)), 11), g(74, n(74))] : [])
				],
				children: []
			};
		});
}

/** Something that was added, as an entity of the drawing; null for a copy of what is not there. */
export function entityOf(drawing: Drawing, item: Item): Entity | null {
	const first: XY = item.points[0]!;
	const entity = (type: string, ...groups: Group[]): Entity => ({
		type,
		groups: [g(8, item.layer), ...groups],
		children: []
	});
	switch (item.kind) {
		case 'line':
			return entity('LINE', ...at(first), ...at(item.points[1] ?? first, 11));
		case 'polyline':
			return entity(
				'LWPOLYLINE',
				g(90, item.points.length),
				g(70, item.closed ? 1 : 0),
				...item.points.flatMap(([x, y]) => [g(10, x), g(20, y)])
			);
		case 'circle':
			return entity('CIRCLE', ...at(first), g(40, item.radius ?? 1));
		case 'arc':
			return entity(
				'ARC',
				...at(first),
				g(40, item.radius ?? 1),
				g(50, item.from ?? 0),
				g(51, item.to ?? 90)
			);
		case 'text':
			return entity(
				'TEXT',
				...at(first),
				g(40, item.height ?? 1),
				g(1, oneLine(item.text ?? '')),
				...(item.turn ? [g(50, item.turn)] : [])
			);
		case 'block': {
			if (!drawing.blocks.has((item.block ?? '').toUpperCase())) return null;
			const children = attributesAt(drawing, item);
			const scale = item.scale ?? 1;
			return {
				...entity(
					'INSERT',
					...(children.length ? [g(66, 1)] : []),
					g(2, item.block!),
					...at(first),
					g(41, scale),
					g(42, scale),
					g(43, scale),
					g(50, item.turn ?? 0)
				),
				children
			};
		}
		case 'copy': {
			const of = drawing.entities[item.of ?? -1];
			if (!of || !movable(of.type)) return null;
			const made = editedEntity(of, {
				move: [first[0], first[1]],
				layer: item.layer,
				...(item.text === undefined ? {} : { text: item.text }),
				...(item.attributes
					? { attributes: Object.fromEntries(item.attributes.map((value, i) => [String(i), value])) }
					: {})
			});
			return made && { ...made, groups: withoutHandles(made.groups), children: made.children.map(bare) };
		}
	}
}

const bare = (entity: Entity): Entity => ({ ...entity, groups: withoutHandles(entity.groups) });

/** Groups of a copy: without its handle, and without what hangs on the first (DXF reference, 102 and 360). */
function withoutHandles(groups: readonly Group[]): Group[] {
	let inside = false;
	return groups.filter(([code, value]) => {
		if (code === 102) {
			inside = value.trim().startsWith('{');
			return false;
		}
		return !inside && code !== 5 && code !== 360;
	});
}

/** Coordinates by which an entity can be found in a list: its first point. */
export function firstPoint({ groups, children }: Entity): XY {
	const of = valueOf(groups, 10) === null && children[0] ? children[0].groups : groups;
	return [all(of, 10)[0] ?? 0, all(of, 20)[0] ?? 0];
}
