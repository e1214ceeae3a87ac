import type { z } from 'zod';

/** Tests hold every answer against the contract; in production what was declared is trusted, and costs nothing. */
const HELD = process.env.NODE_ENV === 'test';

/**
 * The answer of an act or view as it is.
 * Raises Error in tests for an answer that is not what its contract says.
 */
export function checkedAnswer<O extends z.ZodType>(
	contract: { name: string; output: O },
	answer: unknown
): z.output<O> {
	if (HELD) {
		const held = contract.output.safeParse(answer);
		if (!held.success)
			throw new Error(`${contract.name} answers otherwise than its contract says: ${held.error.message}`);
	}
	return answer as z.output<O>;
}
