import { and, eq, inArray, isNull, ne, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/removed';
import { allows, type Level } from '../../core/access/levels';
import { nameKey } from '../../core/files/names';
import { inHand } from '../../core/access/may';
import { orRefuse } from '../../core/acts/answer';
import { Problem } from '../../core/acts/problem';
import { daysLater } from '../../core/time/spans';
import { beneath, idsOf, OPEN_SPOT } from '../access/reach';
import type { Tx } from '../platform/db';
import { document, lock, person, place, removal } from '../platform/db/schema';
import { holdTree } from '../access/scopes';
import { does, type Acting, type ContextOf, type Place } from '../platform/runner/act';
import { heldLock } from '../platform/runner/held';
import { visiblePlaces } from '../platform/runner/locate';

export const removePlace = does(contract.removePlace, {
	async run(context, input) {
		const { tx, project, place: target, level } = context;
		await holdTree(tx, project.id);
		return { documents: await removeWhole(context, target, level, input.reason) };
	}
});

export const removePlaces = does(contract.removePlaces, {
	async run(context, input) {
		const { tx, project, reach } = context;
		await holdTree(tx, project.id);
		const wanted = [...new Set(input.places)].sort();
		const places = await visiblePlaces(tx, reach, wanted);
		if (places.length < wanted.length)
			throw new Problem('not-found', 'One of these is not there, or nothing that you may look at.');
		// What lies in a folder that is chosen too goes with it.
		const tops = places.filter(
			(one) => !places.some((other) => other.id !== one.id && one.path.startsWith(other.path))
		);
		let documents = 0;
		for (const target of tops) {
			const level = reach.held(target, target, ['archived']);
			if (!level || !allows(level, 'work'))
				throw new Problem(
					'needs-level',
					`Removing “${target.name}” needs Work there, and that it is not frozen or in somebody’s hand. Nothing was removed.`,
					{ needed: 'work' }
				);
			documents += await removeWhole(context, target, level, input.reason);
		}
		return { removed: tops.map((p) => p.id), documents };
	}
});

/** Removes a place with everything in it, and tells it; gives how many documents. Raises what keeps it from going. */
async function removeWhole(
	{ tx, project, reach, person: by, now, newId, tell }: ContextOf['project'] & Acting,
	target: Place,
	level: Level,
	why: string
): Promise<number> {
	const within = and(eq(place.projectId, project.id), beneath(target.path), isNull(place.removalId));
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
	if (!allows(level, 'organise') && affected.some((p) => p.createdBy !== by.id)) {
		throw new Problem('needs-level', 'Removing what others added needs Organise; you have Work.', {
			needed: 'organise',
			held: level
		});
	}
	// A closed or frozen place inside asks for more than the folder around it.
	if (affected.some((p) => !allows(reach.held(p, OPEN_SPOT), 'work')))
		throw new Problem(
			'needs-level',
			'Something in this folder is not yours to remove. Ask somebody with Manage here; nothing was removed.',
			{ needed: 'manage', held: level }
		);
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
	await tx.insert(removal).values({
		id: removalId,
		projectId: project.id,
		placeId: target.id,
		reason: why,
		documents,
		removedBy: by.id,
		removedAt: now
	});
	await tx.update(place).set({ removalId }).where(within);
	const gone = tx.select({ id: place.id }).from(place).where(eq(place.removalId, removalId));
	await tx.update(document).set({ live: false }).where(inArray(document.id, gone));
	tell({
		kind: 'place.removed',
		placeId: target.id,
		documentId: target.kind === 'document' ? target.id : null,
		details: {
			name: await nameOf(tx, target),
			kind: target.kind,
			reason: why,
			documents,
			inHand: held.length
		}
	});
	return documents;
}

export async function nameOf(tx: Tx, target: Place): Promise<string> {
	if (target.kind !== 'document') return target.name;
	const [row] = await tx
		.select({ number: document.number, title: document.title })
		.from(document)
		.where(eq(document.id, target.id));
	return `${row!.number} ${row!.title}`;
}

export const restorePlace = does(contract.restorePlace, {
	async run({ tx, project, place: target, level, reach, person: by, now, tell }, input) {
		await holdTree(tx, project.id);
		const [fresh] = await tx.select().from(place).where(eq(place.id, input.place)).for('update');
		if (!fresh?.removalId) throw new Problem('conflict', 'It was restored a moment ago.');
		const [gone] = await tx.select().from(removal).where(eq(removal.id, fresh.removalId));
		if (!allows(level, 'organise') && gone!.removedBy !== by.id) {
			throw new Problem('needs-level', 'Only who removed it, or somebody with Organise, can restore it.', {
				needed: 'organise',
				held: level
			});
		}
		const until = daysLater(gone!.removedAt, project.settings.retentionDays);
		if (now > until)
			throw new Problem(
				'conflict',
				`It was removed more than ${project.settings.retentionDays} days ago and can no longer be restored.`
			);

		// Folders above that are gone too come back with it, but not what else was in them (R2).
		const above = idsOf(target.path).slice(0, -1);
		const goneAbove = above.length
			? await tx
					.select()
					.from(place)
					.where(and(inArray(place.id, above), sql`${place.removalId} is not null`))
					.orderBy(place.path)
			: [];
		const renamed: string[] = [];
		for (const folder of goneAbove) renamed.push(...(await bringBack(tx, folder)));
		// Everything removed in the same act beneath it comes back; what had been removed before stays removed.
		const back = and(
			eq(place.projectId, project.id),
			beneath(target.path),
			eq(place.removalId, fresh.removalId)
		);
		const folders = await tx
			.select()
			.from(place)
			.where(and(back, ne(place.kind, 'document')))
			.orderBy(sql`length(path)`);
		for (const folder of folders) renamed.push(...(await bringBack(tx, folder)));
		const documents = await bringBackDocuments(tx, back!, renamed);
		const [left] = await tx
			.select({ n: sql<number>`count(*)::int` })
			.from(place)
			.where(eq(place.removalId, fresh.removalId));
		if (left!.n === 0)
			await tx
				.update(removal)
				.set({ restoredAt: now, restoredBy: by.id })
				.where(eq(removal.id, fresh.removalId));
		tell({
			kind: 'place.restored',
			placeId: target.id,
			documentId: target.kind === 'document' ? target.id : null,
			details: {
				name: await nameOf(tx, target),
				kind: target.kind,
				documents,
				folders: goneAbove.map((f) => f.name),
				folderIds: goneAbove.map((f) => f.id),
				renamed
			}
		});
		const seen = goneAbove.filter((f) => allows(reach.level(f.scope), 'view'));
		return { documents, folders: seen.map((f) => f.name), renamed };
	}
});

/**
 * Makes removed documents live again, however many, with a suffix where a number is taken by now.
 * @param back which of them, of one removal
 * @param renamed is told what was renamed
 * @returns how many
 */
async function bringBackDocuments(tx: Tx, back: SQL, renamed: string[]): Promise<number> {
	const of = and(back, eq(place.kind, 'document'));
	const other = alias(document, 'other');
	const taken = await tx
		.select({ id: document.id, number: document.number, projectId: document.projectId })
		.from(document)
		.innerJoin(place, eq(place.id, document.id))
		.innerJoin(
			other,
			and(eq(other.projectId, document.projectId), eq(other.number, document.number), eq(other.live, true))
		)
		.where(of)
		.orderBy(document.number);
	for (const one of taken) {
		const free = await freeVariant(one.number, 'R', async (number) => {
			const [found] = await tx
				.select({ id: document.id })
				.from(document)
				.where(
					and(eq(document.projectId, one.projectId), eq(document.number, number), eq(document.live, true))
				);
			return found !== undefined;
		});
		await tx.update(document).set({ live: true, number: free }).where(eq(document.id, one.id));
		await tx
			.update(place)
			.set({ nameKey: nameKey(free) })
			.where(eq(place.id, one.id));
		renamed.push(`${one.number} → ${free}`);
	}
	const ids = tx.select({ id: place.id }).from(place).where(of);
	await tx.update(document).set({ live: true }).where(inArray(document.id, ids));
	const { count } = await tx.update(place).set({ removalId: null }).where(of);
	return count;
}

/** Makes one removed folder live again, with a suffix when its name is taken. Gives what was renamed. */
async function bringBack(tx: Tx, gone: Place): Promise<string[]> {
	const free = await freeVariant(gone.name, 'restored', async (name) => {
		const taken = await tx
			.select({ id: place.id })
			.from(place)
			.where(
				and(
					sql`coalesce(parent_id, project_id) = ${gone.parentId ?? gone.projectId}`,
					eq(place.nameKey, nameKey(name)),
					isNull(place.removalId),
					ne(place.kind, 'document')
				)
			);
		return taken.length > 0;
	});
	await tx
		.update(place)
		.set({ removalId: null, name: free, nameKey: nameKey(free) })
		.where(eq(place.id, gone.id));
	return free === gone.name ? [] : [`${gone.name} → ${free}`];
}

async function freeVariant(
	wanted: string,
	suffix: string,
	taken: (name: string) => Promise<boolean>
): Promise<string> {
	if (!(await taken(wanted))) return wanted;
	for (let i = 1; ; i++) {
		const variant = suffix === 'R' ? `${wanted}-R${i}` : `${wanted} (${suffix}${i > 1 ? ` ${i}` : ''})`;
		if (!(await taken(variant))) return variant;
	}
}
