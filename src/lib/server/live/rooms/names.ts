import { LIVE_KINDS, type LiveKind } from '../../../core/live/live';

/**
 * A room is what several edit at once: a live document, or the marks on one version. Every time a document begins to be
 * worked on live it is a new room, so that what a browser still holds of an earlier one is never mixed in.
 */
export type RoomName =
	/** `time`: id of this time of editing together. */
	{ kind: LiveKind; document: string; time: string } | { kind: 'marks'; document: string; label: string };

export function nameOf(room: RoomName): string {
	return `${room.kind}/${room.document}/${room.kind === 'marks' ? room.label : room.time}`;
}

/** The room that a name means, or null for anything else. */
export function roomOf(name: string): RoomName | null {
	const [, kind, document, last] = /^([a-z]+)\/([a-z0-9]{10})\/([A-Za-z0-9.]{1,20})$/.exec(name) ?? [];
	if (kind === 'marks') return { kind, document: document!, label: last! };
	const live = LIVE_KINDS.find((one) => one === kind);
	return live && /^[a-z0-9]{10}$/.test(last!) ? { kind: live, document: document!, time: last! } : null;
}
