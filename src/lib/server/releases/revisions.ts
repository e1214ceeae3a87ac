import { and, desc, eq, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Querier } from '../platform/db';
import { content, releaseItem, version } from '../platform/db/schema';

/* What was issued of the documents of a release before and after it. */

/** Later issued revision of each item, if there is one, and the day it was issued. */
export async function laterRevisions(
	db: Querier,
	releaseId: string
): Promise<Map<string, { label: string; at: string }>> {
	const later = alias(version, 'later');
	const rows = await db
		.selectDistinctOn([releaseItem.documentId], {
			documentId: releaseItem.documentId,
			label: later.label,
			at: later.createdAt
		})
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(
			later,
			and(
				eq(later.documentId, releaseItem.documentId),
				eq(later.issued, true),
				sql`${later.seq} > ${version.seq}`
			)
		)
		.where(eq(releaseItem.releaseId, releaseId))
		.orderBy(releaseItem.documentId, desc(later.seq));
	return new Map(rows.map((r) => [r.documentId, { label: r.label, at: r.at.toISOString() }]));
}

/** The newest issued revision of each document of a release before the one it gets. */
export async function earlierRevisions(db: Querier, releaseId: string): Promise<Map<string, string>> {
	const earlier = alias(version, 'earlier');
	const rows = await db
		.selectDistinctOn([releaseItem.documentId], { documentId: releaseItem.documentId, label: earlier.label })
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(
			earlier,
			and(
				eq(earlier.documentId, releaseItem.documentId),
				eq(earlier.issued, true),
				sql`${earlier.seq} < ${version.seq}`
			)
		)
		.where(eq(releaseItem.releaseId, releaseId))
		.orderBy(releaseItem.documentId, desc(earlier.seq));
	return new Map(rows.map((r) => [r.documentId, r.label]));
}

/** The file of the newest issued revision of a document before the one that a release holds; null where there is none. */
export async function earlierFile(db: Querier, releaseId: string, documentId: string) {
	const earlier = alias(version, 'earlier');
	const [row] = await db
		.select({
			label: earlier.label,
			hash: earlier.hash,
			size: content.size,
			mediaType: content.mediaType,
			fileName: earlier.fileName
		})
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(
			earlier,
			and(
				eq(earlier.documentId, releaseItem.documentId),
				eq(earlier.issued, true),
				sql`${earlier.seq} < ${version.seq}`
			)
		)
		.innerJoin(content, eq(content.hash, earlier.hash))
		.where(and(eq(releaseItem.releaseId, releaseId), eq(releaseItem.documentId, documentId)))
		.orderBy(desc(earlier.seq))
		.limit(1);
	return row ?? null;
}
