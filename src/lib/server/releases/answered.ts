import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import { and, asc, eq, inArray, max } from 'drizzle-orm';
import { groupedBy } from '../../core/lists/group';
import { releaseNumber } from '../../core/releases';
import type { Querier, Tx } from '../platform/db';
import {
	content,
	sideVersion,
	verdictFile,
	verdictMark,
	verdictRemark,
	type release
} from '../platform/db/schema';
import type { Acting, ContextOf } from '../platform/runner/act';
import type { GotItem } from './got';

/** What comes with the verdicts of a pass beside their words: remarks placed and marks drawn on sheets, and marked-up files. */

type PlacedRemark = typeof verdictRemark.$inferSelect;

/** Remarks that were placed by some passes, in their order. */
function placedBy(db: Querier, passes: readonly string[]): Promise<PlacedRemark[]> {
	return passes.length
		? db
				.select()
				.from(verdictRemark)
				.where(inArray(verdictRemark.passId, [...passes]))
				.orderBy(asc(verdictRemark.documentId), asc(verdictRemark.number))
		: Promise.resolve([]);
}

export type DrawnMark = typeof verdictMark.$inferSelect;

/** Marks that were drawn by some passes, lowest first. */
async function drawnBy(db: Querier, passes: readonly string[]): Promise<DrawnMark[]> {
	return passes.length
		? db
				.select()
				.from(verdictMark)
				.where(inArray(verdictMark.passId, [...passes]))
				.orderBy(asc(verdictMark.documentId), asc(verdictMark.createdAt), asc(verdictMark.id))
		: [];
}

/** Files that were sent along by some passes, in the order in which they came. */
async function filesBy(db: Querier, passes: readonly string[]) {
	return passes.length
		? db
				.select({
					id: verdictFile.id,
					passId: verdictFile.passId,
					documentId: verdictFile.documentId,
					hash: verdictFile.hash,
					fileName: verdictFile.fileName,
					side: verdictFile.side,
					size: content.size
				})
				.from(verdictFile)
				.innerJoin(content, eq(content.hash, verdictFile.hash))
				.where(inArray(verdictFile.passId, [...passes]))
				.orderBy(asc(verdictFile.createdAt), asc(verdictFile.id))
		: [];
}
export type SentFile = Awaited<ReturnType<typeof filesBy>>[number];

/** What comes with one verdict beside its words. */
export interface Along {
	placed: readonly PlacedRemark[];
	drawn: readonly DrawnMark[];
	files: readonly SentFile[];
}

/** Everything that comes with the verdicts of some passes, asked for by pass and document. */
export async function alongBy(
	db: Querier,
	passes: readonly string[]
): Promise<(passId: string | null, documentId: string) => Along> {
	const of = (one: { passId: string; documentId: string }) => `${one.passId} ${one.documentId}`;
	const placed = groupedBy(await placedBy(db, passes), of);
	const drawn = groupedBy(await drawnBy(db, passes), of);
	const files = groupedBy(await filesBy(db, passes), of);
	return (passId, documentId) => {
		const key = `${passId} ${documentId}`;
		return { placed: placed.get(key) ?? [], drawn: drawn.get(key) ?? [], files: files.get(key) ?? [] };
	};
}

/**
 * Marks as they are kept for good: canonical JSON (RFC 8785), each with who drew it and when. Its SHA-256 goes into the
 * trail when they are signed, and it goes into the package of the release.
 */
export const drawnList = (drawn: readonly DrawnMark[]): string =>
	canonicalize(
		drawn.map(({ drawn: mark, drawnBy: by, createdAt }) => ({ ...mark, by, at: createdAt.toISOString() }))
	)!;
export const drawnHash = (drawn: readonly DrawnMark[]): string =>
	createHash('sha256').update(drawnList(drawn)).digest('hex');

/** How many bytes of marked-up files a pass has sent so far. */
export async function sentBytes(db: Querier, passId: string): Promise<number> {
	return (await filesBy(db, [passId])).reduce((sum, one) => sum + one.size, 0);
}

/** Keeps files that came with signed verdicts beside the line of their documents, under the name of who sent them. */
export async function setFilesBeside(
	{
		tx,
		now,
		newId,
		tell,
		enqueue
	}: Pick<ContextOf['pass'] & Acting, 'tx' | 'now' | 'newId' | 'tell' | 'enqueue'>,
	about: typeof release.$inferSelect,
	by: string,
	files: readonly SentFile[],
	items: readonly GotItem[]
): Promise<void> {
	for (const file of files) {
		const item = items.find((one) => one.documentId === file.documentId)!;
		const side = await nextSide(tx, file.documentId);
		const note = `Marked up by ${by}, with the verdict on ${item.chosenLabel} in release ${releaseNumber(about.number)}`;
		await tx.insert(sideVersion).values({
			id: newId(),
			documentId: file.documentId,
			number: side,
			baseVersionId: item.versionId,
			hash: file.hash,
			fileName: file.fileName,
			note,
			// Who answers by a pass has no account; what they send hangs on who issued it, under their own name.
			createdBy: about.issuedBy!,
			fromName: by,
			createdAt: now
		});
		await tx.update(verdictFile).set({ side }).where(eq(verdictFile.id, file.id));
		await enqueue('read-content', { hash: file.hash });
		tell({
			kind: 'version.set-beside',
			placeId: file.documentId,
			documentId: file.documentId,
			details: { number: item.number, side, note, hash: file.hash, size: file.size, release: about.number }
		});
	}
}

async function nextSide(tx: Tx, documentId: string): Promise<number> {
	const [last] = await tx
		.select({ number: max(sideVersion.number) })
		.from(sideVersion)
		.where(and(eq(sideVersion.documentId, documentId)));
	return (last?.number ?? 0) + 1;
}
