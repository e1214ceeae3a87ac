import { eq, inArray } from 'drizzle-orm';
import * as contract from '../../contract/places';
import { allows } from '../../core/access/levels';
import { nameKey } from '../../core/files/names';
import { checkNumber } from '../../core/numbering/numbering';
import { Problem } from '../../core/acts/problem';
import { MOST_TAGS } from '../../core/files/settle';
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
		const ids = places.map((p) => p.id);
		const rows = await tx.select().from(document).where(inArray(document.id, ids)).for('update');
		const about = new Map(rows.map((r) => [r.id, r]));
		if (input.to) {
			const folder = await targetFolder(context, input.to);
			await holdStill(tx, folder.id);
			await checkOntoDesk(context, moving, folder);
			for (const one of folders) if (one.parentId !== folder.id) await moveWhole(context, one.id, folder.id);
			for (const one of moving) {
				if (one.parentId === folder.id) continue;
				await tx
					.update(place)
					.set({
						parentId: folder.id,
						path: folder.path + one.id,
						// What has entries of its own keeps them; all else follows the new place.
						scope: one.scope === one.id ? one.id : folder.scope
					})
					.where(eq(place.id, one.id));
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
		}
		if (tagging)
			for (const one of rows) {
				const tags = [...new Set([...one.tags.filter((t) => !input.untag.includes(t)), ...input.tag])].sort();
				if (tags.length > MOST_TAGS)
					throw new Problem(
						'invalid',
						`${one.number} would have more than ${MOST_TAGS} tags. Nothing was changed.`
					);
				if (tags.join() === one.tags.join()) continue;
				await tx.update(document).set({ tags }).where(eq(document.id, one.id));
				tell({
					kind: 'document.tagged',
					placeId: one.id,
					documentId: one.id,
					details: { number: one.number, tags }
				});
			}
		return {
			documents: places.map((p) => ({ id: p.id, from: p.parentId, tags: about.get(p.id)!.tags })),
			folders: folders.map((p) => ({ id: p.id, from: p.parentId }))
		};
	}
});
