import * as access from './access';
import * as documents from './documents';
import type { Area, EventKind, TimeWords } from './event';
import * as live from './live';
import * as locks from './locks';
import * as passes from './passes';
import * as places from './places';
import * as project from './project';
import * as register from './register';
import * as releases from './releases';
import * as remarks from './remarks';

const ROOMS = {
	...access,
	...documents,
	...live,
	...locks,
	...passes,
	...places,
	...project,
	...register,
	...releases,
	...remarks
};
type Events = (typeof ROOMS)[keyof typeof ROOMS];

/** Every kind of event that is written today. */
export type KindOfEvent = Events['kind'];
/** What is written of an event of a kind. */
export type DetailsOf<K extends KindOfEvent> = Extract<Events, { kind: K }>['details']['_zod']['output'];

const CATALOGUE: ReadonlyMap<string, EventKind> = new Map(
	Object.values(ROOMS).map((one) => [one.kind, one as unknown as EventKind])
);

/** Every kind of event, in the order of the alphabet. */
export const EVENTS: readonly EventKind[] = [...CATALOGUE.values()].sort((a, b) =>
	a.kind < b.kind ? -1 : 1
);

/** A kind of event by its name; undefined for one that nobody knows any more. */
export const eventOf = (kind: string): EventKind | undefined => CATALOGUE.get(kind);

/** Kinds of event that tell of reading and taking, not of changes; hidden until asked for (V5). */
export const OPENINGS: string[] = EVENTS.filter((one) => one.opening).map((one) => one.kind);

/** The kinds that tell of one thing (documents, locks, remarks …): what stands before their point. */
export const kindsAbout = (what: string): string[] =>
	EVENTS.filter((one) => one.kind.split('.')[0] === what).map((one) => one.kind);

/** The kinds that concern any of these parts of the application. */
export const kindsTouching = (...areas: Area[]): string[] =>
	EVENTS.filter((one) => one.touches.some((area) => areas.includes(area))).map((one) => one.kind);

/** Kinds of event after which something lies elsewhere than it did, with the detail that holds the folder it left. */
export const LEAVING: ReadonlyMap<string, string> = new Map(
	EVENTS.flatMap(({ kind, leaves }) => (leaves ? [[kind, leaves] as const] : []))
);

/** What an event says, after the name of who did it. What is not known any more is told by its kind. */
export function eventText(
	{ kind, details }: { kind: string; details: Record<string, unknown> },
	words: TimeWords
): string {
	return eventOf(kind)?.says(details, words) ?? kind;
}

type Details = Record<string, unknown>;

function idsIn(value: unknown): string[] {
	return Array.isArray(value) ? value.map(String) : typeof value === 'string' ? [value] : [];
}

/** Ids of the other places that an event's details name. */
export function placesNamed(kind: string, details: Details): string[] {
	return (eventOf(kind)?.names ?? []).flatMap(({ id }) => idsIn(details[id]));
}

/**
 * The details of an event as somebody may read them: without the names and ids of places they may not look at. Older
 * events say a name without its id; then nobody can tell whether it may be read, and it is left out.
 * @param sees whether the reader may look at a place
 */
export function readableDetails(kind: string, details: Details, sees: (placeId: string) => boolean): Details {
	const named = eventOf(kind)?.names;
	if (!named) return details;
	const readable = { ...details };
	for (const { id, name } of named) {
		const ids = idsIn(details[id]);
		if (ids.length && ids.every(sees)) continue;
		delete readable[id];
		if (name) delete readable[name];
	}
	return readable;
}
