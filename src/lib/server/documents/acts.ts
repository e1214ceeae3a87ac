import { and, eq, gt, sql } from 'drizzle-orm';
import * as contract from '../../contract/documents';
import { checkNumber } from '../../core/numbering/numbering';
import { nameKey } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { label, nextSave, parse } from '../../core/revisions/revisions';
import { ownUploads } from '../content/content';
import type { Tx } from '../platform/db';
import { document, event, place, seen, upload, version } from '../platform/db/schema';
import { does, type Acting, type ContextOf, type Project } from '../platform/runner/act';
import type { Held } from '../platform/runner/held';

/** Locks a place's row so that a folder cannot move or go while something is put into it. */
export async function holdStill(tx: Tx, placeId: string) {
	const [row] = await tx.select().from(place).where(eq(place.id, placeId)).for('share');
	if (!row || row.removalId) throw new Problem('conflict', 'The folder was removed a moment ago.');
	return row;
}

interface NewVersion {
	hash: string;
	fileName: string;
	note: string;
	lockKept?: boolean;
	restoredFrom?: string;
}

/** Adds the next working save to a document whose row is held. Returns the new version's label. */
export async function addSave(
	tx: Tx,
	project: Project,
	held: Pick<Held, 'row' | 'current'>,
	what: NewVersion,
	by: { personId: string; at: Date; versionId: string }
): Promise<string> {
	const scheme = project.settings.revisions;
	const current = parse(scheme, held.current.label);
	const next = label(scheme, nextSave(scheme, current));
	await tx.insert(version).values({
		id: by.versionId,
		documentId: held.row.id,
		seq: held.current.seq + 1,
		label: next,
		issued: false,
		...what,
		createdBy: by.personId,
		createdAt: by.at
	});
	await tx
		.update(document)
		.set({
			currentVersionId: by.versionId,
			versions: held.row.versions + 1,
			changedAt: by.at,
			changedBy: by.personId,
			state: 'wip'
		})
		.where(eq(document.id, held.row.id));
	return next;
}

/**
 * Puts a file into a folder as a new document. Raises `invalid` for a number that breaks the rule and `conflict` for
 * one in use.
 */
export async function createDocument(
	context: Pick<
		ContextOf['place'] & Acting,
		'tx' | 'project' | 'person' | 'now' | 'newId' | 'tell' | 'enqueue'
	>,
	folderId: string,
	file: { hash: string; fileName: string; size: number },
	what: { number: string; title: string; note: string; tags?: string[] }
): Promise<{ id: string; number: string; label: string; versionId: string }> {
	const { tx, project, person: by, now, newId, tell, enqueue } = context;
	const { number, title } = what;
	const fits = checkNumber(project.settings.numbering, number);
	if (!fits.ok) throw new Problem('invalid', fits.sentence, { field: 'number' });
	const parent = await holdStill(tx, folderId);
	const taken = await tx
		.select({ id: document.id })
		.from(document)
		.where(and(eq(document.projectId, project.id), eq(document.number, number), eq(document.live, true)));
	if (taken.length)
		throw new Problem(
			'conflict',
			`${number} is taken already. Choose another number, or hand in a new version of it.`,
			{ field: 'number' }
		);
	const documentId = newId();
	const versionId = newId();
	const first = label(project.settings.revisions, nextSave(project.settings.revisions, null));
	await tx.insert(place).values({
		id: documentId,
		projectId: project.id,
		parentId: parent.id,
		path: parent.path + documentId,
		kind: 'document',
		name: title,
		nameKey: nameKey(number),
		scope: parent.scope,
		createdBy: by.id,
		createdAt: now
	});
	await tx.insert(document).values({
		id: documentId,
		projectId: project.id,
		number,
		title,
		tags: [...new Set(what.tags)].sort(),
		currentVersionId: versionId,
		changedAt: now,
		changedBy: by.id
	});
	await tx.insert(version).values({
		id: versionId,
		documentId,
		seq: 1,
		label: first,
		issued: false,
		hash: file.hash,
		fileName: file.fileName,
		note: what.note || 'Added',
		createdBy: by.id,
		createdAt: now
	});
	await enqueue('read-content', { hash: file.hash });
	tell({
		kind: 'document.added',
		placeId: documentId,
		documentId,
		details: { number, title, label: first, hash: file.hash, size: file.size }
	});
	return { id: documentId, number, label: first, versionId };
}

/**
 * The document that an addition made whose answer was lost on the way: by the same person, of the same bytes, in the
 * same folder under the same title. An addition that is still being made is waited for.
 */
async function madeBefore(
	{ tx, person: by }: Pick<ContextOf['place'] & Acting, 'tx' | 'person'>,
	asked: { folder: string; upload: string; title: string }
): Promise<{ id: string; number: string; label: string } | undefined> {
	const [made] = await tx
		.select({ id: document.id, number: document.number, label: version.label })
		.from(upload)
		.innerJoin(version, eq(version.hash, upload.hash))
		.innerJoin(document, and(eq(document.id, version.documentId), eq(document.live, true)))
		.innerJoin(place, eq(place.id, document.id))
		.where(
			and(
				eq(upload.id, asked.upload),
				eq(version.seq, 1),
				eq(version.createdBy, by.id),
				eq(place.parentId, asked.folder),
				eq(document.title, asked.title)
			)
		)
		.limit(1);
	return made;
}

