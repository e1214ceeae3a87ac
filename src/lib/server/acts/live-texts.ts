import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Node } from 'prosemirror-model';
import * as Y from 'yjs';
import { z } from 'zod';
import { Problem } from '../../core/problem';
import { TEXT_FORMATS } from '../../core/text/losses';
import { copyOf, emptyText, readText, rewriteText, seedText, textFromJson } from '../../core/text/shared';
import { suggestionsIn } from '../../core/text/suggestions';
import { keepMade, ownUploads, type Kept } from '../content';
import { among, type Querier, type Tx } from '../db';
import { document, liveCut, livePicture, person, version } from '../db/schema';
import { writeText } from '../formats/text/write';
import { nameOf } from '../rooms/names';
import { defineAct, type Acting, type ContextOf } from './act';
import { addSave, createDocument, holdDocument, inHand, openLock } from './documents';
import { id, name, note, number, tags } from './fields';
import { endLock } from './locks';

/** Most characters of a text as it comes in, in JSON. */
const MOST_TEXT = 6_000_000;

/** A text as JSON in the words of the schema; what does not fit is refused. */
export const textInput = z.unknown().transform((json, context): Node => {
	try {
		if (JSON.stringify(json).length > MOST_TEXT) throw new RangeError('it is too long');
		return textFromJson(json);
	} catch (error) {
		context.addIssue({
			code: 'custom',
			message: `This is no text that can be edited here: ${(error as Error).message.slice(0, 200)}.`
		});
		return z.NEVER;
	}
});

const format = z.enum(['docx', 'odt']);

/** Uploads of the pictures that stand in a text. */
const pictures = z.array(id).max(500, 'At most 500 pictures.').default([]);

const PICTURES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];

/** Puts pictures at the disposal of a live text; gives their hashes in the order of the uploads. */
async function keepPictures(
	{ tx, person: by, now }: ContextOf['place'] & Acting,
	documentId: string,
	uploads: string[]
): Promise<{ hash: string; fileName: string }[]> {
	if (!uploads.length) return [];
	const files = await ownUploads(tx, { personId: by.id }, uploads, now);
	for (const file of files)
		if (!PICTURES.includes(file.mediaType))
			throw new Problem('invalid', `${file.fileName} is no picture that can stand in a text.`);
	await tx
		.insert(livePicture)
		.values(files.map((file) => ({ documentId, hash: file.hash })))
		.onConflictDoNothing();
	return files;
}

/** The live state behind a version. */
interface LiveState {
	state: Uint8Array;
	snapshot: Uint8Array;
	stateHash: string;
}

/** A text as the version that is cut from it: the file, and the live state behind it. */
interface Cut extends LiveState {
	file: Kept;
	fileName: string;
}

function stateOf(doc: Y.Doc): LiveState {
	const snapshot = Y.encodeSnapshot(Y.snapshot(doc));
	return {
		state: Y.encodeStateAsUpdate(doc),
		snapshot,
		stateHash: createHash('sha256').update(snapshot).digest('hex')
	};
}

/** Writes a text as an open file into the store, together with its live state. */
async function cut(
	{ services, now }: Pick<ContextOf['place'], 'services' | 'now'>,
	doc: Y.Doc,
	about: { number: string; title: string },
	as: 'docx' | 'odt'
): Promise<Cut> {
	const file = await writeText(services, readText(doc), about, as);
	return {
		file: await keepMade(services, file.bytes, file.mediaType, now),
		fileName: `${about.number}.${as}`,
		...stateOf(doc)
	};
}

async function keepCut(tx: Tx, room: string, versionId: string, made: LiveState): Promise<void> {
	const { state, snapshot, stateHash } = made;
	await tx
		.insert(liveCut)
		.values({ versionId, room, state, snapshot, stateHash })
		.onConflictDoUpdate({ target: liveCut.versionId, set: { room, state, snapshot, stateHash } });
}

/** Makes a document a live text, in a room of its own, and gives the room's name. */
async function begin(
	{ tx, services, person: by, now, newId }: ContextOf['place'] & Acting,
	documentId: string,
	state: Uint8Array
): Promise<string> {
	const room = nameOf({ kind: 'text', document: documentId, time: newId() });
	await services.rooms.record.make(tx, room, state, by.id, now);
	await tx
		.update(document)
		.set({ kind: 'text', room, changedAt: now, changedBy: by.id })
		.where(eq(document.id, documentId));
	return room;
}

