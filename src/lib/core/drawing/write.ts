import { decodeDxf, DxfError, readDxf, type Entity, type Group } from '../dxf/read';
import { bytesOf, GroupReader, latinOf, type Placed } from './groups';
import { editedEntity, entityOf, withDimensionWords } from './edited';
import type { Edits } from './item';

/*
 * Writes an edited drawing by putting what changed into the bytes of its base. Whatever nobody touched stays byte for
 * byte as it was, so entities and sections that are not understood here come through whole.
 */

/** An entity of the file, with those that belong to it and its end mark. */
interface PlacedEntity {
	from: number;
	to: number;
	/** Of the entity itself and of each that belongs to it, without their `0` groups. */
	parts: { type: string; head: Placed; groups: Placed[] }[];
}

const CHILDREN: Record<string, string[]> = { INSERT: ['ATTRIB'], POLYLINE: ['VERTEX'] };

/** Where things stand that a writer has to know. */
interface Layout {
	entities: PlacedEntity[];
	/** Where `0 ENDSEC` of the entities begins. */
	end: number;
	/** Entities of blocks, by block name in capitals. */
	blocks: Map<string, PlacedEntity[]>;
	/** The colour group of each layer, by name in capitals, or where one can be put. */
	layers: Map<string, { colour: Placed | null; after: number }>;
	handleSeed: Placed | null;
	/** Handle of model space, which owns new entities. */
	modelSpace: string | null;
	highest: number;
	newline: string;
}

function layoutOf(text: string): Layout {
	const layout: Layout = {
		entities: [],
		end: -1,
		blocks: new Map(),
		layers: new Map(),
		handleSeed: null,
		modelSpace: null,
		highest: 0,
		newline: text.includes('\r\n') ? '\r\n' : '\n'
	};
	const reader = new GroupReader(text);
	let section = '';
	let list: PlacedEntity[] | null = null;
	let parent: PlacedEntity | null = null;
	let part: PlacedEntity['parts'][number] | null = null;
	let blockHead = false;
	let table: { type: string; name: string; handle: string; colour: Placed | null; after: number } | null =
		null;
	let variable = '';
	const endTable = () => {
		if (table?.type === 'LAYER' && table.name)
			layout.layers.set(table.name.toUpperCase(), { colour: table.colour, after: table.after });
		if (table?.type === 'BLOCK_RECORD' && table.name.toUpperCase() === '*MODEL_SPACE')
			layout.modelSpace = table.handle || null;
		table = null;
	};
	for (let placed = reader.next(); placed; placed = reader.next()) {
		const [code, raw] = placed.group;
		const value = raw.trim();
		if ((code === 5 || code === 105) && /^[0-9a-f]+$/i.test(value) && section !== 'HEADER')
			layout.highest = Math.max(layout.highest, parseInt(value, 16));
		if (code === 0) {
			endTable();
			part = null;
			if (value === 'SECTION') {
				const name = reader.next();
				section = name?.group[1].trim() ?? '';
				list = section === 'ENTITIES' ? layout.entities : null;
				parent = null;
				continue;
			}
			if (value === 'ENDSEC') {
				if (section === 'ENTITIES') layout.end = placed.from;
				section = '';
				list = null;
				continue;
			}
			if (section === 'TABLES') table = { type: value, name: '', handle: '', colour: null, after: placed.to };
			else if (section === 'BLOCKS' && (value === 'BLOCK' || value === 'ENDBLK')) {
				blockHead = value === 'BLOCK';
				list = null;
				parent = null;
			} else if (section === 'ENTITIES' || (section === 'BLOCKS' && list)) {
				part = { type: value, head: placed, groups: [] };
				if (value === 'SEQEND' && parent) {
					parent.parts.push(part);
					parent.to = placed.to;
					continue;
				}
				const last: PlacedEntity | null = parent;
				if (last && CHILDREN[last.parts[0]!.type]?.includes(value) && last.parts.at(-1)!.type !== 'SEQEND') {
					last.parts.push(part);
					last.to = placed.to;
				} else {
					const made: PlacedEntity = { from: placed.from, to: placed.to, parts: [part] };
					if (value === 'SEQEND') part = null;
					else {
						list!.push(made);
						parent = made;
					}
				}
			}
			continue;
		}
		if (section === 'HEADER') {
			if (code === 9) variable = value;
			else if (variable === '$HANDSEED' && code === 5) layout.handleSeed = placed;
		} else if (table) {
			if (code === 2) table.name = value;
			else if (code === 5) table.handle = value;
			else if (code === 62) table.colour = placed;
			table.after = placed.to;
		} else if (blockHead && code === 2) {
			blockHead = false;
			list = [];
			layout.blocks.set(value.toUpperCase(), list);
		} else if (part && parent) {
			part.groups.push(placed);
			parent.to = placed.to;
		}
	}
	if (layout.end < 0)
		throw new DxfError('The drawing breaks off before its entities end; it cannot be written.');
	return layout;
}

