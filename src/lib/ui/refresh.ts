import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';

/** Keys that wait for somebody to arrive, each once. */
const waiting = new Map<string, Promise<void>>();

/**
 * Asks again for what a page shows. Not while somebody is on the way to another page, for that would cut the way short;
 * but once they are there, since what they come to may have been read before the change that this is about.
 */
export async function refresh(key: string): Promise<void> {
	const arrival = navigating.complete;
	if (!arrival) return invalidate(key);
	const before = waiting.get(key);
	if (before) return before;
	const then = arrival
		.catch(() => {})
		.then(() => {
			waiting.delete(key);
			return invalidate(key);
		});
	waiting.set(key, then);
	return then;
}
