import { eq, sql, type SQL } from 'drizzle-orm';
import { groupedBy } from '../../core/lists/group';
import { isStale } from '../../core/locks/locks';
import { allows } from '../../core/access/levels';
import type { DocumentRow } from '../../core/documents/rows';
import { nameKey } from '../../core/files/names';
import type { Reach } from '../access/reach';
import type { Project } from '../platform/runner/act';
import { among, type Querier } from '../platform/db';
import { content, document, lock, person, place, releaseItem, seen, version } from '../platform/db/schema';

/** Most rows of one answer; lists that can be longer come in pages. */
const MOST_ROWS = 5_000;

/** A page of a list: so many rows after the one with this number; from the first on when none is named. */
export interface Page {
	limit: number;
	after: string | undefined;
}

/** One page of ids by number, found in the index before anything is joined to them. */
const idsOfPage = (where: SQL, { limit, after }: Page): SQL => sql`${place.id} = any(array(
	select ${place.id} from ${place} where ${where}${after === undefined ? sql`` : sql` and ${place.nameKey} > ${nameKey(after)}`}
	order by ${place.nameKey} limit ${limit}))`;

/**
 * Rows of documents as lists show them, for one reader.
 * @param where which documents; the caller has put access into it. With a page it may name columns of places only
 */
export async function documentRows(
	db: Querier,
	{ project, reach, readerId }: { project: Project; reach: Reach; readerId: string },
	where: SQL,
	now: Date,
	page?: Page
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
			kind: document.kind,
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
		.where(page ? idsOfPage(where, page) : where)
		.orderBy(page ? place.nameKey : document.number, document.id)
		.limit(page?.limit ?? MOST_ROWS);
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
			kind: row.kind,
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
			folder: allows(reach.level(around.folders.get(row.folder!) ?? ''), 'view') ? row.folder : null,
			held: reach.level(row.scope) ?? 'view',
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

interface Around extends Record<string, unknown> {
	folders: { id: string; scope: string }[];
	locks: {
		id: string;
		holder: string;
		holderId: string;
		takenAt: string;
		purpose: string;
		expectedEnd: string | null;
	}[];
	looked: { id: string; at: string }[];
	names: { id: string; name: string }[];
	releases: { id: string; versionId: string; number: number; state: string }[];
	seenUntil: string | null;
}

/** The rows of a small question as one JSON list, so that many such questions are one round trip. */
const gathered = (of: SQL) => sql`coalesce((select json_agg(found) from (${of}) found), '[]')`;

/**
 * What stands around documents in lists. Few rows each, so each is its own small question within one round trip:
 * joined to the documents they took longer to plan than to answer, and asked singly longer to send.
 */
async function surroundings(
	db: Querier,
	projectId: string,
	readerId: string,
	rows: { id: string; folder: string | null; changedById: string | null }[]
) {
	const ids = rows.map((r) => r.id);
	const [around] = await db.execute<Around>(sql`select
		${gathered(sql`select id, scope from place
			where ${among(place.id, new Set(rows.map((r) => r.folder!)))}`)} as folders,
		${gathered(sql`select document_id as id, person.name as holder, holder_id as "holderId", taken_at as "takenAt",
				purpose, expected_end as "expectedEnd"
			from lock join person on person.id = holder_id
			where ${among(lock.documentId, ids)} and ended_at is null`)} as locks,
		${gathered(sql`select document_id as id, at from seen
			where person_id = ${readerId} and ${among(seen.documentId, ids)}`)} as looked,
		${gathered(sql`select id, name from person
			where ${among(person.id, new Set(rows.flatMap((r) => r.changedById ?? [])))}`)} as names,
		${gathered(sql`select document_id as id, version_id as "versionId", release.number, release.state
			from release_item join release on release.id = release_id
			where ${among(releaseItem.documentId, ids)} and release.state in ('in-review', 'approved', 'issued')`)} as releases,
		(select seen_until from member where project_id = ${projectId} and person_id = ${readerId}) as "seenUntil"`);
	const { folders, locks, looked, names, releases, seenUntil } = around!;
	const byDocument = groupedBy(releases, (one) => one.id);
	return {
		folders: new Map(folders.map((f) => [f.id, f.scope])),
		locks: new Map(
			locks.map((l) => [
				l.id,
				{ ...l, takenAt: new Date(l.takenAt), expectedEnd: l.expectedEnd ? new Date(l.expectedEnd) : null }
			])
		),
		looked: new Map(looked.map((l) => [l.id, Date.parse(l.at)])),
		seenUntil: seenUntil ? new Date(seenUntil).getTime() : 0,
		names: new Map(names.map((n) => [n.id, n.name])),
		releases: byDocument
	};
}

function frozenOf(reach: Reach, path: string): DocumentRow['frozen'] {
	const freeze = reach.freezeAt(path);
	return freeze && { by: freeze.by, reason: freeze.reason };
}
