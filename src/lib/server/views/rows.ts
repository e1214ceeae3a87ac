import { and, eq, inArray, isNull, type SQL } from 'drizzle-orm';
import { isStale } from '../../core/locks';
import { allows } from '../../core/access/levels';
import type { DocumentRow } from '../../core/rows';
import type { Reach } from '../access';
import type { Project } from '../acts/act';
import { among, type Querier } from '../db';
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
	return rows.map((r) => r.id);
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
	const rows = await db
		.select({
			id: document.id,
			folder: place.parentId,
			scope: place.scope,
			path: place.path,
			closed: place.closed,
			number: document.number,
			title: document.title,
			tags: document.tags,
			state: document.state,
			label: version.label,
			issued: version.issued,
			note: version.note,
			versions: document.versions,
			versionId: version.id,
			changedAt: document.changedAt,
			changedById: document.changedBy,
			fileName: version.fileName,
			hash: version.hash,
			mediaType: content.mediaType,
			size: content.size,
			preview: content.preview
		})
		.from(place)
		.innerJoin(document, eq(document.id, place.id))
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.innerJoin(content, eq(content.hash, version.hash))
		.where(
			page.offset === undefined ? where : among(place.id, await pageOf(db, where, page.limit, page.offset))
		)
		.orderBy(document.number, document.id)
		.limit(page.limit);
	if (!rows.length) return [];
	const around = await surroundings(db, project.id, readerId, rows);
	// Field by field: spreading rows of twenty fields took as long as asking for them.
	return rows.map((row) => {
		const held = around.locks.get(row.id);
		const looked = around.looked.get(row.id) ?? 0;
		const releases = around.releases.get(row.id) ?? [];
		return {
			id: row.id,
			scope: row.scope,
			closed: row.closed,
			number: row.number,
			title: row.title,
			tags: row.tags,
			state: row.state,
			label: row.label,
			issued: row.issued,
			note: row.note,
			versions: row.versions,
			fileName: row.fileName,
			hash: row.hash,
			mediaType: row.mediaType,
			size: row.size,
			preview: row.preview,
			folder: allows(reach.level(around.folders.get(row.folder!) ?? ''), 'look') ? row.folder : null,
			level: reach.level(row.scope) ?? 'look',
			frozen: frozenOf(reach, row.path),
			changedAt: row.changedAt.toISOString(),
			changedBy: (row.changedById && around.names.get(row.changedById)) ?? null,
			isNew: row.changedById !== readerId && row.changedAt.getTime() > Math.max(around.seenUntil, looked),
			inRelease: highest(releases.filter((r) => r.state !== 'issued')),
			withClient: highest(releases.filter((r) => r.state === 'issued' && r.versionId === row.versionId)),
			lock: held
				? {
						holder: held.holder,
						mine: held.holderId === readerId,
						since: held.takenAt.toISOString(),
						purpose: held.purpose,
						expectedEnd: held.expectedEnd?.toISOString() ?? null,
						stale: isStale(
							{ takenAt: held.takenAt.getTime(), expectedEnd: held.expectedEnd?.getTime() ?? null },
							project.settings.lockLimitDays,
							now.getTime()
						)
					}
				: null
		};
	});
}

const highest = (releases: { number: number }[]) =>
	releases.length ? Math.max(...releases.map((r) => r.number)) : null;

/**
 * What stands around documents in lists: few rows each, so they are asked for by their own small questions. In one
 * question with ten joins, planning alone took longer than all of these.
 */
async function surroundings(
	db: Querier,
	projectId: string,
	readerId: string,
	rows: { id: string; folder: string | null; changedById: string | null }[]
) {
	const ids = rows.map((r) => r.id);
	const [folders, locks, looked, [reader], names, releases] = await Promise.all([
		db
			.select({ id: place.id, scope: place.scope })
			.from(place)
			.where(among(place.id, new Set(rows.map((r) => r.folder!)))),
		db
			.select({
				id: lock.documentId,
				holder: person.name,
				holderId: lock.holderId,
				takenAt: lock.takenAt,
				purpose: lock.purpose,
				expectedEnd: lock.expectedEnd
			})
			.from(lock)
			.innerJoin(person, eq(person.id, lock.holderId))
			.where(and(among(lock.documentId, ids), isNull(lock.endedAt))),
		db
			.select({ id: seen.documentId, at: seen.at })
			.from(seen)
			.where(and(eq(seen.personId, readerId), among(seen.documentId, ids))),
		db
			.select({ seenUntil: member.seenUntil })
			.from(member)
			.where(and(eq(member.projectId, projectId), eq(member.personId, readerId))),
		db
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(among(person.id, new Set(rows.flatMap((r) => r.changedById ?? [])))),
		db
			.select({
				id: releaseItem.documentId,
				versionId: releaseItem.versionId,
				number: release.number,
				state: release.state
			})
			.from(releaseItem)
			.innerJoin(release, eq(release.id, releaseItem.releaseId))
			.where(
				and(among(releaseItem.documentId, ids), inArray(release.state, ['in-review', 'approved', 'issued']))
			)
	]);
	const byDocument = new Map<string, typeof releases>();
	for (const one of releases) byDocument.set(one.id, [...(byDocument.get(one.id) ?? []), one]);
	return {
		folders: new Map(folders.map((f) => [f.id, f.scope])),
		locks: new Map(locks.map((l) => [l.id, l])),
		looked: new Map(looked.map((l) => [l.id, l.at.getTime()])),
		seenUntil: reader?.seenUntil.getTime() ?? 0,
		names: new Map(names.map((n) => [n.id, n.name])),
		releases: byDocument
	};
}

function frozenOf(reach: Reach, path: string): DocumentRow['frozen'] {
	const freeze = reach.freezeAt(path);
	return freeze && { by: freeze.by, reason: freeze.reason };
}
