import { nameKey, normaliseName } from '../files/names';
import { checkNumber, type NumberingRule } from '../numbering/numbering';
import { dayTyped } from '../time/typed';
import { MOST_WEIGHT } from './deliverable';
import type { Stage } from './stages';

/** What a column of a list holds: a field of a deliverable, or the planned day of a stage. */
export type ColumnOf = 'number' | 'title' | 'department' | 'responsible' | 'weight' | `planned:${string}`;

/** Heads of the columns that an export writes, and an import knows. */
export const FIELD_HEADS = {
	number: 'Number',
	title: 'Title',
	department: 'Department',
	responsible: 'Responsible',
	weight: 'Weight'
} as const;
export const plannedHead = (stage: Pick<Stage, 'name'>): string => `${stage.name}, planned`;

/** Other names under which the trade's lists have these columns. */
const ALSO: Record<keyof typeof FIELD_HEADS, readonly string[]> = {
	number: ['document number', 'doc no', 'doc. no.', 'drawing number', 'drawing no', 'no.', 'no', 'reference'],
	title: ['document title', 'drawing title', 'description', 'name'],
	department: ['dept', 'discipline', 'originator'],
	responsible: ['responsible person', 'owner', 'author', 'prepared by'],
	weight: ['weighting', 'hours', 'effort']
};

/** How a head is compared: without case, blanks at its ends, or doubled ones. */
export const headKey = (head: string): string => head.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * What each column most likely holds: as it was matched before, else by its name; null for what is left out.
 * @param known heads (as {@link headKey}) that were matched by hand before
 */
export function matchColumns(
	heads: readonly string[],
	stages: readonly Stage[],
	known: Readonly<Record<string, ColumnOf | null>>
): (ColumnOf | null)[] {
	const names = new Map<string, ColumnOf>();
	for (const [field, head] of Object.entries(FIELD_HEADS) as [keyof typeof FIELD_HEADS, string][])
		for (const name of [head, ...ALSO[field]]) names.set(headKey(name), field);
	for (const stage of stages)
		for (const name of [plannedHead(stage), stage.name, `${stage.name} planned`, `planned ${stage.name}`])
			names.set(headKey(name), `planned:${stage.key}`);
	const used = new Set<ColumnOf>();
	return heads.map((head) => {
		const key = headKey(head);
		const found = key in known ? known[key]! : (names.get(key) ?? null);
		// Each is taken from one column, the first that has it.
		if (found === null || used.has(found)) return null;
		used.add(found);
		return found;
	});
}

/** A deliverable as a list says it; what has no column, or an empty cell, stays as it is. */
export interface Wanted {
	number: string;
	title?: string;
	/** Id of a department. */
	department?: string;
	/** Id of a person. */
	responsible?: string;
	weight?: number;
	/** By stage. A stage that is not named stays as it is. */
	planned?: Record<string, string>;
}

/** What is there already, in the same words. */
export interface Present {
	number: string;
	title: string;
	/** Null for the project's own, and for nobody. */
	department: string | null;
	responsible: string | null;
	weight: number;
	/** Null for a stage that belongs to the plan without a day. */
	planned: Record<string, string | null>;
}

/** What becomes of a line of a list (G6). */
export type Fate =
	| { fate: 'new'; wanted: Wanted }
	| { fate: 'changed'; wanted: Wanted; changes: Change[] }
	| { fate: 'same' }
	| { fate: 'refused'; why: string };

/** One value of a deliverable that becomes another; people and departments by their ids. */
export interface Change {
	what: ColumnOf;
	from: string;
	to: string;
}

/** Whom and what a list may name. */
export interface Names {
	rule: NumberingRule;
	stages: readonly Stage[];
	departments: readonly { id: string; code: string; name: string }[];
	people: readonly { id: string; name: string; email: string }[];
	/** The year that a day without one is in. */
	today: string;
}

class Odd extends Error {}

const departmentOf = (text: string, { departments }: Names): string => {
	const key = nameKey(text);
	const found = departments.find((one) => nameKey(one.code) === key || nameKey(one.name) === key);
	if (!found) throw new Odd(`No department is called “${text}”.`);
	return found.id;
};

