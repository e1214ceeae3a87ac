import { and, eq, inArray, or } from 'drizzle-orm';
import { capped } from '../../core/access/decide';
import { allows, levelLabel, rank, type Level } from '../../core/access/levels';
import { Problem } from '../../core/problem';
import { live, loadReach, Reach, type Freeze } from '../access';
import type { Querier } from '../db';
import { document, hatch, pass, person, place, project, release } from '../db/schema';
import { secretHash } from '../ids';
import type { Actor, Person, Proof } from '../actor';
import type { At, Method, Pass, Project } from './act';

const NOT_FOUND = () => new Problem('not-found', 'There is nothing here, or nothing that you may look at.');

/** What is asked about beside the place: who asks, when, by what method, and what a pass holder has proven. */
export interface Asked {
	actor: Actor;
	now: Date;
	method: Method | 'GET';
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

async function projectBy(db: Querier, key: string): Promise<Project | undefined> {
	const [row] = await db
		.select()
		.from(project)
		.where(or(eq(project.id, key), eq(project.code, key.toUpperCase())));
	return row;
}

/** The actor as a member of the project, or whoever they look as. */
async function asMember(db: Querier, found: Project | undefined, { actor, now, method }: Asked) {
	const self = signedIn(actor);
	// What never was takes the same questions as what is hidden, so that the time tells nothing either (A10).
	const reach = await loadReach(db, found?.id ?? '', self.id, now);
	if (!found || !reach) throw NOT_FOUND();
	const trying = actor!.trying?.projectId === found.id ? actor!.trying : undefined;
	if (!trying) return { person: self, project: found, reach };
	if (method !== 'GET')
		throw new Problem(
			'conflict',
			'You are looking as somebody else; nothing can be changed. End that first.',
			{
				trying: true
			}
		);
	if (!mayTry(reach)) throw NOT_FOUND();
	const [other] = await db
		.select({ id: person.id, name: person.name, email: person.email })
		.from(person)
		.where(eq(person.id, trying.personId));
	const theirs = other && (await loadReach(db, found.id, other.id, now));
	if (!theirs) throw new Problem('not-found', 'The person you look as is not in this project any more.');
	return { person: other, project: found, reach: narrowed(theirs, reach) };
}

/** Whether somebody may look as another: controllers, and leads of a department. */
export function mayTry(reach: Reach): boolean {
	return reach.subject.controller || reach.subject.leads.length > 0;
}

/** What another reaches, without what the one looking does not reach: looking as somebody opens nothing new. */
function narrowed(theirs: Reach, own: Reach): Reach {
	if (own.subject.controller) return theirs;
	const levels = new Map<string, Level>();
	for (const [scope, level] of theirs.levels) if (allows(own.level(scope), 'look')) levels.set(scope, level);
	return new Reach({ ...theirs.subject, controller: false }, levels, theirs.freezes, theirs.version);
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
			subject.ceiling === 'tidy' && !subject.outside
				? 'This project asks for two-step sign-in before somebody may Run. Set it up on your own page.'
				: 'Only a document controller of the project can do this.'
		);
	}
	return context;
}

async function atPlace(
	db: Querier,
	at: { level: Level; only?: string[]; removed?: boolean },
	id: string,
	asked: Asked
) {
	signedIn(asked.actor);
	const [row] = await db
		.select({ place, project, state: document.state })
		.from(place)
		.innerJoin(project, eq(project.id, place.projectId))
		.leftJoin(document, eq(document.id, place.id))
		.where(eq(place.id, id));
	const context = await asMember(db, row?.project, asked);
	if (!row || (row.place.removalId !== null) !== (at.removed ?? false)) throw NOT_FOUND();
	const uncapped = context.reach.level(row.place.scope);
	const freeze = context.reach.freezeAt(row.place.path);
	const held = capped(uncapped, { frozen: freeze !== null, archived: row.state === 'archived' });
	if (!allows(uncapped, at.level === 'drop' ? 'drop' : 'look')) throw NOT_FOUND();
	if (at.only && !at.only.includes(row.place.kind)) throw NOT_FOUND();
	if (!allows(held, at.level)) throw refusal(at.level, uncapped!, held!, freeze, context.project);
	return { ...context, place: row.place, level: held };
}

