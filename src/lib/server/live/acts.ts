import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import * as Y from 'yjs';
import * as contract from '../../contract/live';
import { HANDED_IN_AS, type LiveKind } from '../../core/live/live';
import { Problem } from '../../core/acts/problem';
import { copyOf } from '../../core/live/shared-copy';
import { keepMade, type Kept } from '../content/content';
import { among, type Querier, type Tx } from '../platform/db';
import { document, liveCut, person, version } from '../platform/db/schema';
import { type About, type Ending } from '../../core/files/media';
import { KINDS } from './rooms/kinds';
import { nameOf } from './rooms/names';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { addSave, createDocument } from '../documents/acts';
import { endLock } from '../locks/acts';

/** What every kind of live document shares: beginning, handing in, restoring and ending. */

/** The live state behind a version. */
export interface LiveState {
	state: Uint8Array;
	snapshot: Uint8Array;
	stateHash: string;
}

/** A live document as the version that is cut from it: the file, and the live state behind it. */
export interface Cut extends LiveState {
	file: Kept;
	fileName: string;
}

export function stateOf(doc: Y.Doc): LiveState {
	const snapshot = Y.encodeSnapshot(Y.snapshot(doc));
	return {
		state: Y.encodeStateAsUpdate(doc),
		snapshot,
		stateHash: createHash('sha256').update(snapshot).digest('hex')
	};
}

/** Writes a live document as an open file into the store, together with its live state. */
export async function cut(
	{ services, now }: Pick<ContextOf['place'], 'services' | 'now'>,
	kind: LiveKind,
	doc: Y.Doc,
	about: About,
	as: Ending
): Promise<Cut> {
	const file = await KINDS[kind].write(services, doc, about, as, {});
	return {
		file: await keepMade(services, file.bytes, file.mediaType, now),
		fileName: `${about.number}.${as}`,
		...stateOf(doc)
	};
}

export async function keepCut(tx: Tx, room: string, versionId: string, made: LiveState): Promise<void> {
	const { state, snapshot, stateHash } = made;
	await tx
		.insert(liveCut)
		.values({ versionId, room, state, snapshot, stateHash })
		.onConflictDoUpdate({ target: liveCut.versionId, set: { room, state, snapshot, stateHash } });
}

/** Makes a document a live one, in a room of its own, and gives the room's name. */
async function begin(
	{ tx, services, person: by, now, newId }: ContextOf['place'] & Acting,
	kind: LiveKind,
	documentId: string,
	state: Uint8Array
): Promise<string> {
	const room = nameOf({ kind, document: documentId, time: newId() });
	await services.rooms.record.make(tx, room, state, by.id, now);
	await tx
		.update(document)
		.set({ kind, room, changedAt: now, changedBy: by.id })
		.where(eq(document.id, documentId));
	return room;
}

/** Adds a new document that is live from its beginning; its first version is the file cut from it. */
export async function addLive(
	context: ContextOf['place'] & Acting,
	kind: LiveKind,
	made: Cut,
	what: { number: string; title: string; note: string; tags: string[] }
): Promise<{ id: string; number: string; label: string }> {
	const { id, number, label, versionId } = await createDocument(
		context,
		context.place.id,
		{ hash: made.file.hash, fileName: made.fileName, size: made.file.size },
		what
	);
	const room = await begin(context, kind, id, made.state);
	await keepCut(context.tx, room, versionId, made);
	return { id, number, label };
}

/**
 * Makes a file's document live: what was read of its newest version is where it begins. Raises `conflict` when it is
 * live already, `in-hand` when another has it, and `stale-base` when what was read is not the newest.
 */
export async function beginOnFile(
	context: ContextOf['document'] & Acting,
	kind: LiveKind,
	input: { base: string },
	state: LiveState
): Promise<void> {
	const { tx, tell } = context;
	const { row, current } = context.document;
	if (current.label !== input.base)
		throw new Problem(
			'stale-base',
			`${current.label} was handed in meanwhile. Open it, and begin with that.`,
			{
				newest: current.label
			}
		);
	const room = await begin(context, kind, row.id, state.state);
	// What the file says is where the live document begins.
	await keepCut(tx, room, current.id, state);
	tell({
		kind: 'live.begun',
		placeId: row.id,
		documentId: row.id,
		details: { number: row.number, label: current.label }
	});
}

