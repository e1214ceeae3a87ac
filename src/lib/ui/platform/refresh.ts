import { invalidate, invalidateAll } from '$app/navigation';
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
