import { diff3Merge } from 'node-diff3';

/** A piece of a merged text: agreed, or changed by both in ways that only a person can settle. */
export type MergePart =
	| { kind: 'agreed'; text: string }
	| { kind: 'conflict'; base: string; newest: string; side: string };

/** What a person takes where both changed the same. */
export type Choice = 'newest' | 'side' | 'both';

/** Words with the blanks after them: blanks alone would make long texts very slow to compare. */
const wordsOf = (text: string) => text.match(/\s+|\S+\s*/g) ?? [];
const linesOf = (text: string) => text.match(/[^\n]*\n|[^\n]+$/g) ?? [];

/**
 * Merges two texts made from one base (three-way merge; Khanna, Kunal, Pierce: A Formal Investigation of Diff3, 2007):
 * line by line, and word by word where both touched the same lines. What only one changed is taken from it, what both
 * changed alike is taken once, and the rest are conflicts.
 */
export function mergeTexts(base: string, newest: string, side: string): MergePart[] {
	const parts = merged(linesOf(base), linesOf(newest), linesOf(side)).flatMap((part) =>
		part.kind === 'agreed' ? [part] : merged(wordsOf(part.base), wordsOf(part.newest), wordsOf(part.side))
	);
	return joined(parts);
}

function merged(base: string[], newest: string[], side: string[]): MergePart[] {
	return diff3Merge(newest, base, side, { excludeFalseConflicts: true }).map(({ ok, conflict }): MergePart =>
		conflict
			? {
					kind: 'conflict',
					base: conflict.o.join(''),
					newest: conflict.a.join(''),
					side: conflict.b.join('')
				}
			: { kind: 'agreed', text: ok!.join('') }
	);
}

/** Neighbouring agreed parts as one. */
function joined(parts: MergePart[]): MergePart[] {
	const list: MergePart[] = [];
	for (const part of parts) {
		const last = list.at(-1);
		if (part.kind === 'agreed' && last?.kind === 'agreed') last.text += part.text;
		else list.push({ ...part });
	}
	return list;
}

/** The text that comes out of a merge with a choice for every conflict, in their order; null while one is missing. */
export function settledText(
	parts: readonly MergePart[],
	choices: readonly (Choice | undefined)[]
): string | null {
	let at = 0;
	let text = '';
	for (const part of parts) {
		if (part.kind === 'agreed') {
			text += part.text;
			continue;
		}
		const choice = choices[at++];
		if (!choice) return null;
		text += choice === 'both' ? part.newest + part.side : part[choice];
	}
	return text;
}
