import { and, asc, eq, inArray, ne, or, sql, type SQL } from 'drizzle-orm';
import { z } from 'zod';
import { allows, levelLabel } from '../../core/access/levels';
import { beneath, idsOf, live, type Reach } from '../access';
import { defineView, type Place } from '../acts/act';
import { id, projectKey } from '../acts/fields';
import type { Querier } from '../db';
import { department, departmentMember, folderCount, person, place, release } from '../db/schema';
import { ID_LENGTH } from '../ids';

/** The names on the way to a place, shelf first; what one may not look at above it is left out (A10). */
export async function breadcrumb(
	db: Querier,
	target: Place,
	reach: Reach
): Promise<{ id: string; name: string; kind: string; code: string | null }[]> {
	const ids = idsOf(target.path);
	const rows = await db
		.select({ id: place.id, name: place.name, kind: place.kind, code: department.code })
		.from(place)
		.leftJoin(department, eq(department.id, place.departmentId))
		.where(and(inArray(place.id, ids), reach.sees(place.scope)));
	return ids.flatMap((one) => rows.find((r) => r.id === one) ?? []);
}

/** Which counts of folders are the reader's to know. */
function countsSeen(reach: Reach): SQL {
	if (reach.subject.controller) return sql`true`;
	const scopes = reach.scopes();
	return scopes.length ? inArray(folderCount.scope, scopes) : sql`false`;
}

interface Total {
	documents: number;
	lastAt: Date | null;
	lastBy: string | null;
}

/** Documents beneath the places of one depth (0 for shelves) within a path, with the last change of each. */
async function totals(db: Querier, reach: Reach, depth: number, within = ''): Promise<Map<string, Total>> {
	const rows = await db.execute<{
		at: string;
		documents: number;
		last_at: string | null;
		last_by: string | null;
	}>(sql`
		select substr(${place.path}, ${depth * ID_LENGTH + 1}::int, ${ID_LENGTH}::int) as at, sum(${folderCount.documents})::int as documents,
			max(${folderCount.lastAt}) as last_at,
			(array_agg(${folderCount.lastBy} order by ${folderCount.lastAt} desc nulls last))[1] as last_by
		from ${place} join ${folderCount} on ${folderCount.folderId} = ${place.id}
		where ${place.projectId} = ${reach.subject.projectId} and ${place.kind} <> 'document' and ${countsSeen(reach)}
			and ${within ? beneath(within) : sql`true`} and length(${place.path}) > ${depth * ID_LENGTH}
		group by 1`);
	return new Map(
		rows.map((r) => [
			r.at,
			{ documents: r.documents, lastAt: r.last_at ? new Date(r.last_at) : null, lastBy: r.last_by }
		])
	);
}

/** What is in hand, by the id at one depth of the way. */
async function inHandAt(db: Querier, reach: Reach, depth: number): Promise<Map<string, number>> {
	const rows = await db.execute<{ at: string; n: number }>(sql`
		select substr(${place.path}, ${depth * ID_LENGTH + 1}::int, ${ID_LENGTH}::int) as at, count(*)::int as n
		from lock l join ${place} on ${place.id} = l.document_id
		where l.ended_at is null and ${place.projectId} = ${reach.subject.projectId} and ${live()} and ${reach.sees(place.scope)}
		group by 1`);
	return new Map(rows.map((r) => [r.at, r.n]));
}

/** Most changes looked through for counting what is new to somebody. */
const MOST_NEWS = 50_000;

/** What others changed since the reader looked, by the id at one depth of the way. */
async function newsAt(db: Querier, reach: Reach, depth: number): Promise<Map<string, number>> {
	const { projectId, personId } = reach.subject;
	const rows = await db.execute<{ at: string; n: number }>(sql`
		select substr(${place.path}, ${depth * ID_LENGTH + 1}::int, ${ID_LENGTH}::int) as at, count(*)::int as n
		from (
			select d.id, d.changed_at from document d
			where d.project_id = ${projectId} and d.live and d.changed_by is distinct from ${personId}
				and d.changed_at > (select seen_until from member where project_id = ${projectId} and person_id = ${personId})
			order by d.changed_at desc limit ${MOST_NEWS}
		) d
		join ${place} on ${place.id} = d.id
		left join seen s on s.document_id = d.id and s.person_id = ${personId}
		where (s.at is null or d.changed_at > s.at) and ${live()} and ${reach.sees(place.scope)}
		group by 1`);
	return new Map(rows.map((r) => [r.at, r.n]));
}

async function namesOfPeople(db: Querier, ids: (string | null)[]): Promise<Map<string, string>> {
	const wanted = [...new Set(ids.filter((one): one is string => one !== null))];
	if (!wanted.length) return new Map();
	const rows = await db
		.select({ id: person.id, name: person.name })
		.from(person)
		.where(inArray(person.id, wanted));
	return new Map(rows.map((r) => [r.id, r.name]));
}

