import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { allows, type Level } from '../../core/access/levels';
import { inHand } from '../../core/access/may';
import { orRefuse } from '../../core/acts/answer';
import { Problem } from '../../core/acts/problem';
import { beneath, live, OPEN_SPOT } from '../access/reach';
import { document, lock, person, place, removal } from '../platform/db/schema';
import type { Acting, ContextOf, Place } from '../platform/runner/act';
import { heldLock } from '../platform/runner/held';
import { namesOf } from './names';

/** Removes a place with everything in it, and tells it; gives how many documents. Raises what keeps it from going. */
export async function removeWhole(
	context: ContextOf['project'] & Acting,
	target: Place,
	level: Level,
	why: string
): Promise<number> {
	const { tx, project, person: by, newId } = context;
	const within = and(eq(place.projectId, project.id), beneath(target.path), live())!;
	const affected = await tx
		.select({
			id: place.id,
			kind: place.kind,
			createdBy: place.createdBy,
			scope: place.scope,
			path: place.path
		})
		.from(place)
		.where(within)
		.for('update');
	if (!affected.length) throw new Problem('conflict', 'It was removed a moment ago.');
	checkMayGo(context, level, affected);
	const documents = affected.filter((p) => p.kind === 'document').length;
	const held = await tx
		.select({ lock, holder: person.name })
		.from(lock)
		.innerJoin(place, eq(place.id, lock.documentId))
		.innerJoin(person, eq(person.id, lock.holderId))
		.where(and(within, isNull(lock.endedAt), ne(lock.holderId, by.id)));
	const [first] = held;
	if (first && !allows(level, 'manage'))
		orRefuse(inHand(heldLock({ ...first.lock, holder: first.holder }, by.id)));
	const removalId = newId();
	await record(context, [{ id: removalId, target, documents, inHand: held.length }], why);
	await tx.update(place).set({ removalId }).where(within);
	const gone = tx.select({ id: place.id }).from(place).where(eq(place.removalId, removalId));
	await tx.update(document).set({ live: false }).where(inArray(document.id, gone));
	return documents;
}

/**
 * Removes documents, each by itself but all in a few statements, and tells each. Raises what keeps one from going.
 * @param levels what who removes them holds at each, as capped there: what somebody else has in hand is below Work
 */
export async function removeDocuments(
	context: ContextOf['project'] & Acting,
	targets: Place[],
	levels: ReadonlyMap<string, Level>,
	why: string
): Promise<void> {
	if (!targets.length) return;
	const { tx, newId } = context;
	const ids = targets.map((one) => one.id);
	const chosen = and(inArray(place.id, ids), live())!;
	const there = await tx.select({ id: place.id }).from(place).where(chosen).for('update');
	if (there.length < ids.length)
		throw new Problem('conflict', 'One of them was removed a moment ago. Nothing was removed now.');
	for (const one of targets) checkMayGo(context, levels.get(one.id)!, [one]);
	const removals = targets.map((target) => ({ id: newId(), target, documents: 1, inHand: 0 }));
	await record(context, removals, why);
	const made = removals.map((one) => one.id);
	await tx
		.update(place)
		.set({ removalId: sql`${removal.id}` })
		.from(removal)
		.where(and(eq(removal.placeId, place.id), inArray(removal.id, made)));
	await tx.update(document).set({ live: false }).where(inArray(document.id, ids));
}

/** Writes down removals, with how many documents each takes and how many of these are in somebody's hand, and tells each. */
async function record(
	{ tx, project, person: by, now, tell }: ContextOf['project'] & Acting,
	removals: { id: string; target: Place; documents: number; inHand: number }[],
	reason: string
): Promise<void> {
	await tx.insert(removal).values(
		removals.map(({ id, target, documents }) => ({
			id,
			projectId: project.id,
			placeId: target.id,
			reason,
			documents,
			removedBy: by.id,
			removedAt: now
		}))
	);
	const targets = removals.map((one) => one.target);
	const names = await namesOf(tx, targets);
	for (const { target, documents, inHand } of removals)
		tell({
			kind: 'place.removed',
			placeId: target.id,
			documentId: target.kind === 'document' ? target.id : null,
			details: { name: names.get(target.id)!, kind: target.kind, reason, documents, inHand }
		});
}

/** Raises what the levels at a place, and at all in it, do not allow of removing it. */
function checkMayGo(
	{ reach, person: by }: ContextOf['project'],
	level: Level,
	affected: readonly Pick<Place, 'createdBy' | 'scope' | 'path'>[]
): void {
	if (!allows(level, 'organise') && affected.some((p) => p.createdBy !== by.id))
		throw new Problem('needs-level', 'Removing what others added needs Organise; you have Work.', {
			needed: 'organise',
			held: level
		});
	// A closed or frozen place inside asks for more than the folder around it.
	if (affected.some((p) => !allows(reach.held(p, OPEN_SPOT), 'work')))
		throw new Problem(
			'needs-level',
			'Something in this folder is not yours to remove. Ask somebody with Manage here; nothing was removed.',
			{ needed: 'manage', held: level }
		);
}
