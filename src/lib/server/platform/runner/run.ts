import type { z } from 'zod';
import { allows } from '../../../core/access/levels';
import { Problem } from '../../../core/acts/problem';
import { ordinaryLevel } from '../../access/reach';
import type { Querier, Tx } from '../db';
import { newId } from '../ids';
import { AWAY_PROBLEM, databaseIsAway } from '../http/away';
import { putMail } from '../mail/put';
import type { Services } from '../services';
import { writeEvents, type EventActor, type NewEvent } from '../../trail/write';
import { passActor, type Actor, type Person, type Proof } from './actor';
import type { At, Kind } from '../../../contract/act';
import type { Act, Acting, ContextOf, Project, View } from './act';
import { checkedAnswer, checkEvent } from './answer';
import { parseInput } from './input';
import { locate } from './locate';

type AnyAct = Act<never, never>;

/** The clock and the source of ids; the demo world sets its own. */
export interface RunOptions {
	now?: Date;
	newId?: () => string;
	/** What the holder of a pass has proven in this browser. */
	proofs?: readonly Proof[];
}

/** What PostgreSQL refuses, in the words of the rules. */
const CONSTRAINTS: Record<string, string> = {
	place_live_name: 'Something with this name is already here.',
	document_number: 'This number is taken already.',
	person_email: 'Somebody with this mail address is already known.',
	person_email_unique: 'Somebody with this mail address is already known.',
	department_code: 'A department with this code already exists.',
	recipient_email: 'This mail address is already on the distribution list.',
	project_code_unique: 'A project with this code already exists.',
	lock_one_open: 'Somebody else took this in hand a moment ago.',
	version_label: 'Somebody else handed in a version a moment ago. Look at it, then try again.',
	version_seq: 'Somebody else handed in a version a moment ago. Look at it, then try again.'
};

interface PgError {
	code?: string;
	constraint_name?: string;
}

function pgError(error: unknown): PgError | null {
	const cause = (error as { cause?: unknown })?.cause ?? error;
	return typeof (cause as PgError)?.code === 'string' ? (cause as PgError) : null;
}

function translate(error: unknown): unknown {
	if (databaseIsAway(error)) return AWAY_PROBLEM();
	const pg = pgError(error);
	if (pg?.code === '23505')
		return new Problem('conflict', CONSTRAINTS[pg.constraint_name ?? ''] ?? 'This exists already.');
	if (pg?.code === '53100' || pg?.code === 'ENOSPC')
		return new Problem(
			'full',
			'The disk of the server is full. Nothing was changed; tell whoever looks after it.'
		);
	// Text with a null byte, or a number past its type, never fits.
	if (['22021', '22P05', '22003', '22P02'].includes(pg?.code ?? ''))
		return new Problem('invalid', 'The input holds something that cannot be kept.');
	return error;
}

/** Deadlocks and serialisation failures are worth another try; nothing was changed by the first. */
function worthRetrying(error: unknown): boolean {
	return ['40P01', '40001'].includes(pgError(error)?.code ?? '');
}

/**
 * Runs an act: parse, find the place, decide access, run in one transaction, write the events, commit. There is
 * no other way to change a project. Raises {@link Problem} for everything a person can mend.
 */
export async function runAct<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	services: Services,
	act: Act<K, S, O>,
	actor: Actor,
	raw: unknown,
	options: RunOptions = {}
): Promise<z.output<O>> {
	const any = act as unknown as AnyAct;
	const input = parseInput(act.input, raw);
	const now = options.now ?? new Date();
	const common = { now, services, newId: options.newId ?? newId };
	const { db, acting: pool } = services.database;
	const asked = {
		actor,
		now,
		method: act.method,
		whileTrying: act.whileTrying ?? false,
		proofs: options.proofs ?? []
	};
	let prepared: unknown;
	if (any.prepare) {
		const here = await locate(db, any.at as At<unknown>, input, asked).catch((error: unknown) => {
			throw translate(error);
		});
		const context = { ...here, ...common, tx: db };
		prepared = await any.prepare(context as never, input as never);
	}
	for (let attempt = 1; ; attempt++) {
		try {
			return await pool.transaction(async (tx) => {
				const context = await locate(tx, any.at as At<unknown>, input, asked);
				const acting = actingIn(
					tx,
					act,
					context,
					common,
					services,
					await usesPower(tx, any.at, context, now)
				);
				const result = await any.run(
					{ ...context, ...common, ...acting.acting, prepared } as never,
					input as never
				);
				await acting.finish(actorOf(actor, context));
				return checkedAnswer(act, result);
			});
		} catch (error) {
			if (worthRetrying(error) && attempt < 4) continue;
			throw translate(error);
		}
	}
}

/** Whether a controller may do this here only because controllers may everywhere (A5). */
async function usesPower(
	tx: Tx,
	at: At<never>,
	context: Record<string, unknown>,
	now: Date
): Promise<boolean> {
	if (at.kind !== 'place' && at.kind !== 'document') return false;
	const { reach, place } = context as unknown as ContextOf['place'];
	if (!reach.subject.controller) return false;
	return !allows(await ordinaryLevel(tx, reach, place, now), at.level);
}

function actorOf(actor: Actor, context: Record<string, unknown>): EventActor {
	const holder = context.pass as { id: string; holderName: string } | undefined;
	if (holder) return passActor(holder, context.proof as Proof | null | undefined);
	const open = context.hatch as { id: string; title: string } | undefined;
	if (open) return { id: `hatch:${open.id}`, name: open.title };
	return actor ? { id: actor.person.id, name: actor.person.name } : { id: null, name: 'Cupboard' };
}

function actingIn(
	tx: Tx,
	act: Pick<Act, 'name' | 'events'>,
	context: Record<string, unknown>,
	common: { now: Date; newId: () => string },
	services: Services,
	power: boolean
) {
	const { person, self } = context as { person?: Person; self?: Person };
	const more = {
		...(power ? { power } : {}),
		...(self && person && self.id !== person.id ? { as: person.name } : {})
	};
	const here = (context.project as Project | undefined)?.id;
	const told = new Map<string, (NewEvent & { noted: typeof more })[]>();
	const acting: Acting = {
		tx,
		tell(one, projectId = here) {
			if (!projectId) throw new Error('An event needs a project');
			checkEvent(act, one);
			told.set(projectId, [...(told.get(projectId) ?? []), { ...one, noted: more }]);
		},
		enqueue: (name, data) => services.jobs.enqueue(tx, name, data),
		async mail(to, subject, letter, secrets = []) {
			const projectId = here ?? null;
			await putMail(tx, services, { projectId, to, subject, letter, secrets, now: common.now });
		}
	};
	return {
		acting,
		async finish(actor: EventActor) {
			for (const [projectId, list] of told) await writeEvents(tx, projectId, common.now, actor, list);
		}
	};
}

/** Answers a view for an actor. Raises {@link Problem} as {@link runAct} does. */
export async function readView<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	services: Services,
	view: View<K, S, O>,
	actor: Actor,
	raw: unknown,
	options: RunOptions = {}
): Promise<z.output<O>> {
	const input = parseInput(view.input, raw);
	const now = options.now ?? new Date();
	const { db } = services.database;
	const context = await locate(db, view.at as At<unknown>, input, {
		actor,
		now,
		method: 'GET',
		proofs: options.proofs ?? []
	}).catch((error: unknown) => {
		throw translate(error);
	});
	const answer = await view
		.run({ ...context, now, services, newId, db } as unknown as ContextOf[K] & { db: Querier }, input)
		.catch((error: unknown) => {
			throw translate(error);
		});
	return checkedAnswer(view, answer);
}
