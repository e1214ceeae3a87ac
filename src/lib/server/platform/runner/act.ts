import type { z } from 'zod';
import type { Cap } from '../../../core/access/decide';
import type { Level } from '../../../core/access/levels';
import type { Reach } from '../../access/reach';
import type { Querier, Tx } from '../db';
import type { Person, Proof } from './actor';
import type { hatch, pass, place, project, release } from '../db/schema';
import type { JobName, JobData } from '../jobs/names';
import type { Services } from '../services';
import type { Told } from '../../trail/write';

export type Project = typeof project.$inferSelect;
export type Place = typeof place.$inferSelect;
export type Release = typeof release.$inferSelect;
export type Pass = typeof pass.$inferSelect;
export type Hatch = typeof hatch.$inferSelect;
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
			only?: Place['kind'][];
			/** For acts on removed places. */
			removed?: boolean;
			/**
			 * Caps (A6) that do not count here: acts that decide access or lift a cap follow the level itself, and what is
			 * handed in past a lock is kept beside the line (L5).
			 */
			past?: readonly Cap[];
	  }
	| { kind: 'project'; id: (input: I) => string; who: 'member' | 'controller' }
	| {
			kind: 'release';
			id: (input: I) => string;
			/** `route`: controllers, the builder and the approver. */
			who: 'route' | 'controller' | 'approver';
	  }
	/** The pass of a release; of a folder or document; of either, before anything was proven. */
	| { kind: 'pass'; secret: (input: I) => string }
	| { kind: 'place-pass'; secret: (input: I) => string }
	| { kind: 'any-pass'; secret: (input: I) => string }
	| { kind: 'hatch'; secret: (input: I) => string }
	| { kind: 'self' }
	| { kind: 'open' };

interface Common {
	now: Date;
	services: Services;
	newId: () => string;
}
interface InProject extends Common {
	project: Project;
}
interface AsMember extends InProject {
	/** Whoever asks; while looking as somebody, that other person. */
	person: Person;
	/** Who really asks. */
	self: Person;
	reach: Reach;
}
/** What the runner hands to an act or view, by the kind of its `at`. */
export interface ContextOf {
	place: AsMember & { place: Place; level: Level };
	project: AsMember;
	release: AsMember & { release: Release };
	pass: InProject & { pass: Pass; release: Release; proof: Proof | null };
	'place-pass': InProject & { pass: Pass; place: Place; proof: Proof | null };
	'any-pass': InProject & { pass: Pass; proof: Proof | null };
	hatch: InProject & { hatch: Hatch; place: Place };
	self: Common & { person: Person };
	open: Common;
}

/** What an act has beyond a view: a transaction, and things that happen only if it commits. */
export interface Acting {
	tx: Tx;
	/** Adds an event; it is written to the chain at the end of the transaction. */
	tell(told: Told, projectId?: string): void;
	/** Has a job done after the commit. */
	enqueue<N extends JobName>(name: N, data: JobData[N]): Promise<void>;
	/** Puts a mail in the outbox; it is sent after the commit. */
	mail(
		to: { name: string; address: string },
		subject: string,
		body: string,
		/** What of it only the addressee may read, also in the outbox: links that open something, codes. */
		secrets?: string[]
	): Promise<void>;
}

export type Method = 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** A change to a project, declared once. From it come the HTTP API, its description and the tests over all acts. */
export interface Act<
	K extends At<never>['kind'] = At<never>['kind'],
	S extends z.ZodObject = z.ZodObject,
	O = unknown
> {
	name: string;
	/** One line for the API description. */
	summary: string;
	method: Method;
	/** Path under /api/v1 with {parameters} named as in the input. */
	path: string;
	input: S;
	at: Extract<At<z.output<S>>, { kind: K }>;
	/**
	 * Notes that something was looked at, so that it goes on while one looks as somebody; the trail names both. All
	 * other acts are refused then.
	 */
	whileTrying?: boolean;
	/** Kinds of event it writes; none only for what concerns nobody but the person (a token, a password). */
	events: string[];
	/**
	 * Slow reading before the transaction opens (checking files); what it gives is handed to `run`, which
	 * has to make sure that it still holds.
	 */
	prepare?: (context: ContextOf[K] & { tx: Querier }, input: z.output<S>) => Promise<unknown>;
	run: (context: ContextOf[K] & Acting & { prepared: unknown }, input: z.output<S>) => Promise<O>;
}

/** A question to a project, declared like an act. */
export interface View<
	K extends At<never>['kind'] = At<never>['kind'],
	S extends z.ZodObject = z.ZodObject,
	O = unknown
> {
	name: string;
	summary: string;
	path: string;
	input: S;
	at: Extract<At<z.output<S>>, { kind: K }>;
	run: (context: ContextOf[K] & { db: Querier }, input: z.output<S>) => Promise<O>;
}

/** Declares an act; only there so that its types are inferred. */
export function defineAct<K extends At<never>['kind'], S extends z.ZodObject, O>(
	act: Omit<Act<K, S, O>, 'at'> & { at: Extract<At<z.output<S>>, { kind: K }> & { kind: K } }
): Act<K, S, O> {
	return act;
}

export function defineView<K extends At<never>['kind'], S extends z.ZodObject, O>(
	view: Omit<View<K, S, O>, 'at'> & { at: Extract<At<z.output<S>>, { kind: K }> & { kind: K } }
): View<K, S, O> {
	return view;
}
