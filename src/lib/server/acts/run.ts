import { eq, or, sql } from 'drizzle-orm';
import type { z } from 'zod';
import { capped } from '../../core/access/decide';
import { allows, levelLabel } from '../../core/access/levels';
import { Problem } from '../../core/problem';
import { live, loadReach, loadSubject } from '../access';
import type { Querier, Tx } from '../db';
import { document, mail, pass, place, project, release } from '../db/schema';
import { ID_LENGTH, newId, secretHash } from '../ids';
import type { Services } from '../services';
import { writeEvents, type Teller, type Told } from '../trail';
import type { Act, Acting, Actor, At, ContextOf, Person, Project, View } from './act';

type AnyAct = Act<never, never, unknown>;
type Kind = At<never>['kind'];

/** The clock and the source of ids; the demo world sets its own. */
export interface Circumstances {
	now?: Date;
	newId?: () => string;
}

const NOT_FOUND = () => new Problem('not-found', 'There is nothing here, or nothing that you may look at.');

function parse<S extends z.ZodObject>(schema: S, raw: unknown): z.output<S> {
	const result = schema.safeParse(raw);
	if (result.success) return result.data;
	const faults = result.error.issues.map((i) => ({ field: i.path.join('.'), sentence: i.message }));
	const first = faults[0];
	throw new Problem(
		'invalid',
		first ? (first.field ? `${first.field}: ${first.sentence}` : first.sentence) : 'The input does not fit.',
		{ faults }
	);
}

function signedIn(actor: Actor): Person {
	if (!actor) throw new Problem('needs-sign-in', 'Sign in first.');
	return actor.person;
}

async function asMember(db: Querier, actor: Actor, found: Project | undefined, now: Date) {
	const person = signedIn(actor);
	if (!found) throw NOT_FOUND();
	const subject = await loadSubject(db, found.id, person.id);
	if (!subject) throw NOT_FOUND();
	return { person, project: found, reach: await loadReach(db, subject, now) };
}

/** Finds the place of an act or view and decides whether the actor may (A2 to A6, A10). */
async function locate<I>(
	db: Querier,
	at: At<I>,
	input: I,
	actor: Actor,
	now: Date
): Promise<Record<string, unknown>> {
	const projectOf = async (id: string) =>
		(
			await db
				.select()
				.from(project)
				.where(or(eq(project.id, id), eq(project.code, id.toUpperCase())))
		)[0];
	switch (at.kind) {
		case 'open':
			return {};
		case 'self':
			return { person: signedIn(actor) };
		case 'project': {
			const context = await asMember(db, actor, await projectOf(at.id(input)), now);
			if (at.who === 'controller' && !context.reach.subject.controller) {
				throw new Problem('needs-level', 'Only a document controller of the project can do this.');
			}
			return context;
		}
		case 'place': {
			signedIn(actor);
			const [row] = await db
				.select({ place, state: document.state })
				.from(place)
				.leftJoin(document, eq(document.id, place.id))
				.where(eq(place.id, at.id(input)));
			if (!row || (row.place.removalId !== null) !== (at.removed ?? false)) throw NOT_FOUND();
			const context = await asMember(db, actor, await projectOf(row.place.projectId), now);
			const held = capped(context.reach.level(row.place.scope), {
				frozen: false,
				archived: row.state === 'archived'
			});
			if (!allows(held, 'look')) throw NOT_FOUND();
			if (at.only && !at.only.includes(row.place.kind)) throw NOT_FOUND();
			if (!allows(held, at.level)) {
				throw new Problem(
					'needs-level',
					`This needs ${levelLabel(at.level)} here; you have ${levelLabel(held!)}.`,
					{
						needed: at.level,
						held
					}
				);
			}
			return { ...context, place: row.place, level: held };
		}
		case 'release': {
			signedIn(actor);
			const [row] = await db
				.select()
				.from(release)
				.where(eq(release.id, at.id(input)));
			if (!row) throw NOT_FOUND();
			const context = await asMember(db, actor, await projectOf(row.projectId), now);
			const controller = context.reach.subject.controller;
			const approver = row.approverId === context.person.id && row.state !== 'building';
			if (!controller && !approver) throw NOT_FOUND();
			if (at.who === 'controller' && !controller)
				throw new Problem('needs-level', 'Only a document controller of the project can do this.');
			if (at.who === 'approver' && row.approverId !== context.person.id) {
				throw new Problem('needs-level', 'Only the person asked for approval can do this.');
			}
			return { ...context, release: row };
		}
		case 'pass': {
			const [row] = await db
				.select()
				.from(pass)
				.where(eq(pass.secretHash, secretHash(at.secret(input))));
			if (!row)
				throw new Problem('not-found', 'This pass does not exist. Check that the whole link was copied.');
			const about = (await db.select().from(release).where(eq(release.id, row.releaseId)))[0]!;
			if (row.withdrawnAt)
				throw new Problem('not-found', 'This pass was withdrawn. Ask the sender for a new one.', {
					withdrawn: true
				});
			if (row.endsAt <= now)
				throw new Problem('not-found', 'This pass has ended. Ask the sender for a new one.', {
					ended: row.endsAt
				});
			return { pass: row, release: about, project: (await projectOf(row.projectId))! };
		}
	}
}