/** Places that can be seen though the place around them cannot: given for themselves. */
async function givenAlone(db: Querier, reach: Reach): Promise<Place[]> {
	if (reach.subject.controller) return [];
	const scopes = reach.scopes();
	if (!scopes.length) return [];
	const rows = await db
		.select()
		.from(place)
		.where(and(inArray(place.id, scopes), ne(place.kind, 'shelf'), live()))
		.orderBy(asc(place.name));
	const parents = rows.length
		? await db
				.select({ id: place.id, scope: place.scope })
				.from(place)
				.where(
					inArray(
						place.id,
						rows.map((r) => r.parentId!)
					)
				)
		: [];
	return rows.filter(
		(r) => !allows(reach.level(parents.find((p) => p.id === r.parentId)?.scope ?? ''), 'look')
	);
}

export const shelves = defineView({
	name: 'shelves',
	summary:
		'The shelves you reach, with a box for each folder and true counts; and what was given to you alone',
	path: '/projects/{project}/shelves',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach }) {
		const [places, alone, byShelf, byBox, heldShelf, heldBox, newShelf, newBox, departments] =
			await Promise.all([
				db
					.select()
					.from(place)
					.where(
						and(
							eq(place.projectId, project.id),
							live(),
							reach.sees(place.scope),
							ne(place.kind, 'document'),
							sql`length(${place.path}) <= ${2 * ID_LENGTH}`
						)
					)
					.orderBy(asc(place.createdAt), asc(place.name)),
				givenAlone(db, reach),
				totals(db, reach, 0),
				totals(db, reach, 1),
				inHandAt(db, reach, 0),
				inHandAt(db, reach, 1),
				newsAt(db, reach, 0),
				newsAt(db, reach, 1),
				db
					.select({
						id: department.id,
						code: department.code,
						name: department.name,
						position: department.position,
						people: sql<number>`count(${departmentMember.personId})::int`,
						lead: sql<string | null>`min(${person.name}) filter (where ${departmentMember.lead})`
					})
					.from(department)
					.leftJoin(departmentMember, eq(departmentMember.departmentId, department.id))
					.leftJoin(person, eq(person.id, departmentMember.personId))
					.where(eq(department.projectId, project.id))
					.groupBy(department.id)
			]);
		const names = await namesOfPeople(
			db,
			[...byBox.values()].map((t) => t.lastBy)
		);
		const boxOf = (box: Place) => {
			const total = byBox.get(box.id);
			return {
				id: box.id,
				name: box.name,
				documents: total?.documents ?? 0,
				inHand: heldBox.get(box.id) ?? 0,
				fresh: newBox.get(box.id) ?? 0,
				lastAt: total?.lastAt?.toISOString() ?? null,
				lastBy: total?.lastBy ? (names.get(total.lastBy) ?? null) : null,
				frozen: reach.freezeAt(box.path) !== null,
				closed: box.closed,
				lookOnly: !allows(reach.level(box.scope), 'take')
			};
		};
		const list = places
			.filter((p) => p.kind === 'shelf')
			.map((shelf) => {
				const owner = departments.find((d) => d.id === shelf.departmentId) ?? null;
				const level = reach.level(shelf.scope)!;
				const freeze = reach.freezeAt(shelf.path);
				return {
					id: shelf.id,
					name: shelf.name,
					level: levelLabel(level),
					lookOnly: !allows(level, 'take'),
					frozen: freeze && { by: freeze.by, reason: freeze.reason },
					position: owner?.position ?? 1_000,
					department: owner && { code: owner.code, name: owner.name, lead: owner.lead, people: owner.people },
					documents: byShelf.get(shelf.id)?.documents ?? 0,
					inHand: heldShelf.get(shelf.id) ?? 0,
					fresh: newShelf.get(shelf.id) ?? 0,
					boxes: places.filter((p) => p.parentId === shelf.id).map(boxOf)
				};
			});
		return {
			shelves: list.sort((a, b) => a.position - b.position || a.name.localeCompare(b.name)),
			alone: alone.map((p) => ({
				id: p.id,
				name: p.name,
				kind: p.kind,
				level: levelLabel(reach.level(p.scope)!),
				lookOnly: !allows(reach.level(p.scope), 'take')
			})),
			drops: await dropsOf(db, reach),
			overdue: reach.subject.controller ? await overdueReleases(db, project.id) : []
		};
	}
});

