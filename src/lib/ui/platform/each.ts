import { CallError } from '../../client/call';
import { plural } from './words';

/** What could be done with each of many: with how many it was, and what the others were refused with. */
export interface Outcome {
	done: number;
	/** A sentence for each that was refused. */
	refused: string[];
}

/**
 * Does something with each of many, one after the other. One that is refused, because somebody else was there first, does
 * not keep the others from it; a line that is down ends it.
 */
export async function eachOf<T>(all: readonly T[], act: (one: T) => Promise<unknown>): Promise<Outcome> {
	const refused: string[] = [];
	for (const one of all)
		try {
			await act(one);
		} catch (error) {
			if (!(error instanceof CallError)) throw error;
			refused.push(error.message);
		}
	return { done: all.length - refused.length, refused };
}

/** Those that were refused, in a sentence: “2 of 40 could not be restored: …”; empty when there are none. */
export function refusedText({ done, refused }: Outcome, what: string): string {
	if (!refused.length) return '';
	const reasons = [...new Set(refused)];
	const more = reasons.length > 2 ? ` And ${plural(reasons.length - 2, 'other reason')}.` : '';
	return `${refused.length} of ${done + refused.length} could not be ${what}: ${reasons.slice(0, 2).join(' ')}${more}`;
}