function seeded(text: Node): Y.Doc {
	const doc = new Y.Doc({ gc: false });
	seedText(doc, text);
	return doc;
}

export const addLiveText = defineAct({
	name: 'addLiveText',
	summary: 'Add a text to a folder that several edit at once; empty, or beginning with a given text',
	method: 'POST',
	path: '/places/{folder}/live-texts',
	input: z.object({
		folder: id,
		number,
		title: name,
		tags: tags.default([]),
		text: textInput.optional(),
		pictures,
		format: format.default('docx')
	}),
	at: { kind: 'place', id: (i) => i.folder, level: 'work', only: ['folder', 'shelf'] },
	events: ['document.added'],
	async prepare(context, input) {
		const doc = seeded(input.text ?? emptyText());
		return cut(context, doc, input, input.format);
	},
	async run(context, input) {
		const made = context.prepared as Cut;
		const created = await createDocument(
			context,
			context.place.id,
			{ hash: made.file.hash, fileName: made.fileName, size: made.file.size },
			{ ...input, note: 'Begun as live text' }
		);
		const room = await begin(context, created.id, made.state);
		await keepPictures(context, created.id, input.pictures);
		await keepCut(context.tx, room, created.versionId, made);
		return { id: created.id, number: created.number, label: created.label };
	}
});

export const workLive = defineAct({
	name: 'workLive',
	summary:
		'Work on a file live: its text becomes editable by several at once, the file stays as the version it is',
	method: 'POST',
	path: '/documents/{document}/live',
	input: z.object({ document: id, base: z.string().max(20), text: textInput, pictures }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['live.begun'],
	async run(context, input) {
		const { tx, person: by, tell } = context;
		const { row, current } = await holdDocument(tx, input.document);
		const open = await openLock(tx, input.document);
		if (open && open.holderId !== by.id) throw inHand(open);
		if (row.kind !== 'file') throw new Problem('conflict', 'This is worked on live already.');
		if (current.label !== input.base)
			throw new Problem(
				'stale-base',
				`${current.label} was handed in meanwhile. Open it, and begin with that.`,
				{ newest: current.label }
			);
		const doc = seeded(input.text);
		const room = await begin(context, row.id, Y.encodeStateAsUpdate(doc));
		// What the file says is where the live text begins.
		await keepCut(tx, room, current.id, stateOf(doc));
		await keepPictures(context, row.id, input.pictures);
		tell({
			kind: 'live.begun',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number, label: current.label }
		});
		return {};
	}
});

const aFile = () => new Problem('conflict', 'This is a file; it is not worked on live.');

/** The live document of an act, held; raises `conflict` for a plain file and `in-hand` when another has it. */
async function heldLive({ tx, person: by }: ContextOf['place'] & Acting, documentId: string) {
	const held = await holdDocument(tx, documentId);
	const { room } = held.row;
	if (!room) throw aFile();
	const open = await openLock(tx, documentId);
	if (open && open.holderId !== by.id) throw inHand(open);
	const [last] = await tx.select().from(liveCut).where(eq(liveCut.versionId, held.current.id));
	return { held, room, open, last };
}

async function preparedCut(
	context: ContextOf['place'] & { tx: Querier },
	documentId: string,
	as: 'docx' | 'odt'
): Promise<Cut> {
	const [row] = await context.tx
		.select({ number: document.number, title: document.title, room: document.room })
		.from(document)
		.where(eq(document.id, documentId));
	if (!row?.room) throw aFile();
	const doc = await context.services.rooms.read(row.room, (live) => copyOf(live));
	return cut(context, doc, row, as);
}