const responsibleOf = (text: string, { people }: Names): string => {
	const mail = /<?([^\s<>]+@[^\s<>]+)>?$/.exec(text)?.[1]?.toLowerCase();
	const found = people.filter((one) => (mail ? one.email === mail : nameKey(one.name) === nameKey(text)));
	if (!found.length) throw new Odd(`Nobody in the project is called “${text}”.`);
	if (found.length > 1) throw new Odd(`Several people are called “${text}”. Give the mail address.`);
	return found[0]!.id;
};

function weightOf(text: string): number {
	const weight = Number(text.replace(',', '.'));
	if (!(weight > 0 && weight <= MOST_WEIGHT))
		throw new Odd(`“${text}” is no weight: a number above 0, ${MOST_WEIGHT} at most.`);
	return weight;
}

function dayOfCell(text: string, stage: Stage, { today }: Names): string {
	const day = dayTyped(text, today);
	if (day === null) throw new Odd(`“${text}” is no day for ${stage.name}. Write 27 Nov 2026 or 2026-11-27.`);
	return day;
}

/** Reads one line of a list. Raises {@link Odd} for what cannot be. */
function readLine(cells: readonly string[], columns: readonly (ColumnOf | null)[], names: Names): Wanted {
	const cell = (of: ColumnOf) => {
		const at = columns.indexOf(of);
		// Exports put a sign before what would be a formula in a sheet.
		return at < 0 ? undefined : (cells[at] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
	};
	const number = cell('number') ?? '';
	if (!number) throw new Odd('The number is missing.');
	const wanted: Wanted = { number };
	const [title, department, responsible, weight] = [
		cell('title'),
		cell('department'),
		cell('responsible'),
		cell('weight')
	];
	if (title) {
		const said = normaliseName(title);
		if ('fault' in said) throw new Odd(`The title “${title}” cannot be: ${said.sentence}`);
		wanted.title = said.name;
	}
	if (department) wanted.department = departmentOf(department, names);
	if (responsible) wanted.responsible = responsibleOf(responsible, names);
	if (weight) wanted.weight = weightOf(weight);
	for (const stage of names.stages) {
		const text = cell(`planned:${stage.key}`);
		if (text) (wanted.planned ??= {})[stage.key] = dayOfCell(text, stage, names);
	}
	return wanted;
}

/** What a line would change of what is there. */
export function changesOf(wanted: Wanted, present: Present): Change[] {
	const changes: Change[] = [];
	const compare = (what: ColumnOf, from: string | number | null, to: string | number | undefined) => {
		if (to !== undefined && to !== from) changes.push({ what, from: String(from ?? ''), to: String(to) });
	};
	compare('title', present.title, wanted.title);
	compare('department', present.department, wanted.department);
	compare('responsible', present.responsible, wanted.responsible);
	compare('weight', present.weight, wanted.weight);
	for (const [stage, day] of Object.entries(wanted.planned ?? {}))
		compare(`planned:${stage}`, present.planned[stage] ?? null, day);
	return changes;
}

/**
 * What becomes of each line of a list (G6): nothing is done here.
 * @param rows cells of each line, without the heads
 * @param columns what each column holds, as matched
 * @param present the deliverables of the project by number, as far as whoever imports may know them
 */
export function fatesOf(
	rows: readonly (readonly string[])[],
	columns: readonly (ColumnOf | null)[],
	names: Names,
	present: ReadonlyMap<string, Present>
): Fate[] {
	const met = new Map<string, number>();
	return rows.map((cells, i): Fate => {
		try {
			const wanted = readLine(cells, columns, names);
			const before = met.get(wanted.number);
			if (before !== undefined)
				throw new Odd(`${wanted.number} stands in line ${before + 1} of the list already.`);
			met.set(wanted.number, i);
			const there = present.get(wanted.number);
			if (!there) {
				const fits = checkNumber(names.rule, wanted.number);
				if (!fits.ok) throw new Odd(fits.sentence);
				if (!wanted.title) throw new Odd('The title is missing.');
				return { fate: 'new', wanted };
			}
			const changes = changesOf(wanted, there);
			return changes.length ? { fate: 'changed', wanted, changes } : { fate: 'same' };
		} catch (error) {
			if (error instanceof Odd) return { fate: 'refused', why: error.message };
			throw error;
		}
	});
}
