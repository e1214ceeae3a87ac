/**
 * A room is what several edit at once: the text of a live document, or the marks on one version. Every time a text
 * begins to be worked on live it is a new room, so that what a browser still holds of an earlier one is never mixed in.
 */
export type RoomName =
	/** `time`: id of this time of working live. */
	{ kind: 'text'; document: string; time: string } | { kind: 'marks'; document: string; label: string };

export function nameOf(room: RoomName): string {
	return `${room.kind}/${room.document}/${room.kind === 'text' ? room.time : room.label}`;
}

/** The room that a name means, or null for anything else. */
export function roomOf(name: string): RoomName | null {
	const [, text, time] = /^text\/([a-z0-9]{10})\/([a-z0-9]{10})$/.exec(name) ?? [];
	if (text) return { kind: 'text', document: text, time: time! };
	const [, document, label] = /^marks\/([a-z0-9]{10})\/([A-Za-z0-9.]{1,20})$/.exec(name) ?? [];
	return document ? { kind: 'marks', document, label: label! } : null;
}
