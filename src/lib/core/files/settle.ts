import { normaliseName } from './names';
import { checkNumber, type NumberingRule } from '../numbering/numbering';

/** What is settled of a file before it lands as a document. */
export interface Settled {
	number: string;
	title: string;
	/** As typed: words with commas between them. */
	tags: string;
}

/** The columns that can be filled down and pasted into, in the order in which they stand. */
export const COLUMNS = ['number', 'title', 'tags'] as const;
export type Column = (typeof COLUMNS)[number];

/** Longest tag in characters, and most tags of a document. */
export const MAX_TAG = 40;
export const MOST_TAGS = 30;
/** What a tag is made of. */
export const TAG = /^[\p{L}\p{N}][\p{L}\p{N} ._-]*$/u;

/** Tags as they are kept, from words typed with commas or semicolons between them. */
export function tagsOf(typed: string): string[] {
	const words = typed.split(/[,;]/).map((word) => word.trim().toLowerCase());
	return [...new Set(words.filter(Boolean))].sort();
}

/** What is wrong with one line by itself, as sentences; empty when it can land. */
export function faultsOf(rule: NumberingRule, line: Settled): string[] {
	const faults: string[] = [];
	const fits = checkNumber(rule, line.number.trim());
	if (!fits.ok) faults.push(fits.sentence);
	const title = normaliseName(line.title);
	if ('fault' in title) faults.push(title.fault === 'empty' ? 'A title is needed.' : title.sentence);
	const tags = tagsOf(line.tags);
	const wrong = tags.find((tag) => tag.length > MAX_TAG || !TAG.test(tag));
	if (wrong)
		faults.push(`“${wrong}” is no tag: letters, digits, blanks, “-”, “_” and “.”, at most ${MAX_TAG}.`);
	if (tags.length > MOST_TAGS) faults.push(`At most ${MOST_TAGS} tags.`);
	return faults;
}

/** The numbers that several of some lines have, one under the other: a text, which is the same as long as they are. */
export function sharedNumbers(lines: Iterable<{ number: string }>): string {
	const [seen, twice] = [new Set<string>(), new Set<string>()];
	for (const line of lines) {
		const number = line.number.trim();
		if (seen.has(number)) twice.add(number);
		seen.add(number);
	}
	return [...twice].join('\n');
}

/** Whether a number is one of those that several lines have. */
export const isShared = (shared: string, number: string): boolean =>
	shared !== '' && shared.split('\n').includes(number.trim());

/** The number `steps` after one: its serial counted up, as many digits as it had. Null when it does not end in one. */
export function numberAfter(rule: NumberingRule, number: string, steps: number): string | null {
	const parts = number.trim().split(rule.separator);
	const serial = parts.at(-1)!;
	if (!/^\d+$/.test(serial)) return null;
	return [...parts.slice(0, -1), String(Number(serial) + steps).padStart(serial.length, '0')].join(
		rule.separator
	);
}

/** The values that filling down a column gives the lines below one: numbers count up, the rest is repeated. */
export function filledDown(rule: NumberingRule, column: Column, from: Settled, lines: number): string[] {
	return Array.from({ length: lines }, (_, i) =>
		column === 'number' ? (numberAfter(rule, from.number, i + 1) ?? from.number) : from[column]
	);
}
