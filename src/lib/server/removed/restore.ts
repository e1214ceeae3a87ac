import { and, eq, inArray, isNull, ne, notInArray, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { allows, type Level } from '../../core/access/levels';
import { nameKey } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { daysLater } from '../../core/time/spans';
import { beneath, idsOf, live } from '../access/reach';
import type { Tx } from '../platform/db';
import { document, place, removal } from '../platform/db/schema';
import type { Acting, ContextOf, Place } from '../platform/runner/act';
import { namesOf } from './names';

/** A place that was removed, and what who restores it holds there. */
type Gone = Place & { removalId: string; level: Level | null };

/** Brings removed places back with all that went with them, in few statements, and tells each. Holds the tree. */
export async function bringBackAll(
	{ tx, project, reach, person: by, now, tell }: ContextOf['project'] & Acting,
	targets: Gone[]
): Promise<{ documents: number; folders: string[]; renamed: string[] }> {
	// What went with a folder comes with it.
	const tops = targets.filter(
		(one) =>
			!targets.some(
				(other) => other !== one && other.removalId === one.removalId && one.path.startsWith(other.path)
			)
	);
	const ids = [...new Set(tops.map((one) => one.removalId))];
	const removals = new Map(
		(await tx.select().from(removal).where(inArray(removal.id, ids))).map((one) => [one.id, one])
	);
	for (const { removalId, level } of tops) {
		const { removedBy, removedAt } = removals.get(removalId)!;
		if (!level || (!allows(level, 'organise') && removedBy !== by.id))
			throw new Problem('needs-level', 'Only who removed it, or somebody with Organise, can restore it.', {
				needed: 'organise',
				...(level ? { held: level } : {})
			});
		if (now > daysLater(removedAt, project.settings.retentionDays))
			throw new Problem(
				'conflict',
				`It was removed more than ${project.settings.retentionDays} days ago and can no longer be restored.`
			);
	}

	// Folders above that are gone too come back with it, but not what else was in them (R2).
	const above = [...new Set(tops.flatMap((one) => idsOf(one.path).slice(0, -1)))];
	const goneAbove = above.length
		? await tx
				.select()
				.from(place)
				.where(and(inArray(place.id, above), live(true)))
				.orderBy(place.path)
		: [];
	const asked = new Set(tops.map((one) => one.id));
	const led = new Map<string, Place[]>(tops.map((one) => [one.id, []]));
	const renamed = new Map<string, string[]>(tops.map((one) => [one.id, []]));
	for (const folder of goneAbove.filter((one) => !asked.has(one.id))) {
		const first = tops.find((one) => one.path.startsWith(folder.path))!;
		led.get(first.id)!.push(folder);
		renamed.get(first.id)!.push(...(await bringBack(tx, folder)));
	}

	const single = tops.filter((one) => one.kind === 'document').map((one) => one.id);
	const counts = new Map(single.map((one) => [one, 1]));
	for (const target of tops.filter((one) => one.kind !== 'document')) {
		// Everything removed in the same act beneath it comes back; what had been removed before stays removed.
		const back = and(
			eq(place.projectId, project.id),
			beneath(target.path),
			eq(place.removalId, target.removalId)
		)!;
		const folders = await tx
			.select()
			.from(place)
			.where(and(back, ne(place.kind, 'document')))
			.orderBy(sql`length(path)`);
		for (const folder of folders) renamed.get(target.id)!.push(...(await bringBack(tx, folder)));
		counts.set(
			target.id,
			await bringBackDocuments(tx, back, (_, said) => renamed.get(target.id)!.push(said))
		);
	}
	if (single.length)
		await bringBackDocuments(tx, and(inArray(place.id, single), live(true))!, (id, said) =>
			renamed.get(id)!.push(said)
		);

	const left = tx.select({ id: place.removalId }).from(place).where(inArray(place.removalId, ids));
	await tx
		.update(removal)
		.set({ restoredAt: now, restoredBy: by.id })
		.where(and(inArray(removal.id, ids), notInArray(removal.id, left)));

	const names = await namesOf(tx, tops);
	for (const target of tops)
		tell({
			kind: 'place.restored',
			placeId: target.id,
			documentId: target.kind === 'document' ? target.id : null,
			details: {
				name: names.get(target.id)!,
				kind: target.kind,
				documents: counts.get(target.id)!,
				folders: led.get(target.id)!.map((f) => f.name),
				folderIds: led.get(target.id)!.map((f) => f.id),
				renamed: renamed.get(target.id)!
			}
		});
	const seen = [...led.values()].flat().filter((f) => allows(reach.level(f.scope), 'view'));
	return {
		documents: [...counts.values()].reduce((sum, n) => sum + n, 0),
		folders: seen.map((f) => f.name),
		renamed: [...renamed.values()].flat()
	};
}

/**
 * Makes removed documents live again, however many, with a suffix where a number is taken by now.
 * @param back which of them, of one removal
 * @param renamed is told what was renamed, and how
 * @returns how many
 */
async function bringBackDocuments(
	tx: Tx,
	back: SQL,
	renamed: (id: string, said: string) => void
): Promise<number> {
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
		renamed(one.id, `${one.number} → ${free}`);
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