export const aFile = () => new Problem('conflict', 'This is a file; it is not edited together.');

/** The live document of an act, with what it held at its newest version. */
export async function heldLive({ tx, document: held }: ContextOf['document'] & Acting) {
	const { room, kind } = held.row;
	if (!room || kind === 'file') throw aFile();
	const [last] = await tx.select().from(liveCut).where(eq(liveCut.versionId, held.current.id));
	return { held, room, kind, open: held.open, last };
}

/** What is live under a document, or raises `conflict` for a plain file. */
async function liveOf(db: Querier, documentId: string) {
	const [row] = await db
		.select({ number: document.number, title: document.title, room: document.room, kind: document.kind })
		.from(document)
		.where(eq(document.id, documentId));
	if (!row?.room || row.kind === 'file') throw aFile();
	return { ...row, room: row.room, kind: row.kind };
}

export const handInLive = does(contract.handInLive, {
	async prepare(context, input) {
		const row = await liveOf(context.tx, input.document);
		const kinds: readonly Ending[] = HANDED_IN_AS[row.kind];
		const format = input.format ?? kinds[0]!;
		if (!kinds.includes(format))
			throw new Problem('invalid', `It is kept as ${kinds.map((k) => k.toUpperCase()).join(' or ')}.`);
		const doc = await context.services.rooms.read(row.room, (live) => copyOf(live));
		return cut(context, row.kind, doc, row, format);
	},
	async run(context, input) {
		const { tx, project, person: by, now, newId, tell, enqueue } = context;
		const made = context.prepared as Cut;
		const { held, room, open, last } = await heldLive(context);
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

export const restoreLive = does(contract.restoreLive, {
	async run(context, input) {
		const { tx, services, person: by, tell } = context;
		const { held, room, kind } = await heldLive(context);
		const [old] = await tx
			.select({ state: liveCut.state, room: liveCut.room })
			.from(version)
			.innerJoin(liveCut, eq(liveCut.versionId, version.id))
			.where(and(eq(version.documentId, input.document), eq(version.label, input.label)));
		if (!old || !old.room.startsWith(`${kind}/`))
			throw new Problem(
				'not-found',
				`${input.label} was not edited together; what it says can be copied from it.`
			);
		const then = new Y.Doc({ gc: false });
		Y.applyUpdate(then, old.state);
		await services.rooms.change(room, by.id, (doc) => KINDS[kind].rewrite(doc, then));
		tell({
			kind: 'version.restored',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: `the live ${kind}`, from: input.label }
		});
		return {};
	}
});

export const endLive = does(contract.endLive, {
	async run(context, input) {
		const { tx, services, tell, person: by, now } = context;
		const { held, room, last } = await heldLive(context);
		const { stateHash } = await services.rooms.read(room, stateOf);
		if (last?.stateHash !== stateHash)
			throw new Problem('conflict', 'Something was changed since the newest version. Hand it in first.');
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

export const takeLive = does(contract.takeLive, {
	async run({ tx, services, place, tell }, { format }) {
		const row = await liveOf(tx, place.id);
		if (!KINDS[row.kind].formats.includes(format))
			throw new Problem('invalid', `A live ${row.kind} cannot be taken as ${format.toUpperCase()}.`);
		const authors = await services.rooms.read(row.room, (doc) => KINDS[row.kind].authors(doc));
		const people = authors.length
			? await tx
					.select({ id: person.id, name: person.name })
					.from(person)
					.where(among(person.id, new Set(authors)))
			: [];
		tell({
			kind: 'document.downloaded',
			placeId: place.id,
			documentId: place.id,
			details: { number: row.number, label: `live, as ${format}` }
		});
		return { ...row, names: Object.fromEntries(people.map((p) => [p.id, p.name])) };
	}
});
