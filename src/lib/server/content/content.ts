import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { sizeText } from '../../core/files/sizes';
import { normaliseName } from '../../core/files/names';
import { daysLater } from '../../core/time/spans';
import type { Reach } from '../access/reach';
import { live } from '../access/reach';
import type { Querier } from '../platform/db';
import { content, document, place, upload, version, type Inspection } from '../platform/db/schema';
import { HEAD_BYTES, sniff } from '../formats/sniff';
import { newId } from '../platform/ids';
import type { Services } from '../platform/services';
import { TooLarge } from '../platform/store/store';

/** Advisory lock that keeps the cleaning of unused content apart from what arrives. */
const CLEANING = 4681;

/** Who sends: a member, whoever came through a hatch, or who answers by a pass. */
export type Sender = { personId: string } | { hatchId: string } | { passId: string };

/** What taking in a file answers with. */
export interface Received {
	upload: string;
	hash: string;
	size: number;
	mediaType: string;
	fileName: string;
}

/**
 * Takes in the bytes of one file as they come, keeps them by hash and notes who sent them. The file belongs to
 * no document until an act uses the upload.
 *
 * @param limit most bytes; raises `too-large` past it, `invalid` for an empty file or a bad name
 */
export async function receive(
	services: Services,
	sender: Sender,
	rawName: string,
	source: AsyncIterable<Uint8Array>,
	limit: number,
	now = new Date()
): Promise<Received> {
	const named = normaliseName(rawName);
	if ('fault' in named) throw new Problem('invalid', named.sentence);
	const head: Uint8Array[] = [];
	let kept = 0;
	async function* watched() {
		for await (const chunk of source) {
			if (kept < HEAD_BYTES) {
				head.push(chunk.slice(0, HEAD_BYTES - kept));
				kept += Math.min(chunk.byteLength, HEAD_BYTES - kept);
			}
			yield chunk;
		}
	}
	const { hash, size } = await services.store.put(watched(), limit).catch((error: unknown) => {
		if (error instanceof TooLarge)
			throw new Problem(
				'too-large',
				`The file is larger than the project allows (${sizeText(limit)}). Nothing was kept.`,
				{ limit }
			);
		return fullDisk(error);
	});
	if (size === 0) throw new Problem('invalid', 'The file is empty. It was not kept.');
	const id = newId();
	const file = { hash, size, head: Buffer.concat(head), name: named.name };
	return noteUpload(services, id, sender, file, now);
}

/**
 * Notes that bytes in the store were sent by somebody, who can now use them in acts.
 * @param file its hash and size, its first bytes (which tell its kind) and its name
 */
export async function noteUpload(
	services: Services,
	id: string,
	sender: Sender,
	file: { hash: string; size: number; head: Uint8Array; name: string },
	now: Date
): Promise<Received> {
	const { hash, size, name } = file;
	const mediaType = await sniff(file.head, name, (from, length) => bytesAt(services, hash, from, length));
	await services.database.db.transaction(async (tx) => {
		await tx.execute(sql`select pg_advisory_xact_lock_shared(${CLEANING})`);
		if (!(await services.store.has(hash)))
			throw new Problem('busy', 'The store was being cleaned. Send the file again.');
		await tx.insert(content).values({ hash, size, mediaType, createdAt: now }).onConflictDoNothing();
		await tx
			.insert(upload)
			.values({ id, ...sender, hash, fileName: name, createdAt: now })
			.onConflictDoNothing();
	});
	return { upload: id, hash, size, mediaType, fileName: name };
}

/** Bytes of stored content from a place on, fewer at its end. */
async function bytesAt(services: Services, hash: string, from: number, length: number): Promise<Uint8Array> {
	const pieces: Buffer[] = [];
	for await (const piece of services.store.read(hash, { start: from, end: from + length - 1 }))
		pieces.push(piece as Buffer);
	return Buffer.concat(pieces);
}

/** Content that Cupboard itself made and keeps. */
export interface Kept {
	hash: string;
	size: number;
}

/**
 * Keeps bytes that Cupboard made (a text written as a file). Where nothing refers to them within two days, they are cleaned
 * away. Raises `full` when the disk is.
 */
