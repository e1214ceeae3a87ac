import type * as z from 'zod/mini';
import { releaseNumber } from '../releases';

/**
 * Parts of the application that show something of what happened; pages ask again for theirs. `places` are shelves,
 * folders and what lies in them; `previews` come without an event.
 */
export const AREAS = [
	'access',
	'arrivals',
	'documents',
	'in-hand',
	'openings',
	'passes',
	'people',
	'places',
	'previews',
	'project',
	'register',
	'releases',
	'remarks'
] as const;
export type Area = (typeof AREAS)[number];

/** How days and moments are written where a sentence is read. */
export interface TimeWords {
	day(at: string): string;
	moment(at: string): string;
}

/**
 * Details of events that name places other than the one an event happened at. Who reads the event may look at that
 * place, and perhaps not at these (rule A10).
 */
interface Named {
	/** The detail that holds the id of the place, or a list of ids. */
	id: string;
	/** The detail that says its name; none where only the id is kept. */
	name?: string;
}

/** A kind of event: what is written of it, what it says, and whom it concerns. */
export interface EventKind<K extends string = string, D extends z.ZodMiniObject = z.ZodMiniObject> {
	kind: K;
	/** The details as they are written today. Older events may have fewer, and are read all the same. */
	details: D;
	/** What it says, after the name of who did it. */
	says: (d: Partial<z.output<D>>, words: TimeWords) => string;
	touches: readonly Area[];
	names?: readonly Named[];
	/** The detail that holds the folder it left; whoever sees that may have lost sight of what went. */
	leaves?: keyof z.output<D> & string;
	/** Tells of reading and taking, not of a change; hidden until asked for (V5). */
	opening?: true;
}

/** Declares a kind of event. */
export function event<K extends string, D extends z.ZodMiniObject>(
	kind: K,
	rest: Omit<EventKind<K, D>, 'kind'>
): EventKind<K, D> {
	return { kind, ...rest };
}

/** The document that an event tells of, by number and label. */
export function doc(d: { number?: unknown; label?: unknown }): string {
	return d.label ? `${d.number} ${d.label}` : String(d.number ?? '');
}

/** The release that an event tells of. */
export function about(d: { number?: unknown }): string {
	return typeof d.number === 'number' ? `release ${releaseNumber(d.number)}` : '';
}

/** Tags in words; empty when there are none. */
export function tagsOf(tags: unknown): string {
	return Array.isArray(tags) ? tags.join(', ') : '';
}
