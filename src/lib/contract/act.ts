import { z } from 'zod';
import type { Cap } from '../core/access/decide';
import type { Level } from '../core/access/levels';
import type { Rule } from '../core/documents/may';
import type { PlaceRule } from '../core/places/may';
import type { ReleaseRole, ReleaseRule } from '../core/releases/may';

/** What a place is. */
export const PLACE_KINDS = ['shelf', 'folder', 'document'] as const;
type PlaceKind = (typeof PLACE_KINDS)[number];

/**
 * Where an act or view happens, and who may: the runner finds the place and decides before anything runs.
 * What is not visible to the person answers as if it did not exist (A10).
 */
export type At<I> =
	| {
			kind: 'place';
			id: (input: I) => string;
			level: Level;
			/** The kinds of place it is for; all when left out. */
			only?: PlaceKind[];
			/** For acts on removed places. */
			removed?: boolean;
			/**
			 * Caps (A6) that do not count here: acts that decide access or lift a cap follow the level itself, and what is
			 * handed in past a lock is kept beside the line (L5).
			 */
			past?: readonly Cap[];
			/** Asked of the place before anything runs. */
			asks?: PlaceRule;
			/** Asked of a document before anything runs. */
			applies?: Rule;
	  }
	/**
	 * A document whose row is held while the act runs, so that what `applies` answered still holds then. For acts only;
	 * views are at a `place`.
	 */
	| {
			kind: 'document';
			id: (input: I) => string;
			level: Level;
			past?: readonly Cap[];
			applies: Rule;
	  }
	| { kind: 'project'; id: (input: I) => string; who: 'member' | 'controller' }
	| {
			kind: 'release';
			id: (input: I) => string;
			who: ReleaseRole;
			/** Asked before anything runs; the release's row is then held while the act runs. For acts only. */
			applies?: ReleaseRule;
	  }
	/** The pass of a release; of a folder or document; of either, before anything was proven. */
	| { kind: 'pass'; secret: (input: I) => string }
	| { kind: 'place-pass'; secret: (input: I) => string }
	| { kind: 'any-pass'; secret: (input: I) => string }
	| { kind: 'hatch'; secret: (input: I) => string }
	| { kind: 'self' }
	| { kind: 'open' };

export type Kind = At<never>['kind'];
export type Method = 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** What acts and views have in common: plain data, shared by pages, server, API description and tests. */
interface Declared<K extends Kind, S extends z.ZodObject, O extends z.ZodType> {
	name: string;
	/** One line for the API description. */
	summary: string;
	/** Path under /api/v1 with {parameters} named as in the input. */
	path: string;
	/** Strict: a field nobody knows is refused. */
	input: S;
	/** What is answered, as it travels: moments as text. Held against every answer in the tests. */
	output: O;
	at: Extract<At<z.output<S>>, { kind: K }>;
}

/** A change to a project. */
export interface ActContract<
	K extends Kind = Kind,
	S extends z.ZodObject = z.ZodObject,
	O extends z.ZodType = z.ZodType
> extends Declared<K, S, O> {
	method: Method;
	/** Kinds of event it writes; none only for what concerns nobody but the person (a token, a password). */
	events: string[];
	/**
	 * Notes that something was looked at, so that it goes on while one looks as somebody; the trail names both. All
	 * other acts are refused then.
	 */
	whileTrying?: boolean;
}

/** A question to a project. */
export type ViewContract<
	K extends Kind = Kind,
	S extends z.ZodObject = z.ZodObject,
	O extends z.ZodType = z.ZodType
> = Declared<K, S, O>;

/** Declares an act; only there so that its types are inferred. */
export function act<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	contract: Omit<ActContract<K, S, O>, 'at'> & {
		at: Extract<At<z.output<S>>, { kind: K }> & { kind: K };
	}
): ActContract<K, S, O> {
	return contract;
}

/** Declares a view. */
export function view<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	contract: Omit<ViewContract<K, S, O>, 'at'> & {
		at: Extract<At<z.output<S>>, { kind: K }> & { kind: K };
	}
): ViewContract<K, S, O> {
	return contract;
}

/** The answer of an act that has nothing to tell but that it was done. */
export const done = z.strictObject({});
