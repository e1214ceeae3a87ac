/** A group of a DXF file: its code and its value as text (DXF reference, “group codes”). */
export type Group = readonly [code: number, value: string];

/** One entity as it stands in the file, with the entities that belong to it (vertices, attributes). */
export interface Entity {
	type: string;
	groups: Group[];
	children: Entity[];
}

interface Layer {
	name: string;
	/** Colour index; negative in the file means switched off. */
	colour: number;
	visible: boolean;
	lineType: string;
	/** Hundredths of a millimetre, or -3 for the default. */
	weight: number;
	/** By which windows of a sheet name it; empty in old drawings. */
	handle: string;
}

/** Width factor and lean of the letters of a text style. */
interface TextStyle {
	wide: number;
	/** Degrees. */
	slant: number;
}

interface Block {
	name: string;
	base: [x: number, y: number];
	entities: Entity[];
	/** It stands for another drawing that this one only refers to. */
	elsewhere: boolean;
}

export interface Drawing {
	version: string;
	header: Map<string, Group[]>;
	layers: Map<string, Layer>;
	/** Dash lengths by line type name; negative is a gap, 0 a dot. */
	lineTypes: Map<string, number[]>;
	textStyles: Map<string, TextStyle>;
	/** Their groups by name in capitals. */
	dimensionStyles: Map<string, Group[]>;
	blocks: Map<string, Block>;
	/** Names of blocks by the handles of their records. */
	blockRecords: Map<string, string>;
	/** The sheets that the drawing names, with the record of the block that holds each. */
	layouts: { name: string; order: number; record: string }[];
	/** Entities of model space and of the sheet that was open, in file order. */
	entities: Entity[];
}

/** What is wrong with a file that should be a DXF drawing, in a sentence. */
export class DxfError extends Error {}

/** The sentinel that binary drawings begin with. */
const BINARY = /^\w+ Binary DXF\r\n\u001a/;

const CODE_PAGES: Record<string, string> = {
	ANSI_874: 'windows-874',
	ANSI_932: 'shift_jis',
	ANSI_936: 'gbk',
	ANSI_949: 'euc-kr',
	ANSI_950: 'big5',
	ANSI_1250: 'windows-1250',
	ANSI_1251: 'windows-1251',
	ANSI_1252: 'windows-1252',
	ANSI_1253: 'windows-1253',
	ANSI_1254: 'windows-1254',
	ANSI_1255: 'windows-1255',
	ANSI_1256: 'windows-1256',
	ANSI_1257: 'windows-1257'
};

/** Whether bytes look like a DXF drawing: an optional comment, then `0 SECTION`. */
export function looksLikeDxf(head: Uint8Array): boolean {
	const text = new TextDecoder('latin1').decode(head.subarray(0, 2048));
	return (
		BINARY.test(text) ||
		/^\uFEFF?(?:\s*999\r?\n[^\n]*\n)*\s*0\r?\n\s*SECTION\r?\n/.test(text.replace(/^ï»¿/, ''))
	);
}

/** Whether bytes are a drawing in the binary form of DXF, which is kept and not read. */
export function isBinaryDxf(head: Uint8Array): boolean {
	return BINARY.test(new TextDecoder('latin1').decode(head.subarray(0, 2048)));
}

/** Decodes the bytes: UTF-8 from AC1021 on, the drawing's code page before. */
export function decodeDxf(bytes: Uint8Array): string {
	if (isBinaryDxf(bytes)) throw new DxfError('This is a binary DXF file; only text DXF files can be shown.');
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 8192));
	const version = /\$ACADVER\s+1\s+(\w+)/.exec(head)?.[1] ?? 'AC1009';
	const page = /\$DWGCODEPAGE\s+3\s+(\w+)/.exec(head)?.[1]?.toUpperCase() ?? 'ANSI_1252';
	return new TextDecoder(version >= 'AC1021' ? 'utf-8' : (CODE_PAGES[page] ?? 'windows-1252')).decode(bytes);
}

/** Most values of one code that are kept in mind. */
const MOST_REPEATED = 256;
/** From this many values on that all were new, a code is taken for one whose values do not repeat. */
const MOST_NEW = 2_000;

