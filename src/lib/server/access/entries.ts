import { inArray } from 'drizzle-orm';
import { sameSubject, type Entry } from '../../core/access/decide';
import { allows, levelLabel, rank, type Level } from '../../core/access/levels';
import { withEntry } from '../../core/access/brought';
import {
	effect,
	crossesSight,
	whoReaches,
	withScope,
	type AccessModel,
	type Change,
	type Grant
} from '../../core/access/model';
import { Problem } from '../../core/acts/problem';
import { dayOf, lastMomentOf } from '../../core/time/days';
import { idsOf } from './reach';
import { loadModel } from './model';
import { grant } from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { foldScope, makeScope } from './scopes';
import { followBrought } from './brought';
import { placeName, subjectName } from './called';
import type { Acting, ContextOf, Place, Project } from '../platform/runner/act';

/** The context of an act at a place, as far as changing entries needs it. */
export type AtPlace = ContextOf['place'] & Acting;

/** The place as the rules know a scope. */
function scopeAt(at: Place) {
	return { id: at.id, path: idsOf(at.path), closed: at.closed };
}

/** Last moment of a day in the project's time zone, as the end of a grant; raises `invalid` for a day gone by. */
export function endOfDay(day: string | null, project: Project, now: Date): Date | null {
	if (day === null) return null;
	if (day < dayOf(now, project.timeZone))
		throw new Problem('invalid', `${day} lies in the past. Give a day from today on.`, { field: 'until' });
	return lastMomentOf(day, project.timeZone);
}

/** Refuses a change after which nobody but document control would have Manage where somebody had it. */
function keepManage(before: AccessModel, after: AccessModel, scopeId: string, now: Date): void {
	const holders = (model: AccessModel) =>
		whoReaches(model, scopeId, now.getTime()).filter(
			(r) => r.level === 'manage' && !model.members.get(r.personId)!.subject.controller
		);
	const had = holders(before);
	if (had.length && !holders(after).length)
		throw new Problem(
			'conflict',
			`${had.map((r) => before.members.get(r.personId)!.name).join(', ')} would be the last with Manage here to lose it. Give Manage to somebody else first.`
		);
}

/** A grant to be put at a place; replaces the one of the same subject there. */
export interface Given {
	subject: Pick<Entry, 'subjectKind' | 'subjectId'>;
	subjectName: string;
	level: Level | null;
	endsAt: Date | null;
	exactly: boolean;
	bringCount: number;
	bringLevel: Level | null;
	underId: string | null;
}

/**
 * Puts entries at a place, writes their events, tells the people who see the place from now on; what stands so already
 * is left alone. Gives whom it reaches that was not reached, how many entries changed, and the id of each in the order
 * they were given. Raises `invalid` for a bar on oneself or a controller and for terms that mean nothing, and `conflict`
 * when the last Manage would go; then nothing is kept, since the act is one whole.
 */
export async function putEntries(
	context: AtPlace,
	given: Given[],
	note: string
): Promise<{ reached: string[]; changed: number; grants: string[] }> {
	const { tx, project, place: at, person: by, now, newId, tell } = context;
	const before = withScope(await loadModel(tx, project.id), scopeAt(at));
	let after = before;
	const name = await placeName(tx, at);
	const own = new Set<string>();
	const grants: string[] = [];
	for (const one of given) {
		if (one.level === null && one.subject.subjectKind === 'person' && one.subject.subjectId === by.id)
			throw new Problem('invalid', 'You cannot bar yourself. Ask somebody else with Manage to do it.');
		checkTerms(at, before, one);
		const old = (after.grants.get(at.id) ?? []).find((g) => sameSubject(g, one.subject)) ?? null;
		const id = old?.id ?? newId();
		grants.push(id);
		if (old && saysTheSame(old, one)) continue;
		own.add(id);
		// Who brought somebody in stays who it hangs on, whoever changes it later (A8).
		const giver = old?.underId && one.underId ? { by: old.by, byId: old.byId } : { by: by.name, byId: by.id };
		const values = {
			level: one.level,
			endsAt: one.endsAt,
			exactly: one.exactly,
			bringCount: one.bringCount,
			bringLevel: one.bringLevel,
			underId: one.underId,
			grantedBy: giver.byId,
			createdAt: now
		};
		await tx
			.insert(grant)
			.values({ id, placeId: at.id, ...one.subject, ...values })
			.onConflictDoUpdate({ target: [grant.placeId, grant.subjectKind, grant.subjectId], set: values });
		after = withEntry(after, scopeAt(at), one.subject, {
			...one.subject,
			id,
			placeId: at.id,
			level: one.level,
			exactly: one.exactly,
			endsAt: one.endsAt?.getTime() ?? null,
			...giver,
			at: now.getTime(),
			underId: one.underId,
			bringCount: one.bringCount,
			bringLevel: one.bringLevel
		} satisfies Grant);
		tell({
			kind: one.level === null ? 'access.barred' : one.underId ? 'access.brought-in' : 'access.given',
			placeId: at.id,
			documentId: at.kind === 'document' ? at.id : null,
			details: {
				place: name,
				who: one.subjectName,
				subject: `${one.subject.subjectKind}:${one.subject.subjectId}`,
				level: one.level && levelLabel(one.level),
				before: old ? (old.level ? levelLabel(old.level) : 'Barred') : null,
				until: one.endsAt ? dayOf(one.endsAt, project.timeZone) : null,
				exactly: one.exactly,
				note
			}
		});
	}
	keepManage(before, after, at.id, now);
	await followBrought(context, before, after, own);
	if (!own.size) return { reached: [], changed: 0, grants };
	await makeScope(tx, at);
	const changes = effect(before, after, now.getTime()).filter((c) => c.personId !== by.id);
	const peopleIn = (some: Change[]) => [...new Set(some.map((c) => c.personId))];
	const reached = peopleIn(
		changes.filter((c) => crossesSight(c) === 'gained' || (c.before === null && c.after === 'drop'))
	);
	const higher = changes.filter(
		(c) =>
			c.scopeId === at.id && c.after !== null && rank(c.after) > (c.before === null ? -1 : rank(c.before))
	);
	const said = note ? ` “${note}”` : '';
	await tellNotices(context, {
		kind: 'access-given',
		people: peopleIn(higher.filter((c) => c.after !== 'drop')),
		placeId: at.id,
		sentence: `${by.name} let you into ${name}.${said}`,
		way: at.kind === 'document' ? `document/${at.id}` : `place/${at.id}`
	});
	// Whoever may only put files in is told where to, and not what it is called (A10).
	await tellNotices(context, {
		kind: 'access-given',
		people: peopleIn(higher.filter((c) => c.after === 'drop')),
		sentence: `${by.name} asks you to put files in for ${project.name}.${said}`,
		way: `drop/${at.id}`
	});
	return { reached, changed: own.size, grants };
}

