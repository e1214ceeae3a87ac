import { and, eq, inArray, isNull, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { isStale } from '../../core/locks';
import { allows } from '../../core/access/levels';
import type { DocumentRow } from '../../core/rows';
import type { Reach } from '../access';
import type { Project } from '../acts/act';
import type { Querier } from '../db';
import {
	content,
	document,
	lock,
	member,
	person,
	place,
	release,
	releaseItem,
	seen,
	version
} from '../db/schema';

/** Most rows of one answer; lists that can be longer come in pages. */
const MOST_ROWS = 5_000;

/** The ids of one page by number, found in the index before anything is joined to them. */
async function pageOf(db: Querier, where: SQL, limit: number, offset: number): Promise<string[]> {
	const rows = await db
		.select({ id: place.id })
		.from(place)
		.where(where)
		.orderBy(place.nameKey, place.id)
		.limit(limit)
		.offset(offset);
	// Nothing is in an empty list, and SQL has no empty lists.
	return rows.length ? rows.map((r) => r.id) : [''];
}

/**
 * Rows of documents as lists show them, for one reader.
 * @param where which documents; the caller has put access into it. With an offset it may name columns of places only
 */
export async function documentRows(
	db: Querier,
	{ project, reach, readerId }: { project: Project; reach: Reach; readerId: string },
	where: SQL,
	now: Date,
	page: { limit: number; offset?: number } = { limit: MOST_ROWS }
): Promise<DocumentRow[]> {
	const changer = sql.identifier('changer');
	const parent = alias(place, 'parent_place');
	const rows = await db
		.select({
			id: document.id,
			folder: place.parentId,
			scope: place.scope,
			path: place.path,
			closed: place.closed,
			parentScope: parent.scope,
			number: document.number,
			title: document.title,
			state: document.state,
			label: version.label,
			issued: version.issued,
			note: version.note,
			versions: document.versions,
			changedAt: document.changedAt,
			changedBy: sql<string | null>`${changer}.name`,
			changedById: document.changedBy,
			fileName: version.fileName,
			hash: version.hash,
			mediaType: content.mediaType,
			size: content.size,
			preview: content.preview,
			lockHolder: person.name,
			lockHolderId: lock.holderId,
			lockSince: lock.takenAt,
			lockPurpose: lock.purpose,
			lockEnd: lock.expectedEnd,
			isNew: sql<boolean>`${document.changedAt} > greatest(${member.seenUntil}, ${seen.at}) and ${document.changedBy} is distinct from ${readerId}`,
			inRelease: sql<
				number | null
			>`(select max(r.number) from ${releaseItem} i join ${release} r on r.id = i.release_id
				where i.document_id = ${document.id} and r.state in ('in-review', 'approved'))`,
			withClient: sql<
				number | null
			>`(select max(r.number) from ${releaseItem} i join ${release} r on r.id = i.release_id
				where i.document_id = ${document.id} and r.state = 'issued' and i.version_id = ${document.currentVersionId})`
		})
		.from(place)
		.innerJoin(document, eq(document.id, place.id))
		.innerJoin(parent, eq(parent.id, place.parentId))
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.innerJoin(content, eq(content.hash, version.hash))
		.innerJoin(member, and(eq(member.projectId, place.projectId), eq(member.personId, readerId)))
		.leftJoin(sql`${person} as ${changer}`, sql`${changer}.id = ${document.changedBy}`)
		.leftJoin(lock, and(eq(lock.documentId, document.id), isNull(lock.endedAt)))
		.leftJoin(person, eq(person.id, lock.holderId))
		.leftJoin(seen, and(eq(seen.documentId, document.id), eq(seen.personId, readerId)))
		.where(
			page.offset === undefined ? where : inArray(place.id, await pageOf(db, where, page.limit, page.offset))
		)
		.orderBy(document.number, document.id)
		.limit(page.limit);
	return rows.map(
		({ lockHolder, lockHolderId, lockSince, lockPurpose, lockEnd, path, parentScope, ...row }) => ({
			...row,
			folder: allows(reach.level(parentScope), 'look') ? row.folder : null,
			level: reach.level(row.scope) ?? 'look',
			frozen: frozenOf(reach, path),
			changedAt: row.changedAt.toISOString(),
			lock:
				lockHolderId && lockSince
					? {
							holder: lockHolder ?? '',
							mine: lockHolderId === readerId,
							since: lockSince.toISOString(),
							purpose: lockPurpose ?? '',
							expectedEnd: lockEnd?.toISOString() ?? null,
							stale: isStale(
								{ takenAt: lockSince.getTime(), expectedEnd: lockEnd?.getTime() ?? null },
								project.settings.lockLimitDays,
								now.getTime()
							)
						}
					: null
		})
	);
}

function frozenOf(reach: Reach, path: string): DocumentRow['frozen'] {
	const freeze = reach.freezeAt(path);
	return freeze && { by: freeze.by, reason: freeze.reason };
}
