import type { Presence } from './messages';

/** Most characters that a browser says of its cursor. */
const MOST_PRESENCE = 4_000;

/** What is known of cursors in a room, and whose they are. */
export interface Known {
	/** The clock of a client's newest word, or -1. */
	clock(client: number): number;
	/** Whether somebody else speaks under a client number. */
	another(client: number): boolean;
}

/**
 * Judges what somebody says of cursors. Nobody moves another's cursor or speaks under another's name. Browsers repeat
 * what they heard of others, which says nothing new; that another has left is not for them to say.
 * @returns the client numbers that are the speaker's own; `strike` when the message is to say nothing; or `refused`
 */
export function judgePresence(
	states: readonly Presence[],
	personId: string,
	known: Known
): { own: number[]; strike: boolean } | 'refused' {
	const own: number[] = [];
	let strike = false;
	for (const { client, clock, state } of states) {
		const heard = known.clock(client);
		if (clock < heard || (clock === heard && state !== null)) continue;
		if (state === null) {
			strike ||= known.another(client);
			continue;
		}
		const { user } = state as { user?: { id?: unknown } };
		if (known.another(client) || user?.id !== personId || JSON.stringify(state).length > MOST_PRESENCE)
			return 'refused';
		own.push(client);
	}
	return { own, strike };
}