/** Whether a grant as it stands says already what is asked. */
function saysTheSame(old: Grant, asked: Given): boolean {
	return (
		old.level === asked.level &&
		old.exactly === asked.exactly &&
		old.endsAt === (asked.endsAt?.getTime() ?? null) &&
		old.bringCount === asked.bringCount &&
		old.bringLevel === asked.bringLevel &&
		old.underId === asked.underId
	);
}

/** Refuses terms that would mean nothing, or a bar on a controller, who has Manage everywhere (A5). */
function checkTerms(at: Place, model: AccessModel, { subject, subjectName, level, bringCount }: Given): void {
	if (level === 'drop' && at.kind === 'document')
		throw new Problem('invalid', 'Files are put into a folder or shelf, not into a document.', {
			field: 'level'
		});
	if (bringCount > 0 && subject.subjectKind === 'everyone')
		throw new Problem(
			'invalid',
			'Everyone is in already; only a person, department or group can bring others in.',
			{ field: 'bringCount' }
		);
	if (
		level === null &&
		subject.subjectKind === 'person' &&
		model.members.get(subject.subjectId)?.subject.controller
	)
		throw new Problem(
			'invalid',
			`${subjectName} is a document controller and has Manage everywhere. Take away that role instead.`
		);
}

/** Ends grants that stand at one place, with what hangs on them, and writes their events. */
export async function endEntries(
	context: Pick<AtPlace, 'tx' | 'project' | 'now' | 'tell'>,
	at: Place,
	grants: Grant[]
): Promise<void> {
	const { tx, project, now, tell } = context;
	const before = withScope(await loadModel(tx, project.id), scopeAt(at));
	let after = before;
	const name = await placeName(tx, at);
	for (const one of grants) {
		after = withEntry(after, scopeAt(at), one, null);
		const lost = effect(before, after, now.getTime()).filter((c) => crossesSight(c) === 'lost');
		tell({
			kind: 'access.ended',
			placeId: at.id,
			documentId: at.kind === 'document' ? at.id : null,
			details: {
				place: name,
				who: (await subjectName(tx, project, one)) ?? 'somebody',
				level: one.level ? levelLabel(one.level) : 'Barred',
				people: new Set(lost.map((c) => c.personId)).size
			}
		});
	}
	keepManage(before, after, at.id, now);
	await followBrought(context, before, after, new Set(grants.map((g) => g.id)));
	await tx.delete(grant).where(
		inArray(
			grant.id,
			grants.map((g) => g.id)
		)
	);
	await foldScope(tx, at);
}

/** Raises `invalid` when a level for somebody outside goes past what the project gives to people outside. */
export function checkOutside(project: Project, name: string, level: Level | null): void {
	if (level === null) return;
	const most = project.settings.outsideLevel;
	if (most === null)
		throw new Problem(
			'invalid',
			`${name} is outside, and this project gives nothing to people outside. A controller can change that in the settings.`
		);
	if (rank(level) > rank(most))
		throw new Problem(
			'invalid',
			`${name} is outside; this project gives people outside ${levelLabel(most)} at most, not ${levelLabel(level)}.`
		);
}

/** The ceiling of a grant that lets its holder bring others in never lies above the grant itself. */
export function checkBring(level: Level | null, count: number, ceiling: Level | null): void {
	if (!count) return;
	if (!ceiling)
		throw new Problem('invalid', 'Say at what level at most others may be brought in.', {
			field: 'bringLevel'
		});
	if (!allows(level, ceiling))
		throw new Problem('invalid', 'Nobody can bring others in further than they come themselves.', {
			field: 'bringLevel'
		});
}
