/** Colleagues of a recipient who answer a release along with them, or in their stead (rule T9): each by a pass of their own. */

/** Asked for by a recipient, let in or refused by a controller. */
export const COLLEAGUE_STATES = ['asked', 'in', 'refused'] as const;

/** Most colleagues that may be asked for by those who answer with one recipient. */
export const MOST_COLLEAGUES = 10;

/**
 * Who is reminded of what one recipient was asked: they and their colleagues, or, where they handed over, only those to
 * whom they did.
 */
export function toRemind<Of extends { instead: boolean }>(
	recipient: Of,
	colleagues: readonly Of[]
): readonly Of[] {
	const instead = colleagues.filter((one) => one.instead);
	return instead.length ? instead : [recipient, ...colleagues];
}