/** Groups that stand in a drawing again and again (layers, markers, zeros) are kept once: they are most of a large one. */
class Repeated {
	/** By code; those of comments and programs go up to 1071. */
	private readonly known: ({ values: Map<string, Group>; fresh: number } | undefined)[] = [];

	get(code: number, value: string): Group {
		if (code < 0 || code > 2_000) return [code, value];
		const of = (this.known[code] ??= { values: new Map(), fresh: 0 });
		if (of.fresh > MOST_NEW) return [code, value];
		const same = of.values.get(value);
		if (same) {
			of.fresh = 0;
			return same;
		}
		const group: Group = [code, value];
		of.fresh++;
		if (of.values.size < MOST_REPEATED) of.values.set(value, group);
		return group;
	}
}

const CHILD_OF: Record<string, string[]> = { INSERT: ['ATTRIB'], POLYLINE: ['VERTEX'] };

/**
 * Reads a text DXF drawing. Unknown sections, tables and entities are passed over.
 * Raises {@link DxfError} when the text is not a DXF drawing or breaks off before its entities.
 */
export function readDxf(text: string): Drawing {
	const drawing: Drawing = {
		version: 'AC1009',
		header: new Map(),
		layers: new Map(),
		lineTypes: new Map(),
		textStyles: new Map(),
		dimensionStyles: new Map(),
		blocks: new Map(),
		blockRecords: new Map(),
		layouts: [],
		entities: []
	};
	let at = 0;
	const length = text.length;
	const line = (): string | null => {
		if (at >= length) return null;
		let end = text.indexOf('\n', at);
		if (end < 0) end = length;
		const value = text.charCodeAt(end - 1) === 13 ? text.slice(at, end - 1) : text.slice(at, end);
		at = end + 1;
		return value;
	};
	/** The group code on the next line: nearly always digits with blanks before them, which are read as they stand. */
	const codeHere = (): number | null => {
		const begin = at;
		let code = 0;
		let char = text.charCodeAt(at);
		while (char === 32) char = text.charCodeAt(++at);
		const digits = at;
		while (char >= 48 && char <= 57) {
			code = code * 10 + char - 48;
			char = text.charCodeAt(++at);
		}
		const some = at > digits && at - digits < 6;
		if (char === 13) char = text.charCodeAt(++at);
		if (some && char === 10) {
			at++;
			return code;
		}
		at = begin;
		const codeText = line();
		if (codeText === null) return null;
		const other = Number(codeText);
		if (!Number.isInteger(other))
			throw new DxfError(
				`This is not a DXF drawing: “${codeText.slice(0, 20)}” stands where a group code should.`
			);
		return other;
	};
	const repeated = new Repeated();
	let held: Group | null = null;
	const next = (): Group | null => {
		if (held) {
			const group = held;
			held = null;
			return group;
		}
		for (;;) {
			const code = codeHere();
			const value = line();
			if (code === null || value === null) return null;
			if (code !== 999) return repeated.get(code, value);
		}
	};
	/** Groups up to the next code 0, which stays for the next reader. */
	const body = (): Group[] => {
		const groups: Group[] = [];
		for (let g = next(); g; g = next()) {
			if (g[0] === 0) {
				held = g;
				break;
			}
			groups.push(g);
		}
		return groups;
	};
	const entitiesUntil = (...stops: string[]): Entity[] => {
		const list: Entity[] = [];
		let parent: Entity | null = null;
		for (let g = next(); g; g = next()) {
			if (g[0] !== 0) continue;
			const type = g[1].trim();
			if (stops.includes(type)) {
				held = g;
				break;
			}
			const entity: Entity = { type, groups: body(), children: [] };
			if (type === 'SEQEND') parent = null;
			else if (parent && CHILD_OF[parent.type]?.includes(type)) parent.children.push(entity);
			else {
				list.push(entity);
				parent = CHILD_OF[type] ? entity : null;
			}
		}
		return list;
	};

	let sawEntities = false;
	for (let g = next(); g; g = next()) {
		if (g[0] !== 0 || g[1].trim() !== 'SECTION') continue;
		const name = next()?.[1].trim();
		if (name === 'HEADER') readHeader(drawing, body());
		else if (name === 'TABLES') {
			for (const entry of entitiesUntil('ENDSEC')) readTableEntry(drawing, entry);
		} else if (name === 'BLOCKS') {
			for (let b = next(); b && b[1].trim() !== 'ENDSEC'; b = next()) {
				if (b[0] !== 0 || b[1].trim() !== 'BLOCK') continue;
				const head = body();
				const entities = entitiesUntil('ENDBLK', 'ENDSEC');
				const blockName = valueOf(head, 2) ?? '';
				drawing.blocks.set(blockName.toUpperCase(), {
					name: blockName,
					base: [numberOf(head, 10), numberOf(head, 20)],
					entities,
					elsewhere: (numberOf(head, 70) & 4) !== 0 && !entities.length
				});
			}
		} else if (name === 'ENTITIES') {
			sawEntities = true;
			drawing.entities = entitiesUntil('ENDSEC');
		} else if (name === 'OBJECTS') {
			for (let o = next(); o && !(o[0] === 0 && o[1].trim() === 'ENDSEC'); o = next())
				if (o[0] === 0 && o[1].trim() === 'LAYOUT') readLayout(drawing, body());
		}
	}
	if (!sawEntities)
		throw new DxfError('The drawing breaks off before its entities, or is not a DXF drawing.');
	return drawing;
}

