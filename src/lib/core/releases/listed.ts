import type { NumberingRule } from '../numbering/numbering';
import { numbersNamed } from '../references/references';
import type { RevisionScheme } from '../revisions/revisions';

/** Most letters of a list that is pasted, and most of its lines that are told about. */
export const MOST_LISTED = 200_000;
export const MOST_UNKNOWN = 200;

/** A line of a list, with the numbers that it may name, in capital letters. */
export interface ListedLine {
	line: string;
	numbers: string[];
}

/**
 * What a pasted list of documents may name, line by line: every number that fits the project's rule, wherever it stands
 * in the line, and the first word, since older numbers may fit another rule. Empty lines are left out.
 */
export function listedNumbers(text: string, rule: NumberingRule, scheme: RevisionScheme): ListedLine[] {
	return text.split(/\r\n|\r|\n/).flatMap((raw) => {
		const line = raw.trim();
		if (!line) return [];
		const first = line.split(/[\s,;]+/, 1)[0]!.toUpperCase();
		return [
			{
				line,
				numbers: [...new Set([...numbersNamed(line, rule, scheme, '').map((one) => one.number), first])]
			}
		];
	});
}