const SUBCLASS: Record<string, string> = {
	LINE: 'AcDbLine',
	LWPOLYLINE: 'AcDbPolyline',
	CIRCLE: 'AcDbCircle',
	TEXT: 'AcDbText',
	INSERT: 'AcDbBlockReference',
	ATTRIB: 'AcDbText'
};

/**
 * The bytes of a drawing with its edits in it.
 * @param bytes of the base
 * Raises {@link DxfError} for a base that is no DXF drawing.
 */
export function writeEdited(bytes: Uint8Array, edits: Edits): Uint8Array {
	// One character a byte: what is not touched is copied as it is, whatever its letters are.
	const text = latinOf(bytes);
	const drawing = readDxf(decodeDxf(bytes));
	const layout = layoutOf(text);
	const modern = drawing.version >= 'AC1015';
	const unicode = drawing.version >= 'AC1021';
	const { newline } = layout;
	let handle = Math.max(layout.highest + 1, parseInt(layout.handleSeed?.group[1].trim() ?? '1', 16) || 1);
	const nextHandle = () => (handle++).toString(16).toUpperCase();
	const encoded = (value: string): string => {
		const one = value.replace(/[\r\n]+/g, ' ');
		if (unicode) return latinOf(new TextEncoder().encode(one));
		return one.replace(
			/[^\x20-\x7e]/g,
			(letter) => `\\U+${letter.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`
		);
	};
	const line = ([code, value]: Group) => `${String(code).padStart(3)}${newline}${encoded(value)}${newline}`;

	/** An edited entity: groups that are the very same as before are copied, the others written. */
	const rewritten = (placed: PlacedEntity, before: Entity, after: Entity): string => {
		const pieces = [before, ...before.children];
		const made = [after, ...after.children];
		return placed.parts
			.map((part, i) => {
				const own = text.slice(part.head.from, part.head.to);
				const was = pieces[i]?.groups;
				if (!was || part.type === 'SEQEND')
					return own + part.groups.map((p) => text.slice(p.from, p.to)).join('');
				const raw = new Map(was.map((group, k) => [group, part.groups[k]!]));
				return (
					own +
					made[i]!.groups.map((group) => {
						const same = raw.get(group);
						return same ? text.slice(same.from, same.to) : line(group);
					}).join('')
				);
			})
			.join('');
	};

	const owner: Group[] = modern && layout.modelSpace ? [[330, layout.modelSpace]] : [];
	/** A new entity with what its version of the format asks for around its groups. */
	const fresh = (entity: Entity): string => {
		const parts = modern ? [entity] : forOldFormat(entity);
		return parts.map((one) => freshPart(one) + one.children.map(freshPart).join('') + endOf(one)).join('');
	};
	const endOf = (entity: Entity) =>
		entity.children.length
			? [
					[0, 'SEQEND'] as Group,
					...(modern ? [[5, nextHandle()] as Group, ...owner, [100, 'AcDbEntity'] as Group] : []),
					[8, entity.groups.find(([c]) => c === 8)?.[1] ?? '0'] as Group
				]
					.map(line)
					.join('')
			: '';
	const freshPart = ({ type, groups }: Entity): string => {
		if (!modern) return [[0, type] as Group, ...groups].map(line).join('');
		// A copy brings its own marks of what its groups belong to.
		const marked = groups.some(([code]) => code === 100);
		const [layer, rest] = [groups.filter(([c]) => c === 8), groups.filter(([c]) => c !== 8)];
		const head: Group[] = [
			[0, type],
			[5, nextHandle()]
		];
		if (marked) return [...head, ...groups].map(line).join('');
		const body: Group[] = [...head, ...owner, [100, 'AcDbEntity'], ...layer];
		if (type === 'ARC') {
			const angles = rest.filter(([c]) => c === 50 || c === 51);
			body.push([100, 'AcDbCircle'], ...rest.filter((g) => !angles.includes(g)), [100, 'AcDbArc'], ...angles);
		} else if (type === 'ATTRIB') {
			const own = rest.filter(([c]) => c === 2 || c === 70 || c === 74);
			body.push([100, 'AcDbText'], ...rest.filter((g) => !own.includes(g)), [100, 'AcDbAttribute'], ...own);
		} else
			body.push(
				[100, SUBCLASS[type] ?? 'AcDbEntity'],
				...rest,
				...(type === 'TEXT' ? [[100, 'AcDbText'] as Group] : [])
			);
		return body.map(line).join('');
	};

	/** What takes the place of a stretch of the file. */
	const patches: { from: number; to: number; by: string }[] = [];
	for (const [at, change] of edits.changes) {
		const [placed, entity] = [layout.entities[at], drawing.entities[at]];
		if (!placed || !entity) continue;
		const after = editedEntity(entity, change);
		patches.push({ from: placed.from, to: placed.to, by: after ? rewritten(placed, entity, after) : '' });
		if (after && change.text !== undefined && entity.type === 'DIMENSION') {
			const name = (entity.groups.find(([c]) => c === 2)?.[1] ?? '').trim().toUpperCase();
			const held = drawing.blocks.get(name)?.entities ?? [];
			const words = withDimensionWords(held, change.text);
			layout.blocks.get(name)?.forEach((one, i) => {
				if (change.text !== '' && held[i] && words[i] !== held[i])
					patches.push({ from: one.from, to: one.to, by: rewritten(one, held[i], words[i]!) });
			});
		}
	}
	for (const [name, { off }] of edits.layers) {
		const layer = layout.layers.get(name.toUpperCase());
		if (!layer) continue;
		const colour = Math.abs(Number(layer.colour?.group[1] ?? 7)) || 7;
		const by = line([62, String(off ? -colour : colour)]);
		if (layer.colour) patches.push({ from: layer.colour.from, to: layer.colour.to, by });
		else patches.push({ from: layer.after, to: layer.after, by });
	}
	const added = edits.items.map((item) => entityOf(drawing, item)).filter((entity) => entity !== null);
	if (added.length) patches.push({ from: layout.end, to: layout.end, by: added.map(fresh).join('') });
	if (layout.handleSeed && added.length)
		patches.push({
			from: layout.handleSeed.from,
			to: layout.handleSeed.to,
			by: line([5, handle.toString(16).toUpperCase()])
		});

	patches.sort((a, b) => a.from - b.from || a.to - b.to);
	const pieces: string[] = [];
	let done = 0;
	for (const { from, to, by } of patches) {
		// Two dimensions can share one picture; the first says what stands in it.
		if (from < done) continue;
		pieces.push(text.slice(done, from), by);
		done = to;
	}
	pieces.push(text.slice(done));
	return bytesOf(pieces.join(''));
}

/** Light polylines came with AC1015; before that a polyline is a head with vertices. */
function forOldFormat(entity: Entity): Entity[] {
	if (entity.type !== 'LWPOLYLINE') return [entity];
	const layer = entity.groups.filter(([c]) => c === 8);
	const vertices: Entity[] = [];
	for (const [code, value] of entity.groups) {
		if (code === 10) vertices.push({ type: 'VERTEX', groups: [...layer, [10, value]], children: [] });
		else if (code === 20 || code === 42) vertices.at(-1)?.groups.push([code, value]);
	}
	const flags = entity.groups.find(([c]) => c === 70)?.[1] ?? '0';
	return [
		{
			type: 'POLYLINE',
			groups: [...layer, [66, '1'], [10, '0'], [20, '0'], [30, '0'], [70, String(Number(flags) & 1)]],
			children: vertices
		}
	];
}
