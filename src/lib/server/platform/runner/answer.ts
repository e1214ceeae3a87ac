import type { z } from 'zod';
import { eventOf } from '../../../core/events';

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

/**
 * Holds an event that an act tells against what the act declares, and its details against the catalogue.
 * Raises Error in tests for what is not declared.
 */
export function checkEvent(
	act: { name: string; events: readonly string[] },
	told: { kind: string; details?: unknown }
): void {
	if (!HELD) return;
	if (!act.events.includes(told.kind))
		throw new Error(`${act.name} tells ${told.kind} without declaring it.`);
	const held = eventOf(told.kind)!.details.safeParse(JSON.parse(JSON.stringify(told.details ?? {})));
	if (!held.success)
		throw new Error(`${act.name} tells ${told.kind} otherwise than it is: ${held.error!.message}`);
}
