import { createStore, del, get, update } from 'idb-keyval';
import * as Y from 'yjs';
import { KEPT } from './kept';

/** What the server did not take of a live document: all that the browser held of it then. */
export interface Refused {
	/** The sentence the server said. */
	why: string;
	/** When, as ISO 8601. */
	at: string;
	/** State of the document in this browser, as Yjs encodes it. */
	held: Uint8Array;
	/** The same as JSON, for people; one for each time that something was refused. */
	copies: unknown[];
}

/** Its name begins like those of the other things that are forgotten at signing out. */
const store = () => createStore(`${KEPT}-refused`, 'copies');

/**
 * Keeps what the server refused of a document until its author has dealt with it, together with what was refused
 * before. Gives all of it.
 */
export async function keepRefused(key: string, doc: Y.Doc, why: string): Promise<Refused> {
	const refused = {
		why,
		at: new Date().toISOString(),
		held: Y.encodeStateAsUpdate(doc),
		copies: [doc.toJSON()]
	};
	let all: Refused = refused;
	await update<Refused>(
		key,
		(before) => {
			if (before)
				all = {
					...refused,
					held: Y.mergeUpdates([before.held, refused.held]),
					copies: [...before.copies, ...refused.copies]
				};
			return all;
		},
		store()
	);
	return all;
}

export const refusedOf = (key: string): Promise<Refused | undefined> => get<Refused>(key, store());
export const dropRefused = (key: string): Promise<void> => del(key, store());
