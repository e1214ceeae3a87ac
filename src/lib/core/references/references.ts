import { checkNumber, type NumberingRule, type NumberPart } from '../numbering/numbering';
import { compare, parse, type RevisionScheme } from '../revisions/revisions';

/** A document that a text names by its number, with the revision that stands right after it. */
export interface Named {
	number: string;
	/** The label as it is written there; null where none is. */
	revision: string | null;
}

/** Most documents that are read out of one text. */
const MOST_NAMED = 500;

/** Signs that stand for a hyphen where people and programs write numbers. */
const HYPHENS = '\\-\\u2010\\u2011\\u2012\\u2013_';
const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

const patternOf = ({ values, pattern }: NumberPart): string =>
	values ? `(?:${values.map(({ code }) => escaped(code)).join('|')})` : `(?:${pattern ?? '[A-Z0-9]+'})`;

/** What finds numbers of a rule in a text, whichever hyphen they are written with. */
function numbersIn(rule: NumberingRule): RegExp {
	const between = rule.separator === '-' || rule.separator === '_' ? `[${HYPHENS}]` : escaped(rule.separator);
	const number = rule.parts.map(patternOf).join(between);
	// A longer word or number around it is another one.
	return new RegExp(`(?<![\\p{L}\\p{N}]|[\\p{L}\\p{N}][${HYPHENS}])${number}(?![\\p{L}\\p{N}])`, 'giu');
}

/** What may stand between a number and its revision, on the same line: a few signs, and a word for it. */
const BETWEEN = /^[ \t\u00a0,;:()[\]_-]{0,3}(?:rev(?:ision)?\.?|version|v\.?|issue)?[ \t\u00a0:.]{0,2}/iu;

/**
 * The documents that a text names by their numbers, each once, in the order in which they are named first. Where one is
 * named with several revisions, the newest counts.
 * @param own number of the document that the text is of, which names itself in its title block
 */
export function numbersNamed(
	text: string,
	rule: NumberingRule,
	scheme: RevisionScheme,
	own: string
): Named[] {
	const found = new Map<string, Named>();
	for (const match of text.matchAll(numbersIn(rule))) {
		const number = match[0].toUpperCase().replace(new RegExp(`[${HYPHENS}]`, 'gu'), rule.separator);
		if (number === own.toUpperCase() || !checkNumber(rule, number).ok) continue;
		const revision = revisionAfter(
			text.slice(match.index + match[0].length, match.index + match[0].length + 40),
			scheme
		);
		const known = found.get(number);
		if (!known) {
			if (found.size >= MOST_NAMED) break;
			found.set(number, { number, revision });
		} else if (revision !== null && (known.revision === null || after(revision, known.revision, scheme) > 0))
			known.revision = revision;
	}
	return [...found.values()];
}

/** Whether one label came after another: above 0, below it for before, 0 for the same or for what fits no scheme. */
function after(label: string, other: string, scheme: RevisionScheme): number {
	const [a, b] = [parse(scheme, label), parse(scheme, other)];
	return a && b ? compare(scheme, a, b) || 0 : 0;
}

/** The revision that a text begins with, after what may stand before one; null when none does. */
function revisionAfter(text: string, scheme: RevisionScheme): string | null {
	const rest = text.slice(BETWEEN.exec(text)?.[0].length ?? 0);
	const word = /^[A-Z]{0,4}\d+(?:\.\d+)?(?![\p{L}\p{N}])/iu.exec(rest)?.[0].toUpperCase();
	return word !== undefined && parse(scheme, word) ? word : null;
}

/**
 * The numbers that one could have been meant for: those that fit the rule and differ by one sign, or by two that stand
 * the other way about. There are a few hundred, so that which of them are there can be asked of an index.
 */
export function slipsOf(number: string, rule: NumberingRule): string[] {
	const found = new Set<string>();
	const signs = [...'0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
	for (let i = 0; i < number.length; i++) {
		if (number[i] === rule.separator) continue;
		for (const sign of signs) found.add(number.slice(0, i) + sign + number.slice(i + 1));
		if (i + 1 < number.length && number[i + 1] !== rule.separator)
			found.add(number.slice(0, i) + number[i + 1]! + number[i]! + number.slice(i + 2));
	}
	found.delete(number);
	return [...found].filter((one) => checkNumber(rule, one).ok);
}

/**
 * What is to be said of a document that another one names: as it stands, another revision than the issued one, nothing
 * issued yet, planned only, or nobody knows it.
 */
export type Reference = 'current' | 'older' | 'newer' | 'not-issued' | 'planned' | 'unknown';

/** What is known of a named document, as far as whoever reads may look at it. */
export interface Target {
	/** The newest issued revision; null when none is. */
	issued: string | null;
}

/** How a reference stands. @param target null when there is no such document, or none that may be looked at */
export function referenceOf(
	named: Named,
	target: Target | null,
	planned: boolean,
	scheme: RevisionScheme
): Reference {
	if (!target) return planned ? 'planned' : 'unknown';
	if (target.issued === null) return 'not-issued';
	if (named.revision === null) return 'current';
	const order = after(named.revision, target.issued, scheme);
	return order === 0 ? 'current' : order < 0 ? 'older' : 'newer';
}

export const REFERENCE_LABEL: Record<Reference, string> = {
	current: 'issued as named',
	older: 'names an older revision',
	newer: 'names a revision that is not issued',
	'not-issued': 'nothing of it is issued',
	planned: 'planned, no document yet',
	unknown: 'no such document'
};
