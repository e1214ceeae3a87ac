import { and, eq, inArray } from 'drizzle-orm';
import * as contract from '../../contract/places';
import { allows } from '../../core/access/levels';
import { propose } from '../../core/numbering/numbering';
import { Problem } from '../../core/acts/problem';
import { content, document, version } from '../platform/db/schema';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { chosenPlaces, placesWithin, targetFolder, wayBeneath } from './chosen';
import { createDocument, markSeen } from '../documents/acts';
import { addFolder } from './acts';
import type { SeenPlace } from '../platform/runner/locate';

type InProject = ContextOf['project'] & Acting;

/** The chosen documents and those in chosen folders, with the folders on the way, that the person may take. */
async function taken(context: InProject, input: { documents: string[]; folders: string[] }, doing: string) {
	const asked = await chosenPlaces(context, input);
	const tops = asked.filter((p) => p.kind !== 'document');
	const all = new Map([...asked, ...(await placesWithin(context, tops))].map((p) => [p.id, p]));
	const documents = [...all.values()].filter((p) => p.kind === 'document');
	const refused = documents.filter((p) => !allows(context.reach.held(p, p, ['inHand']), 'download'));
	if (refused.length)
		throw new Problem(
			'needs-level',
			`${doing} needs Download on every one of these; “${refused[0]!.name}” is only to be looked at. Nothing was done.`,
			{ needed: 'download', refused: refused.length }
		);
	return { documents, tops, all };
}

const newestOf = ({ tx }: InProject, ids: string[]) =>
	tx
		.select({
			id: document.id,
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
		.where(inArray(document.id, ids))
		.orderBy(document.number);

export const copyDocuments = does(contract.copyDocuments, {
	async run(context, input) {
		const { tx, project } = context;
		const { documents, tops, all } = await taken(context, input, 'Copying');
		const target = await targetFolder(context, input.to);
		if (tops.some((t) => target.path.startsWith(t.path)))
			throw new Problem('conflict', 'A folder cannot be copied into itself.');
		const inUse = new Set(
			(
				await tx
					.select({ number: document.number })
					.from(document)
					.where(and(eq(document.projectId, project.id), eq(document.live, true)))
			).map((d) => d.number)
		);
		// The folders first, each in its copy; they come in the order of their depth.
		const copies = new Map<string, string>();
		for (const one of all.values())
			if (one.kind !== 'document')
				copies.set(one.id, await addFolder(context, copies.get(one.parentId ?? '') ?? target.id, one.name));
		const home = (one: SeenPlace) => copies.get(one.parentId ?? '') ?? target.id;
		const made: { id: string; number: string }[] = [];
		const rule = project.settings.numbering;
		for (const row of await newestOf(
			context,
			documents.map((p) => p.id)
		)) {
			const parts = row.number.split(rule.separator);
			const like = Object.fromEntries(rule.parts.flatMap((p, i) => (parts[i] ? [[p.key, parts[i]!]] : [])));
			const next = propose(rule, '', like, inUse).number;
			inUse.add(next);
			const what = {
				number: next,
				title: row.title,
				note: input.note || `Copied from ${row.number} ${row.label}`
			};
			const { id, number } = await createDocument(context, home(all.get(row.id)!), row, what);
			made.push({ id, number });
		}
		return { documents: made, folders: tops.map((t) => copies.get(t.id)!) };
	}
});

export const downloadMany = does(contract.downloadMany, {
	async run(context, input) {
		const { tx, person: by, now, tell } = context;
		const { documents, tops, all } = await taken(context, input, 'Downloading');
		const rows = await newestOf(
			context,
			documents.map((p) => p.id)
		);
		if (!rows.length) throw new Problem('invalid', 'There are no documents in it that you may look at.');
		for (const row of rows) {
			await markSeen(tx, by.id, row.id, now);
			tell({
				kind: 'document.downloaded',
				placeId: row.id,
				documentId: row.id,
				details: { number: row.number, label: row.label, hash: row.hash }
			});
		}
		return { files: rows.map((row) => ({ ...row, way: wayBeneath(all.get(row.id)!, tops, all) })) };
	}
});
