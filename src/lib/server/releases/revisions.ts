import { and, desc, eq, gt, lt } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Querier } from '../platform/db';
import { content, releaseItem, version } from '../platform/db/schema';

/* What was issued of the documents of a release before and after it. */

/** An issued revision of a document of a release other than the one it holds. */
const other = alias(version, 'other');

/** The issued revisions of the documents of a release after or before the one it holds, newest first in each document. */
const otherRevisions = (db: Querier, of: { release: string; document?: string }, than: 'after' | 'before') =>
	db
		.selectDistinctOn([releaseItem.documentId], {
			documentId: releaseItem.documentId,
			label: other.label,
			at: other.createdAt,
			hash: other.hash,
			size: content.size,
			mediaType: content.mediaType,
			fileName: other.fileName
		})
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(
			other,
			and(
				eq(other.documentId, releaseItem.documentId),
				eq(other.issued, true),
				than === 'after' ? gt(other.seq, version.seq) : lt(other.seq, version.seq)
			)
		)
		.innerJoin(content, eq(content.hash, other.hash))
		.orderBy(releaseItem.documentId, desc(other.seq))
		.where(
			and(
				eq(releaseItem.releaseId, of.release),
				of.document ? eq(releaseItem.documentId, of.document) : undefined
			)
		);

/** Later issued revision of each item, if there is one, and the day it was issued. */
export async function laterRevisions(
	db: Querier,
	releaseId: string
): Promise<Map<string, { label: string; at: string }>> {
	const rows = await otherRevisions(db, { release: releaseId }, 'after');
	return new Map(rows.map((r) => [r.documentId, { label: r.label, at: r.at.toISOString() }]));
}

/** The newest issued revision of each document of a release before the one it gets. */
export async function earlierRevisions(db: Querier, releaseId: string): Promise<Map<string, string>> {
	const rows = await otherRevisions(db, { release: releaseId }, 'before');
	return new Map(rows.map((r) => [r.documentId, r.label]));
}

/** The file of the newest issued revision of a document before the one that a release holds; null where there is none. */
export async function earlierFile(db: Querier, releaseId: string, documentId: string) {
	const [row] = await otherRevisions(db, { release: releaseId, document: documentId }, 'before');
	if (!row) return null;
	const { label, hash, size, mediaType, fileName } = row;
	return { label, hash, size, mediaType, fileName };
}
