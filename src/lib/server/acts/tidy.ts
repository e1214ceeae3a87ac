import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { allows } from '../../core/access/levels';
import { nameKey } from '../../core/names';
import { checkNumber, propose } from '../../core/numbering/numbering';
import { Problem } from '../../core/problem';
import { MOST_TAGS } from '../../core/settle';
import { content, document, place, version } from '../db/schema';
import { holdTree } from '../scopes';
import { defineAct, type Acting, type ContextOf } from './act';
import { createDocument, holdDocument, holdStill, markSeen, openLock } from './documents';
import { id, name, note, number, projectKey, tag, tags } from './fields';
import { inHand, visiblePlaces, type SeenPlace } from './locate';

type InProject = ContextOf['project'] & Acting;

/** Documents of one act. */
const many = z.array(id).min(1, 'Choose documents first.').max(1_000, 'At most 1,000 at a time.');

/** The documents by id that the person may look at. Raises `not-found` when one is missing. */
async function chosen({ tx, reach }: InProject, ids: string[]): Promise<SeenPlace[]> {
	const wanted = [...new Set(ids)].sort();
	const found = (await visiblePlaces(tx, reach, wanted)).filter((p) => p.kind === 'document');
	if (found.length < wanted.length)
		throw new Problem('not-found', 'One of these is not there, or nothing that you may look at.');
	return found.sort((a, b) => (a.id < b.id ? -1 : 1));
}

/** Raises `needs-level` unless the person may tidy every document, or added it themselves. */
function checkTidy({ reach, person: by }: InProject, places: SeenPlace[], doing: string): void {
	const refused = places.filter((p) => {
		const held = reach.held(p, p);
		return !allows(held, 'tidy') && !(allows(held, 'work') && p.createdBy === by.id);
	});
	if (refused.length)
		throw new Problem(
			'needs-level',
			`${doing} what others added needs Tidy, and that nothing is frozen, archived or in somebody’s hand: “${refused[0]!.name}”${refused.length > 1 ? ` and ${refused.length - 1} more` : ''}. Nothing was changed.`,
			{ needed: 'tidy', refused: refused.length }
		);
}

/** A folder or shelf where the person may work. */
async function target({ tx, reach }: InProject, to: string): Promise<SeenPlace> {
	const [found] = await visiblePlaces(tx, reach, [to]);
	if (!found || found.kind === 'document')
		throw new Problem('not-found', 'The folder to put them into is not there.');
	if (!allows(reach.held(found, found), 'work'))
		throw new Problem('needs-level', `This needs Work in ${found.name}.`, { needed: 'work' });
	return found;
}

export const changeDocument = defineAct({
	name: 'changeDocument',
	summary: 'Change the number, title or tags of a document',
	method: 'PATCH',
	path: '/documents/{document}',
	input: z.strictObject({
		document: id,
		number: number.optional(),
		title: name.optional(),
		tags: tags.optional()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['document.changed'],
	async run(context, input) {
		const { tx, project, place: here, person: by, tell } = context;
		checkTidy(context, await chosen(context, [here.id]), 'Changing');
		const { row } = await holdDocument(tx, input.document);
		const open = await openLock(tx, input.document);
		if (open && open.holderId !== by.id) throw inHand(open);
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

export const tidyDocuments = defineAct({
	name: 'tidyDocuments',
	summary: 'Move documents to another folder, tag them or take tags from them: all of them or none',
	method: 'POST',
	path: '/projects/{project}/documents/tidy',
	input: z.strictObject({
		project: projectKey,
		documents: many,
		to: id.optional(),
		tag: z.array(tag).max(MOST_TAGS).default([]),
		untag: z.array(tag).max(MOST_TAGS).default([])
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['document.moved', 'document.tagged'],
	async run(context, input) {
		const { tx, project, tell } = context;
		await holdTree(tx, project.id);
		const places = await chosen(context, input.documents);
		checkTidy(context, places, 'Moving and tagging');
		const ids = places.map((p) => p.id);
		const rows = await tx.select().from(document).where(inArray(document.id, ids)).for('update');
		const about = new Map(rows.map((r) => [r.id, r]));
		if (input.to) {
			const folder = await target(context, input.to);
			await holdStill(tx, folder.id);
			for (const one of places) {
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
		if (input.tag.length || input.untag.length)
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
		return { documents: places.map((p) => ({ id: p.id, from: p.parentId, tags: about.get(p.id)!.tags })) };
	}
});

export const copyDocuments = defineAct({
	name: 'copyDocuments',
	summary:
		'Copy documents into a folder as new documents, each with its newest content and the next free number',
	method: 'POST',
	path: '/projects/{project}/documents/copies',
	input: z.strictObject({ project: projectKey, documents: many, to: id, note: note.default('') }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['document.added'],
	async run(context, input) {
		const { tx, project, reach } = context;
		const places = await chosen(context, input.documents);
		if (places.some((p) => !allows(reach.held(p, p, ['inHand']), 'take')))
			throw new Problem('needs-level', 'Copying needs Take on every one of these. Nothing was copied.');
		await target(context, input.to);
		const rows = await tx
			.select({
				number: document.number,
				title: document.title,
				label: version.label,
				hash: version.hash,
				fileName: version.fileName,
				size: content.size
			})
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.innerJoin(content, eq(content.hash, version.hash))
			.where(
				inArray(
					document.id,
					places.map((p) => p.id)
				)
			)
			.orderBy(document.number);
		const taken = new Set(
			(
				await tx
					.select({ number: document.number })
					.from(document)
					.where(and(eq(document.projectId, project.id), eq(document.live, true)))
			).map((d) => d.number)
		);
		const made: { id: string; number: string }[] = [];
		for (const row of rows) {
			const rule = project.settings.numbering;
			const parts = row.number.split(rule.separator);
			const like = Object.fromEntries(rule.parts.flatMap((p, i) => (parts[i] ? [[p.key, parts[i]!]] : [])));
			const next = propose(rule, '', like, taken).number;
			taken.add(next);
			const what = {
				number: next,
				title: row.title,
				note: input.note || `Copied from ${row.number} ${row.label}`
			};
			made.push(await createDocument(context, input.to, row, what));
		}
		return { documents: made };
	}
});

export const downloadMany = defineAct({
	name: 'downloadMany',
	summary: 'Note the download of the newest versions of several documents and say which bytes to send',
	method: 'POST',
	path: '/projects/{project}/documents/download',
	input: z.strictObject({ project: projectKey, documents: many }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['document.downloaded'],
	async run(context, input) {
		const { tx, reach, person: by, now, tell } = context;
		const places = await chosen(context, input.documents);
		if (places.some((p) => !allows(reach.held(p, p, ['inHand']), 'take')))
			throw new Problem('needs-level', 'One of these is only to be looked at. Nothing was downloaded.');
		const rows = await tx
			.select({
				id: document.id,
				number: document.number,
				label: version.label,
				hash: version.hash,
				fileName: version.fileName
			})
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.where(
				inArray(
					document.id,
					places.map((p) => p.id)
				)
			)
			.orderBy(document.number);
		for (const row of rows) {
			await markSeen(tx, by.id, row.id, now);
			tell({
				kind: 'document.downloaded',
				placeId: row.id,
				documentId: row.id,
				details: { number: row.number, label: row.label, hash: row.hash }
			});
		}
		return { files: rows };
	}
});
