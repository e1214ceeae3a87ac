import { eq, sql } from 'drizzle-orm';
import * as contract from '../../contract/places';
import { allows } from '../../core/access/levels';
import { nameKey } from '../../core/files/names';
import { checkNumber } from '../../core/numbering/numbering';
import { Problem } from '../../core/acts/problem';
import { MOST_TAGS } from '../../core/files/settle';
import { among } from '../platform/db';
import { document, place } from '../platform/db/schema';
import { holdTree } from '../access/scopes';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { chosenPlaces, documentsWithin, targetFolder } from './chosen';
import { checkOntoDesk } from './desks';
import { holdStill } from '../documents/acts';
import { moveWhole } from './acts';
import type { SeenPlace } from '../platform/runner/locate';

type InProject = ContextOf['project'] & Acting;

/** Raises `needs-level` unless the person may tidy every document, or added it themselves. */
function checkTidy({ reach, person: by }: InProject, places: SeenPlace[], doing: string): void {
	const refused = places.filter((p) => {
		const held = reach.held(p, p);
		return !allows(held, 'organise') && !(allows(held, 'work') && p.createdBy === by.id);
	});
	if (refused.length)
		throw new Problem(
			'needs-level',
			`${doing} what others added needs Organise, and that nothing is frozen, archived or in somebody’s hand: “${refused[0]!.name}”${refused.length > 1 ? ` and ${refused.length - 1} more` : ''}. Nothing was changed.`,
			{ needed: 'organise', refused: refused.length }
		);
}

export const changeDocument = does(contract.changeDocument, {
	async run(context, input) {
		const { tx, project, tell } = context;
		const { row } = context.document;
		const next = {
			number: input.number ?? row.number,
			title: input.title ?? row.title,
			tags: input.tags ? [...new Set(input.tags)].sort() : row.tags
		};
		const same =
			next.number === row.number && next.title === row.title && next.tags.join() === row.tags.join();
		if (same) return next;
		if (next.number !== row.number) {
			const fits = checkNumber(project.settings.numbering, next.number);
			if (!fits.ok) throw new Problem('invalid', fits.sentence, { field: 'number' });
		}
		await tx.update(document).set(next).where(eq(document.id, row.id));
		await tx
			.update(place)
			.set({ name: next.title, nameKey: nameKey(next.number) })
			.where(eq(place.id, row.id));
		tell({
			kind: 'document.changed',
			placeId: row.id,
			documentId: row.id,
			details: {
				number: row.number,
				...(next.number === row.number ? {} : { to: next.number }),
				...(next.title === row.title ? {} : { from: row.title, title: next.title }),
				...(input.tags ? { tags: next.tags } : {})
			}
		});
		return next;
	}
});

const ids = (all: readonly { id: string }[]): string[] => all.map(({ id }) => id);

/** Gives documents tags and takes some from them; those that come to have the same are written together. */
async function tag(
	{ tx, tell }: InProject,
	rows: readonly (typeof document.$inferSelect)[],
	{ tag: given, untag: taken }: { tag: readonly string[]; untag: readonly string[] }
): Promise<void> {
	const alike = new Map<string, { tags: string[]; rows: (typeof rows)[number][] }>();
	for (const one of rows) {
		const tags = [...new Set([...one.tags.filter((t) => !taken.includes(t)), ...given])].sort();
		if (tags.length > MOST_TAGS)
			throw new Problem(
				'invalid',
				`${one.number} would have more than ${MOST_TAGS} tags. Nothing was changed.`
			);
		const key = JSON.stringify(tags);
		if (key === JSON.stringify(one.tags)) continue;
		const known = alike.get(key);
		if (known) known.rows.push(one);
		else alike.set(key, { tags, rows: [one] });
	}
	for (const { tags, rows: same } of alike.values()) {
		await tx
			.update(document)
			.set({ tags })
			.where(among(document.id, ids(same)));
		for (const one of same)
			tell({
				kind: 'document.tagged',
				placeId: one.id,
				documentId: one.id,
				details: { number: one.number, tags }
			});
	}
}

export const organiseDocuments = does(contract.organiseDocuments, {
	async run(context, input) {
		const { tx, project, tell } = context;
		await holdTree(tx, project.id);
		const asked = await chosenPlaces(context, input);
		const folders = asked.filter((p) => p.kind !== 'document');
		const tagging = input.tag.length > 0 || input.untag.length > 0;
		const moving = asked.filter((p) => p.kind === 'document');
		const within = tagging ? await documentsWithin(context, folders) : [];
		const places = [...moving, ...within.filter((w) => !moving.some((p) => p.id === w.id))];
		checkTidy(context, [...places, ...(input.to ? folders : [])], 'Moving and tagging');
		const rows = await tx
			.select()
			.from(document)
			.where(among(document.id, ids(places)))
			.for('update');
		const about = new Map(rows.map((r) => [r.id, r]));
		if (input.to) {
			const folder = await targetFolder(context, input.to);
			await holdStill(tx, folder.id);
			await checkOntoDesk(context, moving, folder);
			for (const one of folders) if (one.parentId !== folder.id) await moveWhole(context, one.id, folder.id);
			const moved = moving.filter((one) => one.parentId !== folder.id);
			await tx
				.update(place)
				.set({
					parentId: folder.id,
					path: sql`${folder.path} || ${place.id}`,
					// What has entries of its own keeps them; all else follows the new place.
					scope: sql`case when ${place.scope} = ${place.id} then ${place.id} else ${folder.scope} end`
				})
				.where(among(place.id, ids(moved)));
			for (const one of moved)
				tell({
					kind: 'document.moved',
					placeId: one.id,
					documentId: one.id,
					details: {
						number: about.get(one.id)!.number,
						to: folder.name,
						toId: folder.id,
						from: one.parentId
					}
				});
		}
		if (tagging) await tag(context, rows, input);
		return {
			documents: places.map((p) => ({ id: p.id, from: p.parentId, tags: about.get(p.id)!.tags })),
			folders: folders.map((p) => ({ id: p.id, from: p.parentId }))
		};
	}
});
