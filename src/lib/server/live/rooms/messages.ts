import * as decoding from 'lib0/decoding';

/**
 * What a message from a browser asks for, before anything acts on it. The numbers are those of the y-protocols sync and
 * awareness protocols as the room server frames them.
 */
export type Message =
	/** Asks for what the browser does not have yet. */
	| { kind: 'ask' }
	/** Brings changes; `resync` when it is all that the server does not have. */
	| { kind: 'change'; update: Uint8Array; resync: boolean }
	/** Says where the browser's cursor stands. */
	| { kind: 'presence'; states: Presence[]; strike: () => void }
	/** Asks where the others' cursors stand. */
	| { kind: 'ask-presence' }
	| { kind: 'goodbye' }
	| { kind: 'sign-in' }
	/** Anything else; rooms do not know it. */
	| { kind: 'other' };

/** Where one browser's cursor stands; null when it left. A higher clock takes the place of a lower one. */
export interface Presence {
	client: number;
	clock: number;
	state: unknown;
}

const SYNC = 0;
const AWARENESS = 1;
const AUTH = 2;
const QUERY_AWARENESS = 3;
const SYNC_REPLY = 4;
const CLOSE = 7;

/** Reads a message. Raises an Error for bytes that are no message. */
export function readMessage(bytes: Uint8Array): Message {
	const decoder = decoding.createDecoder(bytes);
	decoding.readVarString(decoder);
	const type = decoding.readVarUint(decoder);
	switch (type) {
		case SYNC:
		case SYNC_REPLY: {
			const step = decoding.readVarUint(decoder);
			if (step === 0) return { kind: 'ask' };
			if (step === 1 || step === 2)
				return { kind: 'change', update: decoding.readVarUint8Array(decoder), resync: step === 1 };
			return { kind: 'other' };
		}
		case AWARENESS: {
			// A view on the message's own bytes: without its first byte, the number of entries, it says nothing.
			const said = decoding.readVarUint8Array(decoder);
			const inner = decoding.createDecoder(said);
			const states: Presence[] = [];
			for (let n = decoding.readVarUint(inner); n > 0; n--)
				states.push({
					client: decoding.readVarUint(inner),
					clock: decoding.readVarUint(inner),
					state: JSON.parse(decoding.readVarString(inner)) as unknown
				});
			return { kind: 'presence', states, strike: () => said.fill(0) };
		}
		case AUTH:
			return { kind: 'sign-in' };
		case QUERY_AWARENESS:
			return { kind: 'ask-presence' };
		case CLOSE:
			return { kind: 'goodbye' };
		default:
			return { kind: 'other' };
	}
}