/** What PostgreSQL refuses, in the words of the rules. */
const CONSTRAINTS: Record<string, string> = {
	place_live_name: 'Something with this name is already here.',
	document_number: 'This number is already in use.',
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
export async function runAct<K extends Kind, S extends z.ZodObject, O>(
	services: Services,
	act: Act<K, S, O>,
	actor: Actor,
	raw: unknown,
	circumstances: Circumstances = {}
): Promise<O> {
	const any = act as unknown as AnyAct;
	const input = parse(act.input, raw);
	const now = circumstances.now ?? new Date();
	const common = { now, services, newId: circumstances.newId ?? newId };
	const { db } = services.database;
	let prepared: unknown;
	if (any.prepare) {
		const context = { ...(await locate(db, any.at as At<unknown>, input, actor, now)), ...common, tx: db };
		prepared = await any.prepare(context as never, input as never);
	}
	for (let attempt = 1; ; attempt++) {
		try {
			return await db.transaction(async (tx) => {
				const context = await locate(tx, any.at as At<unknown>, input, actor, now);
				const acting = actingIn(tx, context, common, services);
				const result = await any.run(
					{ ...context, ...common, ...acting.acting, prepared } as never,
					input as never
				);
				await acting.finish(tellerOf(actor, context));
				return result as O;
			});
		} catch (error) {
			if (worthRetrying(error) && attempt < 4) continue;
			throw translate(error);
		}
	}
}

function tellerOf(actor: Actor, context: Record<string, unknown>): Teller {
	const holder = context.pass as { id: string; holderName: string } | undefined;
	if (holder) return { id: `pass:${holder.id}`, name: holder.holderName };
	return actor ? { id: actor.person.id, name: actor.person.name } : { id: null, name: 'Cupboard' };
}

function actingIn(
	tx: Tx,
	context: Record<string, unknown>,
	common: { now: Date; newId: () => string },
	services: Services
) {
	const here = (context.project as Project | undefined)?.id;
	const told = new Map<string, Told[]>();
	const acting: Acting = {
		tx,
		tell(one, projectId = here) {
			if (!projectId) throw new Error('An event needs a project');
			told.set(projectId, [...(told.get(projectId) ?? []), one]);
		},
		enqueue: (name, data) => services.jobs.enqueue(tx, name, data),
		async mail(to, subject, body) {
			const id = common.newId();
			await tx.insert(mail).values({
				id,
				projectId: here ?? null,
				toName: to.name,
				toAddress: to.address,
				subject,
				body,
				createdAt: common.now
			});
			await services.jobs.enqueue(tx, 'send-mail', { mailId: id });
		}
	};
	return {
		acting,
		async finish(teller: Teller) {
			for (const [projectId, list] of told) await writeEvents(tx, projectId, common.now, teller, list);
		}
	};
}

/** Answers a view for an actor. Raises {@link Problem} as {@link runAct} does. */
export async function readView<K extends Kind, S extends z.ZodObject, O>(
	services: Services,
	view: View<K, S, O>,
	actor: Actor,
	raw: unknown
): Promise<O> {
	const input = parse(view.input, raw);
	const now = new Date();
	const { db } = services.database;
	const context = await locate(db, view.at as At<unknown>, input, actor, now).catch((error: unknown) => {
		throw translate(error);
	});
	return view
		.run({ ...context, now, services, newId, db } as unknown as ContextOf[K] & { db: Querier }, input)
		.catch((error: unknown) => {
			throw translate(error);
		});
}

/** Loads a place by id with the same decision as acts, for reading several at once inside one. */
export async function visiblePlaces(
	db: Querier,
	reach: { sees(column: typeof place.scope): ReturnType<typeof sql> },
	ids: string[]
) {
	if (!ids.length) return [];
	return db
		.select()
		.from(place)
		.where(sql`${place.id} in ${ids} and ${live()} and ${reach.sees(place.scope)}`);
}

/** Ids on the way down to a place, shelf first, itself last. */
export function idsOf(path: string): string[] {
	return Array.from({ length: path.length / ID_LENGTH }, (_, i) =>
		path.slice(i * ID_LENGTH, (i + 1) * ID_LENGTH)
	);
}