function readHeader(drawing: Drawing, groups: Group[]): void {
	let current: Group[] = [];
	for (const group of groups) {
		if (group[0] === 9) {
			current = [];
			drawing.header.set(group[1].trim(), current);
		} else current.push(group);
	}
	drawing.version = drawing.header.get('$ACADVER')?.[0]?.[1].trim() ?? 'AC1009';
}

function readTableEntry(drawing: Drawing, entry: Entity): void {
	const name = valueOf(entry.groups, 2);
	if (name === null) return;
	if (entry.type === 'LAYER') {
		const colour = numberOf(entry.groups, 62, 7);
		const frozen = (numberOf(entry.groups, 70) & 1) === 1;
		drawing.layers.set(name.toUpperCase(), {
			name,
			colour: Math.abs(colour),
			visible: colour >= 0 && !frozen,
			lineType: valueOf(entry.groups, 6) ?? 'CONTINUOUS',
			weight: numberOf(entry.groups, 370, -3),
			handle: handleOf(entry.groups)
		});
	} else if (entry.type === 'BLOCK_RECORD') {
		drawing.blockRecords.set(handleOf(entry.groups), name);
	} else if (entry.type === 'STYLE') {
		const [wide, slant] = [numberOf(entry.groups, 41, 1), numberOf(entry.groups, 50)];
		drawing.textStyles.set(name.toUpperCase(), { wide, slant });
	} else if (entry.type === 'DIMSTYLE') {
		drawing.dimensionStyles.set(name.toUpperCase(), entry.groups);
	} else if (entry.type === 'LTYPE') {
		drawing.lineTypes.set(
			name.toUpperCase(),
			entry.groups.filter(([code]) => code === 49).map(([, value]) => Number(value))
		);
	}
}

/** A LAYOUT object: what stands before its own marker are the settings for printing it. */
function readLayout(drawing: Drawing, groups: readonly Group[]): void {
	const own = groups.slice(groups.findIndex(([code, v]) => code === 100 && v.trim() === 'AcDbLayout') + 1);
	const record = valueOf(own, 330)?.trim().toUpperCase();
	if (record) drawing.layouts.push({ name: valueOf(own, 1) ?? '', order: numberOf(own, 71), record });
}

const handleOf = (groups: readonly Group[]) => valueOf(groups, 5)?.trim().toUpperCase() ?? '';

/** The first value under a code, or null. */
export function valueOf(groups: readonly Group[], code: number): string | null {
	for (const group of groups) if (group[0] === code) return group[1];
	return null;
}

/** The first value under a code as a finite number, or `otherwise`. */
export function numberOf(groups: readonly Group[], code: number, otherwise = 0): number {
	const value = valueOf(groups, code);
	if (value === null) return otherwise;
	const number = Number(value);
	return Number.isFinite(number) ? number : otherwise;
}
