import { and, eq, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { allows, cap, type Level } from '../../../core/access/levels';
import { heldAt, lookingOnly, type HeldLock } from '../../../core/access/may';
import { mayAt, type PlaceRule, type SpotFacts } from '../../../core/places/may';
import { orRefuse } from '../../../core/acts/answer';
import { mayDo, type Asking } from '../../../core/documents/may';
import { mayRelease, type ReleaseRole, type ReleaseRule } from '../../../core/releases/may';
import { Problem } from '../../../core/acts/problem';
import { live, loadReach, Reach } from '../../access/reach';
import type { Querier } from '../db';
import { standing } from '../db/standing';
import { proofOf } from '../auth/proofs';
import { document, hatch, lock, pass, passPerson, person, place, project, release } from '../db/schema';
import { secretHash } from '../ids';
import type { Actor, Person, Proof } from './actor';
import type { At, Method } from '../../../contract/act';
import type { Pass, Project } from './act';
import { documentFacts, heldLock, holdDocument } from './held';
import { holdRelease, releaseFacts } from './held-release';
import { notFound, releaseNotShown } from './not-shown';
import { askedOf, builtAgainFor } from './on-route';

/** What is asked about beside the place: who asks, when, by what method, and what a pass holder has proven. */
export interface Asked {
	actor: Actor;
	now: Date;
	method: Method | 'GET';
	/** The act goes on while one looks as somebody. */
	whileTrying?: boolean;
	proofs: readonly Proof[];
}

function signedIn(actor: Actor): Person {
	if (!actor) throw new Problem('needs-sign-in', 'Sign in first.');
	return actor.person;
}

/** Finds the place of an act or view and decides whether the actor may (A2 to A6, A10). */
export async function locate<I>(
	db: Querier,
	at: At<I>,
	input: I,
	asked: Asked
): Promise<Record<string, unknown>> {
	switch (at.kind) {
		case 'open':
			return {};
		case 'self':
			return { person: signedIn(asked.actor) };
		case 'project':
			return inProject(db, at, await projectBy(db, at.id(input)), asked);
		case 'place':
		case 'document':
			return atPlace(db, at, at.id(input), asked);
		case 'release':
			return atRelease(db, at, at.id(input), asked);
		case 'pass':
		case 'place-pass':
		case 'any-pass':
			return byPass(db, at.kind, at.secret(input), asked);
		case 'hatch':
			return byHatch(db, at.secret(input), asked);
	}
}

const projectHere = standing(['id', 'code'], (db, { id, code }) =>
	db
		.select()
		.from(project)
		.where(or(eq(project.id, id), eq(project.code, code)))
);

async function projectBy(db: Querier, key: string): Promise<Project | undefined> {
	const [row] = await projectHere(db, { id: key, code: key.toUpperCase() });
	return row;
}

/** The actor as a member of the project, or whoever they look as. */
async function asMember(db: Querier, found: Project | undefined, { actor, now, method, whileTrying }: Asked) {
	const self = signedIn(actor);
	// What never was takes the same questions as what is hidden, so that the time tells nothing either (A10).
	const reach = await loadReach(db, found?.id ?? '', self.id, now);
	if (!found || !reach) throw notFound();
	const trying = actor!.trying?.projectId === found.id ? actor!.trying : undefined;
	if (!trying) return { person: self, self, project: found, reach };
	if (method !== 'GET' && !whileTrying) orRefuse(lookingOnly());
	if (!mayTry(reach)) throw notFound();
	const [other] = await db
		.select({ id: person.id, name: person.name, email: person.email })
		.from(person)
		.where(eq(person.id, trying.personId));
	const theirs = other && (await loadReach(db, found.id, other.id, now));
	if (!theirs) throw new Problem('not-found', 'The person you look as is not in this project any more.');
	return { person: other, self, project: found, reach: narrowed(theirs, reach) };
}

/** Whether somebody may look as another: controllers, and leads of a department. */
export function mayTry(reach: Reach): boolean {
	return reach.subject.controller || reach.subject.leads.length > 0;
}

/**
 * What another reaches, and at each place no more than the one looking holds there: looking as somebody opens nothing
 * new (A10).
 */
function narrowed(theirs: Reach, own: Reach): Reach {
	const levels = new Map<string, Level>();
	for (const [scope, level] of theirs.levels) {
		const mine = own.level(scope);
		// Drop sees nothing, so it is not a lower way of looking.
		const both =
			mine && (mine === 'drop' || level === 'drop' ? (mine === level ? mine : null) : cap(level, mine));
		if (both) levels.set(scope, both);
	}
	const controller = theirs.subject.controller && own.subject.controller;
	return new Reach({ ...theirs.subject, controller }, levels, theirs.freezes, theirs.version, theirs.desks);
}

async function inProject(
	db: Querier,
	at: { who: 'member' | 'controller' },
	found: Project | undefined,
	asked: Asked
): Promise<Record<string, unknown>> {
	const context = await asMember(db, found, asked);
	const { subject } = context.reach;
	if (at.who === 'controller' && !subject.controller) {
		throw new Problem(
			'needs-level',
			subject.ceiling === 'organise' && !subject.outside
				? 'This project asks for two-step sign-in before somebody may Manage. Set it up on your own page.'
				: 'Only a document controller of the project can do this.'
		);
	}
	return context;
}

/** Who has a document in hand now, beside its place. */
const openLockHere = and(eq(lock.documentId, place.id), isNull(lock.endedAt));

/** A place with its project, and as a document its state and who has it in hand. */
const placeHere = standing(['id'], (db, { id }) => {
	const holder = alias(person, 'holder');
	return db
		.select({ place, project, state: document.state, lock, holder: holder.name })
		.from(place)
		.innerJoin(project, eq(project.id, place.projectId))
		.leftJoin(document, eq(document.id, place.id))
		.leftJoin(lock, openLockHere)
		.leftJoin(holder, eq(holder.id, lock.holderId))
		.where(eq(place.id, id));
});

async function atPlace(
	db: Querier,
	at: Asking & { kind: 'place' | 'document'; only?: string[]; removed?: boolean; asks?: PlaceRule },
	id: string,
	asked: Asked
) {
	signedIn(asked.actor);
	const [row] = await placeHere(db, { id });
	const context = await asMember(db, row?.project, asked);
	if (!row || (row.place.removalId !== null) !== (at.removed ?? false)) throw notFound();
	const { reach } = context;
	const uncapped = reach.level(row.place.scope);
	if (!allows(uncapped, at.level === 'drop' ? 'drop' : 'view')) throw notFound();
	const isDocument = row.place.kind === 'document';
	if ((at.kind === 'document' && !isDocument) || (at.only && !at.only.includes(row.place.kind)))
		throw notFound();
	const lockHere = row.lock && heldLock({ ...row.lock, holder: row.holder! }, context.person.id);
	const here = spotFacts(context, row.place, row.state === 'archived', lockHere, asked.now);
	// What a lock keeps others from is changing; a view tells of the lock itself.
	const past = asked.method === 'GET' ? [...(at.past ?? []), 'inHand' as const] : at.past;
	orRefuse(mayAt({ level: at.level, past, asks: at.asks }, here));
	if (!isDocument || !at.applies)
		return { ...context, place: row.place, level: heldAt(here, past), document: null };
	// Once the row is held, nothing of this changes any more.
	const held = await holdDocument(db, id);
	const facts = await documentFacts(db, { ...context, place: row.place }, held, asked.now);
	orRefuse(mayDo(at, facts));
	return { ...context, place: row.place, level: heldAt(facts, past), document: held };
}

/** What the rules ask of a place and a person. */
export function spotFacts(
	{ project: here, reach, person: asker }: { project: Project; reach: Reach; person: { id: string } },
	at: typeof place.$inferSelect,
	archived: boolean,
	inHand: HeldLock | null,
	now: Date
): SpotFacts {
	const freeze = reach.freezeAt(at.path);
	return {
		uncapped: reach.level(at.scope)!,
		freeze,
		archived,
		lock: inHand,
		onDesk: reach.desks.has(at.scope),
		timeZone: here.timeZone,
		now,
		kind: at.kind,
		own: at.createdBy === asker.id,
		closed: at.closed,
		desk: at.deskOf !== null,
		frozenHere: freeze?.path === at.path
	};
}

async function atRelease(
	db: Querier,
	at: { who: ReleaseRole; applies?: ReleaseRule },
	id: string,
	asked: Asked
) {
	const self = signedIn(asked.actor);
	// What never was takes the same questions as what is hidden, so that the time tells nothing either (A10).
	const knows = (personId: string) => sql<boolean>`(${askedOf(personId, asked.now)})`;
	const shownTo = asked.actor!.trying?.personId ?? self.id;
	const [row] = await db
		.select({
			release,
			own: knows(self.id),
			tried: knows(shownTo),
			builtAgain: builtAgainFor(shownTo, asked.now)
		})
		.from(release)
		.where(eq(release.id, id));
	const context = await asMember(db, await projectBy(db, row?.release.projectId ?? ''), asked);
	const { controller } = context.reach.subject;
	const { person: by } = context;
	if (!row) throw notFound();
	if (!(controller || (by.id === self.id ? row.own : row.tried)))
		throw releaseNotShown(row.release.number, row.builtAgain);
	// Once the row is held, nothing of it changes any more.
	const held = at.applies ? await holdRelease(db, id) : row.release;
	orRefuse(
		mayRelease(at, await releaseFacts(db, held, context.project, { id: by.id, controller }, asked.now))
	);
	return { ...context, release: held };
}

/** What a pass still asks for before it opens. */
export function passAsks(
	held: Pass,
	proof: Proof | null,
	actor: Actor
): 'account' | 'address' | 'password' | 'nothing' {
	// What goes to one person is opened with their own account; nobody answers in another's name (T9).
	const theirs = !held.releaseId || actor?.person.email.toLowerCase() === held.holderEmail?.toLowerCase();
	if (held.audience === 'accounts' && !(actor && theirs)) return 'account';
	if (proof) return 'nothing';
	if (held.audience === 'named') return 'address';
	return held.passwordHash ? 'password' : 'nothing';
}

const USED_UP = (used: number) =>
	new Problem('not-found', 'This pass has been used as often as it may be. Ask the sender for a new one.', {
		used
	});

/** Counts a use of a pass; false when it was used as often as it may be. */
export async function countUse(db: Querier, { id }: Pick<Pass, 'id'>, now: Date): Promise<boolean> {
	const counted = await db
		.update(pass)
		.set({ uses: sql`${pass.uses} + 1`, lastUsedAt: now })
		.where(and(eq(pass.id, id), or(isNull(pass.maxUses), lt(pass.uses, pass.maxUses))))
		.returning({ uses: pass.uses });
	return counted.length > 0;
}

/** A proof for a pass that still holds: in time, of what it asks for today, and by somebody it still names. */
async function holdingProof(
	db: Querier,
	held: Pass,
	proofs: readonly Proof[],
	now: Date
): Promise<Proof | null> {
	const of = proofOf(held);
	const given = proofs.find((p) => p.passId === held.id && p.endsAt > now.getTime() && p.of === of);
	if (!given || held.audience !== 'named') return given ?? null;
	const [named] = given.email
		? await db
				.select({ email: passPerson.email })
				.from(passPerson)
				.where(and(eq(passPerson.passId, held.id), eq(passPerson.email, given.email)))
		: [];
	return named ? given : null;
}

async function byPass(
	db: Querier,
	kind: 'pass' | 'place-pass' | 'any-pass',
	secret: string,
	{ actor, now, proofs }: Asked
) {
	const [row] = await db
		.select()
		.from(pass)
		.where(eq(pass.secretHash, secretHash(secret)));
	if (!row) throw new Problem('not-found', 'This pass does not exist. Check that the whole link was copied.');
	// A colleague answers for a recipient, and so no longer than they.
	const [main] = row.alongWith ? await db.select().from(pass).where(eq(pass.id, row.alongWith)) : [];
	if (row.withdrawnAt ?? main?.withdrawnAt)
		throw new Problem('not-found', 'This pass was withdrawn. Ask the sender for a new one.', {
			withdrawn: true
		});
	if (row.endsAt <= now)
		throw new Problem('not-found', 'This pass has ended. Ask the sender for a new one.', {
			ended: row.endsAt
		});
	const proof = await holdingProof(db, row, proofs, now);
	if (row.maxUses !== null && row.uses >= row.maxUses && !proof) throw USED_UP(row.uses);
	const found = (await projectBy(db, row.projectId))!;
	if (kind === 'any-pass') return { pass: row, project: found, proof };
	const asks = passAsks(row, proof, actor);
	if (asks !== 'nothing')
		throw new Problem(
			'needs-proof',
			{
				account: row.releaseId
					? `This pass is for ${row.holderName}, with their account. Sign in with it, then open the link again.`
					: 'This pass is for people with an account. Sign in, then open the link again.',
				address: 'This pass is for people it names. Prove your mail address first.',
				password: 'This pass asks for a password.'
			}[asks],
			{ asks }
		);
	// Whoever reads without having opened it first (a program, another browser) uses it once more each time.
	if (!proof && !(await countUse(db, row, now))) throw USED_UP(row.uses);
	if (kind === 'pass') {
		const [about] = row.releaseId ? await db.select().from(release).where(eq(release.id, row.releaseId)) : [];
		if (!about) throw new Problem('not-found', 'This pass is not for a release.');
		return { pass: row, release: about, project: found, proof };
	}
	const [at] = row.placeId
		? await db
				.select()
				.from(place)
				.where(and(eq(place.id, row.placeId), live()))
		: [];
	if (!at)
		throw new Problem('not-found', 'What this pass leads to is not there any more. Ask the sender about it.');
	return { pass: row, place: at, project: found, proof };
}

async function byHatch(db: Querier, secret: string, { now }: Asked) {
	const [row] = await db
		.select()
		.from(hatch)
		.where(eq(hatch.secretHash, secretHash(secret)));
	if (!row)
		throw new Problem('not-found', 'This hatch does not exist. Check that the whole link was copied.');
	if (row.withdrawnAt)
		throw new Problem('not-found', 'This hatch was closed. Ask whoever sent you the link for a new one.');
	if (row.endsAt <= now)
		throw new Problem('not-found', 'This hatch has ended. Ask whoever sent you the link for a new one.');
	const [at] = await db
		.select()
		.from(place)
		.where(and(eq(place.id, row.placeId), live()));
	if (!at)
		throw new Problem('not-found', 'This hatch leads nowhere any more. Ask whoever sent you the link.');
	return { hatch: row, place: at, project: (await projectBy(db, row.projectId))! };
}

/**
 * Places by id that somebody may look at, for reading several at once inside an act, with what stands at each that
 * caps levels there ({@link Reach.held} asks for it).
 * @param which those that are there, or those that were removed
 */
export async function visiblePlaces(db: Querier, reach: Reach, ids: string[], which = live()) {
	if (!ids.length) return [];
	const rows = await db
		.select({ place, state: document.state, inHandOf: lock.holderId })
		.from(place)
		.leftJoin(document, eq(document.id, place.id))
		.leftJoin(lock, openLockHere)
		.where(
			and(
				inArray(place.id, ids),
				eq(place.projectId, reach.subject.projectId),
				which,
				reach.sees(place.scope)
			)
		);
	return rows.map((row) => ({ ...row.place, archived: row.state === 'archived', inHandOf: row.inHandOf }));
}

export type SeenPlace = Awaited<ReturnType<typeof visiblePlaces>>[number];
