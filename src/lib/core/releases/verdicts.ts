/** What those who are asked say of a document, and what it comes to (rules T5, T9). */

export const VERDICTS = ['A', 'B', 'C', 'D'] as const;
export type Verdict = (typeof VERDICTS)[number];
export const VERDICT_LABEL: Record<Verdict, string> = {
	A: 'accepted',
	B: 'accepted with comments',
	C: 'revise and resubmit',
	D: 'refused'
};

/**
 * What the verdicts on one document come to: one where everybody asked gave the same, `differ` where all answered and
 * not alike, `open` while somebody has not signed. Only a controller makes one out of verdicts that differ.
 * @param given the signed verdict of each who is asked; null where there is none yet
 */
export function outcomeOf(given: readonly (Verdict | null)[]): Verdict | 'differ' | 'open' {
	const [first] = given;
	if (!first || given.includes(null)) return 'open';
	return given.every((one) => one === first) ? first : 'differ';
}

/**
 * Whether a controller can make one out of the verdicts on a document: several are asked, somebody has signed, and they
 * did not come to one by themselves.
 */
export const canConsolidate = (given: readonly (Verdict | null)[]): boolean =>
	given.length > 1 && given.some((one) => one !== null) && ['differ', 'open'].includes(outcomeOf(given));
