import canonicalize from 'canonicalize';

/** An event as it is hashed (rules V1, V2). Times are ISO 8601 in UTC. */
export interface ChainedEvent {
	seq: number;
	at: string;
	actor: string | null;
	kind: string;
	place: string | null;
	document: string | null;
	release: string | null;
	details: unknown;
}

/** The hash before the first event of a project. */
export const GENESIS = '0'.repeat(64);

/** The text that is hashed: canonical JSON (RFC 8785) of the previous hash and the event. */
export function chainInput(previous: string, event: ChainedEvent): string {
	const text = canonicalize({ previous, ...event });
	if (text === undefined) throw new TypeError('An event must be representable as JSON');
	return text;
}

export type Sha256 = (text: string) => string;

/** The first fault of a chain, or null: an entry missing, out of order, or changed after it was written. */
export function firstFault(
	events: Iterable<ChainedEvent & { previous: string; hash: string }>,
	sha256: Sha256,
	start: { seq: number; hash: string } = { seq: 0, hash: GENESIS }
): { seq: number; sentence: string } | null {
	let { seq, hash } = start;
	for (const { previous, hash: written, ...event } of events) {
		if (event.seq !== seq + 1) {
			return { seq: seq + 1, sentence: `Entry ${seq + 1} is missing; the next one found is ${event.seq}.` };
		}
		if (previous !== hash) {
			return { seq: event.seq, sentence: `Entry ${event.seq} does not follow the entry before it.` };
		}
		if (sha256(chainInput(previous, event)) !== written) {
			return { seq: event.seq, sentence: `Entry ${event.seq} was changed after it was written.` };
		}
		({ seq } = event);
		hash = written;
	}
	return null;
}
