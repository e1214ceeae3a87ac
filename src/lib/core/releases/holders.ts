/** Who holds which revision of a document, and how they came by it (rule T12). */

/** How somebody came by a revision: it was sent to them, they took the file, or only opened it on screen. */
export const HANDED = ['sent', 'downloaded', 'opened'] as const;

/** A revision in somebody's hands. Moments are ISO 8601. */
export interface Handing {
	label: string;
	/** Its place among the versions of the document, from 1. */
	seq: number;
	way: (typeof HANDED)[number];
	at: string;
	/** The release by which it came; null where a pass to a place, or an account, gave it. */
	release: number | null;
	/** When receipt of that release was confirmed; null where it was not. */
	confirmed: string | null;
}

/**
 * What somebody holds of a document: `current` when nothing newer is issued and they confirmed it or took it themselves,
 * `unconfirmed` when nothing newer is issued and nothing tells that it arrived, `old` when something newer is.
 */
export const HOLDINGS = ['current', 'unconfirmed', 'old'] as const;
export interface Holding {
	label: string;
	state: (typeof HOLDINGS)[number];
}

/**
 * The revision of a document that somebody holds: the newest that was sent to them or that they took. What one only
 * opened on screen, one does not hold.
 * @param issued place among the versions of the newest issued revision; null where none is
 * @returns null where they hold none
 */
export function holdingOf(handings: readonly Handing[], issued: number | null): Holding | null {
	const held = handings.filter((one) => one.way !== 'opened');
	if (!held.length) return null;
	const newest = held.reduce((a, b) => (b.seq > a.seq ? b : a));
	const arrived = held.some(
		(one) => one.seq === newest.seq && (one.way === 'downloaded' || one.confirmed !== null)
	);
	const old = issued !== null && newest.seq < issued;
	return { label: newest.label, state: old ? 'old' : arrived ? 'current' : 'unconfirmed' };
}

export const HOLDING_LABEL: Record<Holding['state'], string> = {
	current: 'newest, confirmed or taken',
	unconfirmed: 'newest, not confirmed',
	old: 'holds an old one'
};
