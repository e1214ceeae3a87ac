import { no, yes, type Answer } from '../acts/answer';
import type { LockFacts } from '../locks/locks';
import { dayWordsOf } from '../time/days';
import { ended } from '../words/sentences';
import { capped, type Cap } from './decide';
import { allows, levelLabel, rank, type Level } from './levels';

/** A lock as somebody meets it. */
export interface HeldLock extends LockFacts {
	holder: string;
	holderId: string;
	/** Whether it is the asker's own. */
	mine: boolean;
	purpose: string;
}

/** What stands at a place for somebody who asks: their level, and what caps it there (A6). */
export interface PlaceFacts {
	/** Their level before caps; at least View, for what is not visible is not asked about (A10). */
	uncapped: Level;
	freeze: { by: string; at: Date; reason: string } | null;
	archived: boolean;
	lock: HeldLock | null;
	/** Whether it stands on a desk, where nobody has Manage. */
	onDesk: boolean;
	timeZone: string;
	now: Date;
}

/** The level that is left at a place after what caps it there. */
export function heldAt(here: PlaceFacts, past: readonly Cap[] = []): Level {
	const caps = {
		frozen: here.freeze !== null,
		archived: here.archived,
		inHand: here.lock !== null && !here.lock.mine
	};
	return capped(here.uncapped, caps, past)!;
}

/** The answer that somebody has it in hand. */
export function inHand(lock: HeldLock): Answer {
	return no('in-hand', `${lock.holder} has this in hand${lock.purpose ? ` for “${lock.purpose}”` : ''}.`, {
		holder: lock.holder,
		holderId: lock.holderId,
		since: new Date(lock.takenAt),
		purpose: lock.purpose,
		expectedEnd: lock.expectedEnd === null ? null : new Date(lock.expectedEnd)
	});
}

/** The answer to whoever looks as somebody else. */
export const lookingOnly = (): Answer =>
	no('conflict', 'You are looking as somebody else; nothing can be changed. End that first.', {
		trying: true
	});

/**
 * Whether somebody may do at a place what needs a level there; if not, why: it was not given, or a lock or a freeze
 * that stands there caps it.
 * @param past caps that do not count for what is asked
 */
export function mayHere(needed: Level, here: PlaceFacts, past: readonly Cap[] = []): Answer {
	const held = heldAt(here, past);
	if (allows(held, needed)) return yes;
	if (here.lock && allows(heldAt(here, [...past, 'inHand']), needed)) return inHand(here.lock);
	if (here.freeze && allows(here.uncapped, needed) && rank(held) < rank(needed)) {
		const { by, at, reason } = here.freeze;
		const since = dayWordsOf(at, here.timeZone, here.now);
		return no('frozen', `Frozen by ${by} since ${since}: ${ended(reason)} Nothing was changed.`, {
			by,
			since: at,
			reason
		});
	}
	if (here.onDesk && needed === 'manage')
		return no(
			'needs-level',
			'This stands on a desk, which is one person’s own: nobody else is let in. Move to a shelf what others need.',
			{ needed, held }
		);
	return no('needs-level', `This needs ${levelLabel(needed)} here; you have ${levelLabel(held)}.`, {
		needed,
		held
	});
}
