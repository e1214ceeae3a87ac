type Texts = readonly (string | null)[];

/** Places of the texts for which something holds, and of those that are null. */
const where = (texts: Texts, holds: (text: string) => boolean): number[] =>
	texts.flatMap((text, at) => (text === null || holds(text) ? [at] : []));

/**
 * What is left of two lists of texts without those that stand in both, each as often as it does. Nearly all of a drawing
 * reads the same in both, and need not be taken apart.
 * @param before, after null for what has to be taken apart whatever it reads
 * @returns places in the two lists
 */
export function withoutSame(before: Texts, after: Texts): { before: number[]; after: number[] } {
	/** How often each stands in the first and has not been met in the second. */
	const waiting = new Map<string, number>();
	for (const text of before) if (text !== null) waiting.set(text, (waiting.get(text) ?? 0) + 1);
	const met = (text: string) => {
		const left = waiting.get(text) ?? 0;
		if (left > 0) waiting.set(text, left - 1);
		return left > 0;
	};
	const restAfter = where(after, (text) => !met(text));
	return { before: where(before, met), after: restAfter };
}