export const handInLive = defineAct({
	name: 'handInLive',
	summary:
		'Cut a version of a live text: an open file with the live state behind it; a lock of one’s own ends',
	method: 'POST',
	path: '/documents/{document}/live/versions',
	input: z.object({
		document: id,
		note: note.refine((text) => text.length > 0, 'Say what changed.'),
		format: format.default('docx')
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['version.handed-in'],
	prepare: (context, input) => preparedCut(context, input.document, input.format),
	async run(context, input) {
		const { tx, project, person: by, now, newId, tell, enqueue } = context;
		const made = context.prepared as Cut;
		const { held, room, open, last } = await heldLive(context, input.document);
		if (last?.stateHash === made.stateHash)
			throw new Problem('conflict', `Nothing was changed since ${held.current.label}.`);
		const versionId = newId();
		const next = await addSave(
			tx,
			project,
			held,
			{ hash: made.file.hash, fileName: made.fileName, note: input.note },
			{ personId: by.id, at: now, versionId }
		);
		await keepCut(tx, room, versionId, made);
		if (open) await endLock(context, open, 'handed-in', held.row);
		await enqueue('read-content', { hash: made.file.hash });
		tell({
			kind: 'version.handed-in',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: next, note: input.note, hash: made.file.hash, live: true }
		});
		return { label: next };
	}
});

export const restoreLive = defineAct({
	name: 'restoreLive',
	summary:
		'Bring a live text back to what an earlier version said; what was written since stays in the history',
	method: 'POST',
	path: '/documents/{document}/live/versions/{label}/restore',
	input: z.object({ document: id, label: z.string().max(20) }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['version.restored'],
	async run(context, input) {
		const { tx, services, person: by, tell } = context;
		const { held, room } = await heldLive(context, input.document);
		const [old] = await tx
			.select({ state: liveCut.state })
			.from(version)
			.innerJoin(liveCut, eq(liveCut.versionId, version.id))
			.where(and(eq(version.documentId, input.document), eq(version.label, input.label)));
		if (!old)
			throw new Problem(
				'not-found',
				`${input.label} was not worked on live; what it says can be copied from it.`
			);
		const then = new Y.Doc({ gc: false });
		Y.applyUpdate(then, old.state);
		const text = readText(then);
		await services.rooms.change(room, by.id, (doc) => rewriteText(doc, text));
		tell({
			kind: 'version.restored',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: 'the live text', from: input.label }
		});
		return {};
	}
});

export const endLive = defineAct({
	name: 'endLive',
	summary: 'Stop working on a text live: it is a file again, at its newest version',
	method: 'DELETE',
	path: '/documents/{document}/live',
	input: z.object({ document: id }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['live.ended'],
	async run(context, input) {
		const { tx, services, tell, person: by, now } = context;
		const { held, room, last } = await heldLive(context, input.document);
		const snapshot = await services.rooms.read(room, (doc) => Y.encodeSnapshot(Y.snapshot(doc)));
		if (last?.stateHash !== createHash('sha256').update(snapshot).digest('hex'))
			throw new Problem('conflict', 'Something was written since the newest version. Hand it in first.');
		await tx
			.update(document)
			.set({ kind: 'file', room: null, changedAt: now, changedBy: by.id })
			.where(eq(document.id, input.document));
		tell({
			kind: 'live.ended',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: held.current.label }
		});
		return {};
	}
});

export const addLivePicture = defineAct({
	name: 'addLivePicture',
	summary: 'Put a picture at the disposal of a live text; give it a place in the text by its hash',
	method: 'POST',
	path: '/documents/{document}/live/pictures',
	input: z.object({ document: id, upload: id }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['live.picture-added'],
	async run(context, input) {
		const { held } = await heldLive(context, input.document);
		const [file] = await keepPictures(context, input.document, [input.upload]);
		context.tell({
			kind: 'live.picture-added',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, file: file!.fileName, hash: file!.hash }
		});
		return { content: file!.hash };
	}
});

export const takeLiveText = defineAct({
	name: 'takeLiveText',
	summary: 'Note that a live text is taken as a file, and say what to write',
	method: 'POST',
	path: '/documents/{document}/live/taken',
	input: z.object({ document: id, format: z.enum(TEXT_FORMATS) }),
	at: { kind: 'place', id: (i) => i.document, level: 'take', only: ['document'] },
	events: ['document.downloaded'],
	async run({ tx, services, place, tell }, input) {
		const [row] = await tx
			.select({ number: document.number, title: document.title, room: document.room })
			.from(document)
			.where(eq(document.id, place.id));
		if (!row?.room) throw aFile();
		const text = await services.rooms.read(row.room, (doc) => readText(doc));
		const authors = suggestionsIn(text).map((s) => s.author);
		const people = await tx
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(among(person.id, new Set(authors)));
		tell({
			kind: 'document.downloaded',
			placeId: place.id,
			documentId: place.id,
			details: { number: row.number, label: `live, as ${input.format}` }
		});
		return {
			number: row.number,
			title: row.title,
			names: Object.fromEntries(people.map((p) => [p.id, p.name])),
			text: text.toJSON() as unknown
		};
	}
});
