import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
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
	const documents = affected.filter((p) => p.kind === 'document').map((p) => p.id);
	const held = documents.length
		? await tx
				.select({ lock, holder: person.name })
				.from(lock)
				.innerJoin(person, eq(person.id, lock.holderId))
				.where(and(inArray(lock.documentId, documents), isNull(lock.endedAt), ne(lock.holderId, by.id)))
		: [];
	const [first] = held;
	if (first && !allows(level, 'manage'))
		orRefuse(inHand(heldLock({ ...first.lock, holder: first.holder }, by.id)));
	const removalId = newId();
	await tx.insert(removal).values({
		id: removalId,
		projectId: project.id,
		placeId: target.id,
		reason: why,
		documents: documents.length,
		removedBy: by.id,
		removedAt: now
	});
	await tx.update(place).set({ removalId }).where(within);
	if (documents.length) await tx.update(document).set({ live: false }).where(inArray(document.id, documents));
	tell({
		kind: 'place.removed',
		placeId: target.id,
		documentId: target.kind === 'document' ? target.id : null,
		details: {
			name: await nameOf(tx, target),
			kind: target.kind,
			reason: why,
			documents: documents.length,
			inHand: held.length
		}
	});
	return documents.length;
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
		const back = await tx
			.select()
			.from(place)
			.where(and(eq(place.projectId, project.id), beneath(target.path), eq(place.removalId, fresh.removalId)))
			.orderBy(sql`length(path)`);
		for (const one of back) renamed.push(...(await bringBack(tx, one)));
		const [left] = await tx
			.select({ n: sql<number>`count(*)::int` })
			.from(place)
			.where(eq(place.removalId, fresh.removalId));
		if (left!.n === 0)
			await tx
				.update(removal)
				.set({ restoredAt: now, restoredBy: by.id })
				.where(eq(removal.id, fresh.removalId));
		const documents = back.filter((p) => p.kind === 'document').length;
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

/** Makes one removed place live again, with a suffix when its name or number is taken. Gives what was renamed. */
async function bringBack(tx: Tx, gone: Place): Promise<string[]> {
	if (gone.kind === 'document') {
		const [row] = await tx.select().from(document).where(eq(document.id, gone.id));
		const free = await freeVariant(row!.number, 'R', async (number) => {
			const taken = await tx
				.select({ id: document.id })
				.from(document)
				.where(
					and(eq(document.projectId, row!.projectId), eq(document.number, number), eq(document.live, true))
				);
			return taken.length > 0;
		});
		await tx.update(document).set({ live: true, number: free }).where(eq(document.id, gone.id));
		await tx
			.update(place)
			.set({ removalId: null, nameKey: nameKey(free) })
			.where(eq(place.id, gone.id));
		return free === row!.number ? [] : [`${row!.number} → ${free}`];
	}
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
