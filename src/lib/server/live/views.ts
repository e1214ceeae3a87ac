import { and, eq } from 'drizzle-orm';
import * as Y from 'yjs';
import * as contract from '../../contract/live';
import { roomMode, type LiveKind } from '../../core/live/live';
import { Problem } from '../../core/acts/problem';
import { plainEdits } from '../../core/drawing/item';
import { ownersOf, readBase, readEdits } from '../../core/drawing/shared';
import { readSchedule } from '../../core/schedule/shared';
import { whoWrote } from '../../core/text/authorship';
import { readText } from '../../core/text/shared';
import { allows } from '../../core/access/levels';
import { answers } from '../platform/runner/act';
import { openLock } from '../platform/runner/held';
import { among, type Querier } from '../platform/db';
import { content, document, liveCut, livePicture, liveWriter, person, version } from '../platform/db/schema';

/** The room of a live document. Raises `not-found` for a plain file. */
async function roomOf(db: Querier, documentId: string): Promise<string> {
	return (await liveOf(db, documentId)).room;
}

async function liveOf(db: Querier, documentId: string): Promise<{ room: string; kind: LiveKind }> {
	const [row] = await db
		.select({ room: document.room, kind: document.kind })
		.from(document)
		.where(eq(document.id, documentId));
	if (!row?.room || row.kind === 'file')
		throw new Problem('not-found', 'This is a file; it is not edited together.');
	return { room: row.room, kind: row.kind };
}

/** The room of a live document of one kind. Raises `not-found` for any other. */
async function roomOfKind(db: Querier, documentId: string, kind: LiveKind): Promise<string> {
	const found = await liveOf(db, documentId);
	if (found.kind !== kind) throw new Problem('not-found', `This is no live ${kind}.`);
	return found.room;
}

export const liveRoom = answers(contract.liveRoom, {
	async run({ db, project, level, reach, person: me, place }) {
		const { room, kind } = await liveOf(db, place.id);
		const held = await openLock(db, place.id);
		return {
			room,
			projectId: project.id,
			mode: roomMode(kind, level, held !== null && held.holderId !== me.id),
			departments: [...reach.subject.departments]
		};
	}
});

export const liveText = answers(contract.liveText, {
	async run({ db, services, place }) {
		const room = await roomOfKind(db, place.id, 'text');
		return { text: await services.rooms.read(room, (doc) => readText(doc).toJSON() as unknown) };
	}
});

export const liveSchedule = answers(contract.liveSchedule, {
	async run({ db, services, place }) {
		const room = await roomOfKind(db, place.id, 'schedule');
		return services.rooms.read(room, (doc) => readSchedule(doc));
	}
});

export const liveDrawing = answers(contract.liveDrawing, {
	async run({ db, services, place }) {
		const room = await roomOfKind(db, place.id, 'drawing');
		return services.rooms.read(room, (doc) => ({
			base: readBase(doc).label,
			owners: ownersOf(doc).toJSON() as Record<string, string>,
			...plainEdits(readEdits(doc))
		}));
	}
});

export const liveNames = answers(contract.liveNames, {
	async run({ db, place }) {
		const room = await roomOf(db, place.id);
		return {
			people: await db
				.selectDistinct({ id: person.id, name: person.name })
				.from(liveWriter)
				.innerJoin(person, eq(person.id, liveWriter.personId))
				.where(eq(liveWriter.room, room))
		};
	}
});

/** The live state a version was cut from, or the state now. */
async function snapshotOf(
	db: Querier,
	{ documentId, room }: { documentId: string; room: string },
	label: string,
	doc: Y.Doc
): Promise<Y.Snapshot | null> {
	if (label === 'now') return Y.snapshot(doc);
	const [row] = await db
		.select({ snapshot: liveCut.snapshot })
		.from(version)
		.leftJoin(liveCut, and(eq(liveCut.versionId, version.id), eq(liveCut.room, room)))
		.where(and(eq(version.documentId, documentId), eq(version.label, label)));
	if (!row) throw new Problem('not-found', `There is no version ${label}.`);
	// Before it was edited together, nothing of it had been written by anybody.
	return row.snapshot ? Y.decodeSnapshot(row.snapshot) : null;
}

export const liveAuthors = answers(contract.liveAuthors, {
	async run({ db, services, place }, input) {
		const name = await roomOfKind(db, place.id, 'text');
		await services.rooms.record.flush(name);
		const state = await services.rooms.record.load(db, name);
		const doc = new Y.Doc({ gc: false });
		if (state) Y.applyUpdate(doc, state);
		const at = { documentId: place.id, room: name };
		const from = input.from ? await snapshotOf(db, at, input.from, doc) : null;
		const to = (await snapshotOf(db, at, input.to, doc)) ?? Y.snapshot(doc);
		const { writers, removals } = await services.rooms.record.writers(db, name);
		const passages = whoWrote(doc, from, to, writers, removals);
		const ids = new Set(passages.flatMap((p) => p.runs.flatMap((r) => r.by ?? [])));
		const people = await db
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(among(person.id, ids));
		return { passages, people };
	}
});

/** The stored bytes of a picture that stands in a live text. */
export const livePictureContent = answers(contract.livePictureContent, {
	async run({ db, place, level }, input) {
		const [row] = await db
			.select({ hash: content.hash, mediaType: content.mediaType, size: content.size })
			.from(livePicture)
			.innerJoin(content, eq(content.hash, livePicture.hash))
			.where(and(eq(livePicture.documentId, place.id), eq(livePicture.hash, input.content)));
		if (!row) throw new Problem('not-found', 'There is no such picture.');
		return { ...row, fileName: 'picture', mayGive: allows(level, 'download') };
	}
});