export async function keepMade(
	services: Services,
	bytes: Uint8Array,
	mediaType: string,
	now: Date
): Promise<Kept> {
	const { hash, size } = await services.store.put(onePiece(bytes), bytes.byteLength).catch(fullDisk);
	await services.database.db.transaction(async (tx) => {
		await tx.execute(sql`select pg_advisory_xact_lock_shared(${CLEANING})`);
		if (!(await services.store.has(hash)))
			throw new Problem('busy', 'The store was being cleaned. Try again.');
		// What was made before counts as made now: it must not be cleaned away before it is referred to.
		await tx
			.insert(content)
			.values({ hash, size, mediaType, createdAt: now })
			.onConflictDoUpdate({ target: content.hash, set: { createdAt: now } });
	});
	return { hash, size };
}

async function* onePiece(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
	yield await Promise.resolve(bytes);
}

function fullDisk(error: unknown): never {
	if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
		throw new Problem(
			'full',
			'The disk of the server is full. The file was not kept; tell whoever looks after the server.'
		);
	throw error;
}

/** Documents the person may look at whose any version has these very bytes. */
export async function sameBytes(
	db: Querier,
	reach: Reach,
	hash: string
): Promise<{ id: string; number: string; title: string; label: string }[]> {
	return db
		.select({ id: document.id, number: document.number, title: document.title, label: version.label })
		.from(version)
		.innerJoin(document, eq(document.id, version.documentId))
		.innerJoin(place, eq(place.id, document.id))
		.where(and(eq(version.hash, hash), live(), reach.sees(place.scope)))
		.orderBy(document.number, version.seq)
		.limit(5);
}

const sentBy = (sender: Sender) =>
	'personId' in sender
		? eq(upload.personId, sender.personId)
		: 'hatchId' in sender
			? eq(upload.hatchId, sender.hatchId)
			: eq(upload.passId, sender.passId);

/** Finds uploads of a sender from within the last day, in the order asked. Raises `invalid` for any other. */
export async function ownUploads(db: Querier, sender: Sender, ids: string[], now: Date) {
	const rows = await db
		.select({
			id: upload.id,
			hash: upload.hash,
			fileName: upload.fileName,
			mediaType: content.mediaType,
			size: content.size
		})
		.from(upload)
		.innerJoin(content, eq(content.hash, upload.hash))
		.where(and(inArray(upload.id, ids), sentBy(sender), gt(upload.createdAt, daysLater(now, -1))));
	return ids.map((id) => {
		const found = rows.find((r) => r.id === id);
		if (!found)
			throw new Problem('invalid', 'A file was not received whole, or more than a day ago. Send it again.');
		return found;
	});
}

/** The inspection of stored content, made now when there is none yet. */
export async function inspection(services: Services, db: Querier, hash: string): Promise<Inspection> {
	const [row] = await db.select().from(content).where(eq(content.hash, hash));
	if (!row) throw new Problem('not-found', 'The content is not there.');
	if (row.inspection) return row.inspection;
	const made = await services.inspector.inspect(hash, row.mediaType, row.size);
	await services.database.db.update(content).set({ inspection: made }).where(eq(content.hash, hash));
	return made;
}

/** Drops uploads nobody used for a day, and content that nothing refers to any more. */
export async function cleanUploads(services: Services, now: Date): Promise<void> {
	const before = daysLater(now, -2).toISOString();
	await services.database.db.transaction(async (tx) => {
		await tx.execute(sql`select pg_advisory_xact_lock(${CLEANING})`);
		await tx.execute(sql`delete from upload where created_at < ${before}`);
		await tx.execute(sql`delete from arrival where state = 'refused' and decided_at < ${before}`);
		const orphans = await tx.execute<{ hash: string }>(sql`
			delete from content c where c.created_at < ${before}
				and not exists (select 1 from version v where v.hash = c.hash)
				and not exists (select 1 from upload u where u.hash = c.hash)
				and not exists (select 1 from side_version s where s.hash = c.hash)
				and not exists (select 1 from live_picture l where l.hash = c.hash)
				and not exists (select 1 from arrival a where a.hash = c.hash and a.state <> 'refused')
				and not exists (select 1 from release r where r.cover_note_hash = c.hash)
				and not exists (select 1 from release_recipient rr where rr.cover_note_hash = c.hash)
				and not exists (select 1 from mail m where m.attachment_hash = c.hash)
				and not exists (select 1 from verdict_file f where f.hash = c.hash)
				and not exists (select 1 from release_item i where c.hash in (i.pinned_hash, i.copy_hash))
			returning c.hash`);
		for (const { hash } of orphans) {
			await services.store.remove(hash);
			await services.inspector.forget(hash);
		}
	});
}
