/**
 * A room is what several edit at once: so far the text of a live document. Every time a document begins to be worked on
 * live it is a new room, so that what a browser still holds of an earlier one is never mixed into it.
 */
export interface RoomName {
	kind: 'text';
	document: string;
	/** Id of this time of working live. */
	time: string;
}

export function nameOf({ kind, document, time }: RoomName): string {
	return `${kind}/${document}/${time}`;
}

/** The room that a name means, or null for anything else. */
export function roomOf(name: string): RoomName | null {
	const found = /^(text)\/([a-z0-9]{10})\/([a-z0-9]{10})$/.exec(name);
	return found ? { kind: found[1] as 'text', document: found[2]!, time: found[3]! } : null;
}