/** Places into which the reader may put files without seeing anything there: their ids, and not even a name. */
async function dropsOf(db: Querier, reach: Reach): Promise<{ id: string; by: string | null }[]> {
	const scopes = [...reach.levels].filter(([, level]) => level === 'drop').map(([scope]) => scope);
	if (!scopes.length) return [];
	const rows = await db.execute<{ id: string; by: string | null }>(sql`
		select p.id, (select giver.name from access_grant g join person giver on giver.id = g.granted_by
			where g.place_id = p.id and g.level = 'drop' limit 1) as by
		from ${place} p where p.id in ${scopes} and p.removal_id is null and p.kind <> 'document'`);
	return [...rows];
}

async function overdueReleases(db: Querier, projectId: string) {
	return db
		.select({ number: release.number, replyBy: release.replyBy })
		.from(release)
		.where(
			and(
				eq(release.projectId, projectId),
				eq(release.state, 'issued'),
				sql`reply_by < current_date::text`,
				sql`exists (select 1 from release_item i where i.release_id = ${release.id} and not exists (
					select 1 from verdict v join pass p on p.id = v.pass_id where p.release_id = ${release.id} and v.document_id = i.document_id and v.signed_at is not null))`
			)
		);
}

export const folder = defineView({
	name: 'folder',
	summary: 'A shelf or folder: the way to it, the folders around it, what you may do',
	path: '/places/{place}',
	input: z.object({ place: id }),
	at: { kind: 'place', id: (i) => i.place, level: 'look', only: ['shelf', 'folder'] },
	async run({ db, project, place: here, level, reach, person: me }) {
		const way = idsOf(here.path);
		// Shown are the shelves, and at every step of the way down the folders beside it and in it.
		const shown = await db
			.select({
				id: place.id,
				parentId: place.parentId,
				name: place.name,
				kind: place.kind,
				path: place.path,
				closed: place.closed,
				code: department.code,
				position: department.position
			})
			.from(place)
			.leftJoin(department, eq(department.id, place.departmentId))
			.where(
				and(
					eq(place.projectId, project.id),
					ne(place.kind, 'document'),
					live(),
					reach.sees(place.scope),
					or(eq(place.kind, 'shelf'), inArray(place.parentId, way), inArray(place.id, way))
				)
			)
			.orderBy(asc(place.createdAt), asc(place.name));
		const counted = new Map<string, Total>();
		for (let depth = 0; depth <= way.length; depth++)
			for (const [at, total] of await totals(db, reach, depth, way.slice(0, depth).join('')))
				counted.set(at, total);
		const [direct] = await db
			.select({ n: sql<number>`coalesce(sum(${folderCount.documents}), 0)::int` })
			.from(folderCount)
			.where(and(eq(folderCount.folderId, here.id), countsSeen(reach)));
		const [held] = await db.execute<{ n: number }>(sql`
			select count(*)::int as n from lock l join ${place} on l.document_id = ${place.id}
			where l.ended_at is null and ${place.projectId} = ${project.id} and ${beneath(here.path)} and ${live()} and ${reach.sees(place.scope)}`);
		const freeze = reach.freezeAt(here.path);
		const uncapped = reach.level(here.scope)!;
		return {
			place: {
				id: here.id,
				name: here.name,
				kind: here.kind,
				closed: here.closed,
				mine: here.createdBy === me.id
			},
			level,
			levelLabel: levelLabel(level),
			/** Without freezes: what would be possible if it were thawed. */
			uncapped: levelLabel(uncapped),
			freeze: freeze && {
				by: freeze.by,
				at: freeze.at.toISOString(),
				reason: freeze.reason,
				here: freeze.path === here.path
			},
			way: await breadcrumb(db, here, reach),
			tree: shown.map(({ path, ...f }) => ({
				...f,
				position: f.position ?? 1_000,
				documents: counted.get(f.id)?.documents ?? 0,
				frozen: reach.freezeAt(path) !== null
			})),
			direct: direct!.n,
			documents: counted.get(here.id)?.documents ?? 0,
			inHand: held?.n ?? 0
		};
	}
});

/** Most folders offered for choosing one. */
const MOST_FOLDERS = 5_000;

export const folders = defineView({
	name: 'folders',
	summary: 'The shelves and folders where you may work, for choosing one to move to',
	path: '/projects/{project}/folders',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach }) {
		const rows = await db
			.select({ id: place.id, name: place.name, path: place.path, scope: place.scope })
			.from(place)
			.where(
				and(eq(place.projectId, project.id), ne(place.kind, 'document'), live(), reach.sees(place.scope))
			)
			.orderBy(asc(place.path))
			.limit(MOST_FOLDERS);
		const names = new Map(rows.map((r) => [r.id, r.name]));
		return {
			folders: rows
				.filter((r) => allows(reach.held(r), 'work'))
				.map((r) => ({
					id: r.id,
					inside: idsOf(r.path),
					way: idsOf(r.path)
						.flatMap((step) => names.get(step) ?? [])
						.join(' / ')
				}))
				.sort((a, b) => a.way.localeCompare(b.way))
		};
	}
});
