import { invalidate, invalidateAll, preloadData } from '$app/navigation';
import { navigating } from '$app/state';

/** What waits for its turn, each once. */
const waiting = new Map<string, Promise<void>>();
let turn: Promise<unknown> = Promise.resolve();
/** Milliseconds after which what is under way no longer holds up the next. */
const PATIENCE = 5_000;

/**
 * One after the other: what is asked for while an answer is just coming in can be taken for answered by it. Not while
 * somebody is on the way to another page, for that would cut the way short; but once they are there, since what they
 * come to may have been read before the change that this is about.
 */
function inTurn(key: string, ask: () => Promise<void>): Promise<void> {
	const before = waiting.get(key);
	if (before) return before;
	const late = new Promise((done) => setTimeout(done, PATIENCE));
	const then = Promise.race([turn.catch(() => {}), late])
		.then(() => navigating.complete?.catch(() => {}))
		.then(() => {
			waiting.delete(key);
			return ask();
		});
	waiting.set(key, then);
	turn = then;
	return then;
}

/** Asks again for what a page shows. */
export const refresh = (key: string): Promise<void> => inTurn(key, () => invalidate(key));

/** Asks again for everything that a page shows. */
export const refreshAll = (): Promise<void> => inTurn('', invalidateAll);

/** Whether a page was read before anybody went there. */
let ahead = false;

/** Reads a page that somebody will most likely go to next. */
export async function readAhead(page: string): Promise<void> {
	ahead = true;
	await preloadData(page);
}

/** Lets go of a page that was read ahead, since something happened. */
export function forgetAhead(): void {
	if (!ahead) return;
	ahead = false;
	// The framework lets go of what it read ahead when something is asked for again, be it nothing.
	void inTurn('ahead', () => invalidate(() => false));
}
