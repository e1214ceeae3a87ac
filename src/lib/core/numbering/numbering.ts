import { splitExtension } from '../files/names';

/** One part of a document's number. */
export interface NumberPart {
	key: string;
	label: string;
	/** The values allowed, or null when `pattern` decides. */
	values: { code: string; name: string }[] | null;
	/** A regular expression source for the part when `values` is null. */
	pattern: string | null;
}

/** A project's numbering rule: parts joined by one separator. The last part is the serial. */
export interface NumberingRule {
	separator: string;
	parts: NumberPart[];
	/** Digits of the serial. */
	serialDigits: number;
}

export type NumberCheck = { ok: true; parts: Record<string, string> } | { ok: false; sentence: string };

/** Tests a number against the rule; the sentence names the first part that does not fit. */
export function checkNumber(rule: NumberingRule, number: string): NumberCheck {
	const given = number.split(rule.separator);
	if (given.length !== rule.parts.length) {
		return {
			ok: false,
			sentence: `A number has ${rule.parts.length} parts joined by “${rule.separator}” (${example(rule)}); this one has ${given.length}.`
		};
	}
	const parts: Record<string, string> = {};
	for (const [i, part] of rule.parts.entries()) {
		const value = given[i]!;
		if (part.values && !part.values.some((v) => v.code === value)) {
			const known = part.values.map((v) => v.code).join(', ');
			return {
				ok: false,
				sentence: `“${value}” is not a ${part.label.toLowerCase()} of this project (${known}).`
			};
		}
		if (!part.values && part.pattern && !new RegExp(`^(?:${part.pattern})$`, 'u').test(value)) {
			return {
				ok: false,
				sentence: `“${value}” does not fit ${part.label.toLowerCase()} (${example(rule)}).`
			};
		}
		parts[part.key] = value;
	}
	return { ok: true, parts };
}

/** A number as the rule would have it, for messages. */
function example(rule: NumberingRule): string {
	return rule.parts
		.map((part, i) =>
			i === rule.parts.length - 1 ? '1'.padStart(rule.serialDigits, '0') : (part.values?.[0]?.code ?? '00')
		)
		.join(rule.separator);
}

export interface Proposal {
	number: string;
	title: string;
	/** Where the number came from: read in the file name, or the next free one. */
	from: 'name' | 'next';
}

/** Text without the separators and suffixes that file names collect ("_v3_final_NEW", "(2)", "P03.2"). */
function cleanTitle(text: string): string {
	const words = text
		.replace(/[_]+/g, ' ')
		.replace(/\s*\(\d+\)\s*$/, '')
		.split(/\s+/)
		.filter(Boolean);
	while (
		words.length > 1 &&
		/^(v\d+|final|new|copy|latest|rev[a-z0-9.]*|[pc]\d{2}(\.\d+)?)$/i.test(words.at(-1)!)
	) {
		words.pop();
	}
	const title = words.join(' ').replace(/^[\s.,-]+|[\s,-]+$/g, '');
	return title === '' ? '' : title[0]!.toLocaleUpperCase('en') + title.slice(1);
}

/**
 * Proposes number and title for a file. A number inside the file name is taken when it fits the rule;
 * otherwise the next serial after `taken` under `defaults` is proposed.
 *
 * @param defaults values for the parts before the serial, by part key
 * @param taken numbers in use, whatever their parts
 */
export function propose(
	rule: NumberingRule,
	fileName: string,
	defaults: Record<string, string>,
	taken: ReadonlySet<string>
): Proposal {
	const [stem] = splitExtension(fileName);
	const candidates = stem.toUpperCase();
	const sep = escape(rule.separator);
	const shape = rule.parts.map(() => `[A-Z0-9]+`).join(`[${sep}_ ]`);
	for (const match of candidates.matchAll(new RegExp(shape, 'g'))) {
		const number = match[0].replace(/[_ ]/g, rule.separator);
		if (checkNumber(rule, number).ok) {
			const rest = stem.slice(0, match.index) + ' ' + stem.slice(match.index + match[0].length);
			return { number, title: cleanTitle(rest), from: 'name' };
		}
	}
	return { number: nextNumber(rule, defaults, taken), title: cleanTitle(stem), from: 'next' };
}

function escape(text: string): string {
	return text.replace(/[\\\]^-]/g, '\\$&');
}

/** What numbers with these parts begin with: all but the serial, and the separator. */
export function headOf(rule: NumberingRule, parts: Record<string, string>): string {
	return rule.parts
		.slice(0, -1)
		.map((part) => (parts[part.key] ?? part.values?.[0]?.code ?? '00') + rule.separator)
		.join('');
}

/** The next free number under the given parts: one past the highest serial in use. */
export function nextNumber(
	rule: NumberingRule,
	defaults: Record<string, string>,
	taken: ReadonlySet<string>
): string {
	return nextUnder(rule, headOf(rule, defaults), taken);
}

/** The next free number beside one that is in use: the same parts, one past the highest serial. */
export function nextAfter(rule: NumberingRule, number: string, taken: ReadonlySet<string>): string {
	return nextUnder(rule, number.slice(0, number.lastIndexOf(rule.separator) + 1), taken);
}

function nextUnder(rule: NumberingRule, head: string, taken: ReadonlySet<string>): string {
	let highest = 0;
	for (const number of taken) {
		if (!number.startsWith(head)) continue;
		const serial = Number(number.slice(head.length));
		if (Number.isInteger(serial) && serial > highest) highest = serial;
	}
	return head + String(highest + 1).padStart(rule.serialDigits, '0');
}

/** The rule a new project starts with: project, department, zone, level, type, serial. */
export function standardRule(
	projectCode: string,
	departments: { code: string; name: string }[]
): NumberingRule {
	return {
		separator: '-',
		serialDigits: 4,
		parts: [
			{
				key: 'project',
				label: 'Project',
				values: [{ code: projectCode, name: 'this project' }],
				pattern: null
			},
			{
				key: 'department',
				label: 'Department',
				values: departments.length ? departments : null,
				pattern: '[A-Z]{2}'
			},
			{ key: 'zone', label: 'Zone', values: null, pattern: '[A-Z]{2}' },
			{ key: 'level', label: 'Level', values: null, pattern: '[A-Z0-9]{2}' },
			{ key: 'type', label: 'Type', values: DOCUMENT_TYPES, pattern: null },
			{ key: 'serial', label: 'Serial', values: null, pattern: '\\d{4}' }
		]
	};
}

const DOCUMENT_TYPES = [
	{ code: 'DR', name: 'drawing' },
	{ code: 'CA', name: 'calculation' },
	{ code: 'SP', name: 'specification' },
	{ code: 'SH', name: 'schedule' },
	{ code: 'RP', name: 'report' },
	{ code: 'MN', name: 'minutes' },
	{ code: 'PH', name: 'photograph' },
	{ code: 'MO', name: 'model' }
];

const TYPE_OF_EXTENSION: Record<string, string> = {
	dxf: 'DR',
	dwg: 'DR',
	pdf: 'DR',
	svg: 'DR',
	docx: 'SP',
	odt: 'SP',
	md: 'RP',
	txt: 'RP',
	xlsx: 'SH',
	ods: 'SH',
	csv: 'SH',
	jpg: 'PH',
	jpeg: 'PH',
	png: 'PH',
	webp: 'PH',
	ifc: 'MO',
	step: 'MO',
	stp: 'MO'
};

/** The document type a file of this extension most likely is, for proposals. */
export function typeForFile(fileName: string): string {
	return TYPE_OF_EXTENSION[splitExtension(fileName)[1]] ?? 'RP';
}
