import type { Letter } from '../../../core/mail/letter';
import type { z } from 'zod';
import type { ActContract, Kind, ViewContract } from '../../../contract/act';
import type { Level } from '../../../core/access/levels';
import type { Reach } from '../../access/reach';
import type { Querier, Tx } from '../db';
import type { Person, Proof } from './actor';
import type { hatch, pass, place, project, release } from '../db/schema';
import type { JobName, JobData } from '../jobs/names';
import type { Services } from '../services';
import type { Held } from './held';
import type { NewEvent } from '../../trail/write';

export type Project = typeof project.$inferSelect;
export type Place = typeof place.$inferSelect;
export type Release = typeof release.$inferSelect;
export type Pass = typeof pass.$inferSelect;
type Hatch = typeof hatch.$inferSelect;

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
	/** The document is held: nobody else changes it until the act has ended. */
	document: AsMember & { place: Place; level: Level; document: Held };
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
	tell(told: NewEvent, projectId?: string): void;
	/** Has a job done after the commit. */
	enqueue<N extends JobName>(name: N, data: JobData[N]): Promise<void>;
	/** Puts a mail in the outbox; it is sent after the commit. */
	mail(
		to: { name: string; address: string },
		subject: string,
		letter: Letter,
		/** What of it only the addressee may read, also in the outbox: links that open something, codes. */
		secrets?: string[]
	): Promise<void>;
}

/** An act as the server does it: its contract, and the function that does it. */
export interface Act<
	K extends Kind = Kind,
	S extends z.ZodObject = z.ZodObject,
	O extends z.ZodType = z.ZodType
> extends ActContract<K, S, O> {
	/**
	 * Slow reading before the transaction opens (checking files); what it gives is handed to `run`, which
	 * has to make sure that it still holds.
	 */
	prepare?: (context: ContextOf[K] & { tx: Querier }, input: z.output<S>) => Promise<unknown>;
	run: (context: ContextOf[K] & Acting & { prepared: unknown }, input: z.output<S>) => Promise<z.input<O>>;
}

/** A view as the server answers it. */
export interface View<
	K extends Kind = Kind,
	S extends z.ZodObject = z.ZodObject,
	O extends z.ZodType = z.ZodType
> extends ViewContract<K, S, O> {
	run: (context: ContextOf[K] & { db: Querier }, input: z.output<S>) => Promise<z.input<O>>;
}

/** Says how an act of the contract is done. */
export function does<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	contract: ActContract<K, S, O>,
	how: Pick<Act<K, S, O>, 'prepare' | 'run'>
): Act<K, S, O> {
	return { ...contract, ...how };
}

/** Says how a view of the contract is answered. */
export function answers<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	contract: ViewContract<K, S, O>,
	how: Pick<View<K, S, O>, 'run'>
): View<K, S, O> {
	return { ...contract, ...how };
}