export const addDocument = does(contract.addDocument, {
	async run(context, input) {
		const [file] = await ownUploads(context.tx, { personId: context.person.id }, [input.upload], context.now);
		await context.tx.select({ id: upload.id }).from(upload).where(eq(upload.id, input.upload)).for('update');
		const before = input.again ? await madeBefore(context, input) : undefined;
		if (before) return before;
		const { id, number, label } = await createDocument(context, context.place.id, file!, input);
		return { id, number, label };
	}
});

export const restoreVersion = does(contract.restoreVersion, {
	async run({ tx, project, document: held, person: by, now, newId, tell }, input) {
		const [old] = await tx
			.select()
			.from(version)
			.where(and(eq(version.documentId, input.document), eq(version.label, input.label)));
		if (!old) throw new Problem('not-found', `There is no version ${input.label}.`);
		if (old.hash === held.current.hash)
			throw new Problem(
				'conflict',
				`${input.label} has the same content as ${held.current.label}, the newest version.`
			);
		const next = await addSave(
			tx,
			project,
			held,
			{
				hash: old.hash,
				fileName: old.fileName,
				note: input.note || `Restored from ${old.label}`,
				restoredFrom: old.id,
				lockKept: held.open !== null
			},
			{ personId: by.id, at: now, versionId: newId() }
		);
		tell({
			kind: 'version.restored',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: next, from: old.label, hash: old.hash }
		});
		return { label: next };
	}
});

/** How long a download that goes on in parts counts as one, in milliseconds. */
const ONE_DOWNLOAD = 12 * 3_600_000;

/**
 * Whether a part of a file goes on with a download that was noted when it began: by the same person, browser or pass,
 * of the very same bytes.
 */
export async function goesOn(
	tx: Tx,
	what: { actor: string; kind: string; documentId: string; hash: string },
	now: Date
): Promise<boolean> {
	const [begun] = await tx
		.select({ seq: event.seq })
		.from(event)
		.where(
			and(
				eq(event.documentId, what.documentId),
				eq(event.kind, what.kind),
				eq(event.actor, what.actor),
				gt(event.at, new Date(now.getTime() - ONE_DOWNLOAD)),
				sql`details->>'hash' = ${what.hash}`
			)
		)
		.limit(1);
	return begun !== undefined;
}

/** Remembers that somebody looked at a document, so that it is no longer new to them. */
export async function markSeen(tx: Tx, personId: string, documentId: string, at: Date): Promise<void> {
	await tx
		.insert(seen)
		.values({ personId, documentId, at })
		.onConflictDoUpdate({
			target: [seen.personId, seen.documentId],
			set: { at: sql`greatest(${seen.at}, excluded.at)` }
		});
}

export const openDocument = does(contract.openDocument, {
	async run({ tx, person: by, self, now, tell }, input) {
		const [row] = await tx
			.select({ number: document.number, label: version.label })
			.from(document)
			.innerJoin(
				version,
				and(
					eq(version.documentId, document.id),
					input.label ? eq(version.label, input.label) : eq(version.id, document.currentVersionId)
				)
			)
			.where(eq(document.id, input.document));
		if (!row) throw new Problem('not-found', 'There is no such version.');
		if (self.id === by.id) await markSeen(tx, by.id, input.document, now);
		// The page says that it shows the document, and the file is fetched for it: that is one opening.
		const [before] = await tx
			.select({ seq: event.seq })
			.from(event)
			.where(
				and(
					eq(event.documentId, input.document),
					eq(event.kind, 'document.opened'),
					eq(event.actor, self.id),
					gt(event.at, new Date(now.getTime() - 60_000)),
					sql`details->>'label' = ${row.label}`
				)
			)
			.limit(1);
		if (!before)
			tell({
				kind: 'document.opened',
				placeId: input.document,
				documentId: input.document,
				details: { number: row.number, label: row.label }
			});
		return {};
	}
});

export const downloadDocument = does(contract.downloadDocument, {
	async run({ tx, person: by, now, tell }, input) {
		const [row] = await tx
			.select({
				number: document.number,
				title: document.title,
				label: version.label,
				hash: version.hash,
				fileName: version.fileName
			})
			.from(version)
			.innerJoin(document, eq(document.id, version.documentId))
			.where(and(eq(version.documentId, input.document), eq(version.label, input.label)));
		if (!row) throw new Problem('not-found', 'There is no such version.');
		await markSeen(tx, by.id, input.document, now);
		const what = { kind: 'document.downloaded', actor: by.id, documentId: input.document, hash: row.hash };
		if (input.ranged && (await goesOn(tx, what, now))) return row;
		tell({
			kind: 'document.downloaded',
			placeId: input.document,
			documentId: input.document,
			details: { number: row.number, label: row.label, hash: row.hash }
		});
		return row;
	}
});
