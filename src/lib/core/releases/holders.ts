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
export type Holding = (typeof HOLDINGS)[number];

/** The newest revision of a document that somebody was sent or took, and whether anything tells that it arrived. */
export interface Held {
	label: string;
	/** Its place among the versions of the document, from 1. */
	seq: number;
	arrived: boolean;
}

/**
 * What somebody holds of a document after one more handing, in whatever order handings are told. What one only opened on
 * screen, one does not hold.
 * @param held what they held without it; undefined where they held nothing
 */
export function heldAfter(
	held: Held | undefined,
	{ label, seq }: Pick<Handing, 'label' | 'seq'>,
	way: Handing['way'],
	confirmed: boolean
): Held | undefined {
	if (way === 'opened' || (held && seq < held.seq)) return held;
	const arrived = way === 'downloaded' || confirmed;
	return held?.seq === seq && (held.arrived || !arrived) ? held : { label, seq, arrived };
}

/**
 * How what somebody holds stands to what is issued.
 * @param issued place among the versions of the newest issued revision; null where none is
 */
export function stateOf({ seq, arrived }: Held, issued: number | null): Holding {
	if (issued !== null && seq < issued) return 'old';
	return arrived ? 'current' : 'unconfirmed';
}

export const HOLDING_LABEL: Record<Holding, string> = {
	current: 'newest, confirmed or taken',
	unconfirmed: 'newest, not confirmed',
	old: 'holds an old one'
};