/** Why a level is not enough: it was not given, or something that stands here caps it. */
function refusal(
	needed: Level,
	uncapped: Level,
	held: Level,
	freeze: Freeze | null,
	{ timeZone }: Project
): Problem {
	if (freeze && allows(uncapped, needed) && rank(held) < rank(needed)) {
		const since = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone }).format(
			freeze.at
		);
		return new Problem(
			'frozen',
			`Frozen by ${freeze.by} since ${since}: ${freeze.reason}. Nothing was changed.`,
			{
				by: freeze.by,
				since: freeze.at,
				reason: freeze.reason
			}
		);
	}
	return new Problem('needs-level', `This needs ${levelLabel(needed)} here; you have ${levelLabel(held)}.`, {
		needed,
		held
	});
}

async function atRelease(
	db: Querier,
	at: { who: 'route' | 'controller' | 'approver' },
	id: string,
	asked: Asked
) {
	signedIn(asked.actor);
	const [row] = await db.select().from(release).where(eq(release.id, id));
	const context = await asMember(db, await projectBy(db, row?.projectId ?? ''), asked);
	if (!row) throw NOT_FOUND();
	const controller = context.reach.subject.controller;
	const approver = row.approverId === context.person.id && row.state !== 'building';
	if (!controller && !approver) throw NOT_FOUND();
	if (at.who === 'controller' && !controller)
		throw new Problem('needs-level', 'Only a document controller of the project can do this.');
	if (at.who === 'approver' && row.approverId !== context.person.id)
		throw new Problem('needs-level', 'Only the person asked for approval can do this.');
	return { ...context, release: row };
}

/** What a pass still asks for before it opens. */
export function passAsks(
	held: Pass,
	proof: Proof | null,
	actor: Actor
): 'account' | 'address' | 'password' | null {
	if (held.audience === 'accounts' && !actor) return 'account';
	if (proof) return null;
	if (held.audience === 'named') return 'address';
	return held.passwordHash ? 'password' : null;
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
	if (row.withdrawnAt)
		throw new Problem('not-found', 'This pass was withdrawn. Ask the sender for a new one.', {
			withdrawn: true
		});
	if (row.endsAt <= now)
		throw new Problem('not-found', 'This pass has ended. Ask the sender for a new one.', {
			ended: row.endsAt
		});
	const proof = proofs.find((p) => p.passId === row.id && p.endsAt > now.getTime()) ?? null;
	if (row.maxUses !== null && row.uses >= row.maxUses && !proof)
		throw new Problem(
			'not-found',
			'This pass has been used as often as it may be. Ask the sender for a new one.',
			{
				used: row.uses
			}
		);
	const found = (await projectBy(db, row.projectId))!;
	if (kind === 'any-pass') return { pass: row, project: found, proof };
	const asks = passAsks(row, proof, actor);
	if (asks)
		throw new Problem(
			'needs-proof',
			{
				account: 'This pass is for people with an account. Sign in, then open the link again.',
				address: 'This pass is for people it names. Prove your mail address first.',
				password: 'This pass asks for a password.'
			}[asks],
			{ asks }
		);
	if (kind === 'pass') {
		const [about] = row.releaseId ? await db.select().from(release).where(eq(release.id, row.releaseId)) : [];
		if (!about) throw new Problem('not-found', 'This pass is not for a release.');
		return { pass: row, release: about, project: found };
	}
	const [at] = row.placeId
		? await db
				.select()
				.from(place)
				.where(and(eq(place.id, row.placeId), live()))
		: [];
	if (!at)
		throw new Problem('not-found', 'What this pass leads to is not there any more. Ask the sender about it.');
	return { pass: row, place: at, project: found };
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

/** Places by id that somebody may look at, for reading several at once inside an act. */
export async function visiblePlaces(db: Querier, reach: Reach, ids: string[]) {
	if (!ids.length) return [];
	return db
		.select()
		.from(place)
		.where(
			and(
				inArray(place.id, ids),
				eq(place.projectId, reach.subject.projectId),
				live(),
				reach.sees(place.scope)
			)
		);
}
