import { canAt } from '../access/can';
import { and, asc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import * as contract from '../../contract/places';
import { allows, levelLabel } from '../../core/access/levels';
import { dayOf } from '../../core/time/days';
import { idsOf, live, OPEN_SPOT, type Reach } from '../access/reach';
import { keptAtHand } from '../today/kept';
import { newsOf } from '../documents/news';
import { answers, type Place } from '../platform/runner/act';
import type { Querier } from '../platform/db';
import { department, departmentMember, folderCount, person, place, release } from '../platform/db/schema';
import { ID_LENGTH } from '../../core/acts/ids';
import { replyOwed } from '../releases/recipients';

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

interface Total {
	documents: number;
	lastAt: Date | null;
	lastBy: string | null;
}

/** Adds up what was counted by ways (ids from the shelf down) for every place on each way. */
function addUp<R extends { way: string }, T>(
	rows: Iterable<R>,
	nothing: T,
	add: (sum: T, row: R) => T
): Map<string, T> {
	const sums = new Map<string, T>();
	for (const row of rows) for (const at of idsOf(row.way)) sums.set(at, add(sums.get(at) ?? nothing, row));
	return sums;
}

/** SQL for the way to a place, cut off below a depth (0 is the shelf). */
const wayDownTo = (depth: number) => sql`substr(${place.path}, 1, ${(depth + 1) * ID_LENGTH}::int)`;

/** Documents beneath every place down to a depth. */
async function documentsBeneath(db: Querier, reach: Reach, depth: number): Promise<Map<string, number>> {
	return countUp(
		await db.execute<{ way: string; n: number }>(sql`
			select ${wayDownTo(depth)} as way, sum(${folderCount.documents})::int as n
			from ${place} join ${folderCount} on ${folderCount.folderId} = ${place.id}
			where ${place.projectId} = ${reach.subject.projectId} and ${place.kind} <> 'document' and ${reach.seesKept(folderCount.scope)}
			group by 1`)
	);
}

/** The same with the last change of each place. */
async function totals(db: Querier, reach: Reach, depth: number): Promise<Map<string, Total>> {
	const rows = await db.execute<{
		way: string;
		documents: number;
		last_at: string | null;
		last_by: string | null;
	}>(sql`
		select ${wayDownTo(depth)} as way, sum(${folderCount.documents})::int as documents,
			max(${folderCount.lastAt}) as last_at,
			(array_agg(${folderCount.lastBy} order by ${folderCount.lastAt} desc nulls last))[1] as last_by
		from ${place} join ${folderCount} on ${folderCount.folderId} = ${place.id}
		where ${place.projectId} = ${reach.subject.projectId} and ${place.kind} <> 'document' and ${reach.seesKept(folderCount.scope)}
		group by 1`);
	return addUp(rows, { documents: 0, lastAt: null, lastBy: null } as Total, (sum, row) => {
		const at = row.last_at ? new Date(row.last_at) : null;
		const later = at !== null && (sum.lastAt === null || at > sum.lastAt);
		return {
			documents: sum.documents + row.documents,
			lastAt: later ? at : sum.lastAt,
			lastBy: later ? row.last_by : sum.lastBy
		};
	});
}

const countUp = (rows: Iterable<{ way: string; n: number }>) => addUp(rows, 0, (sum, row) => sum + row.n);

/** What is in hand beneath every place down to a depth. Locks are few, so they are looked at first. */
async function inHandBeneath(db: Querier, reach: Reach, depth: number): Promise<Map<string, number>> {
	return countUp(
		await db.execute<{ way: string; n: number }>(sql`
			with held as materialized (select document_id from lock where ended_at is null)
			select ${wayDownTo(depth)} as way, count(*)::int as n
			from held join ${place} on ${place.id} = held.document_id
			where ${place.projectId} = ${reach.subject.projectId} and ${live()} and ${reach.sees(place.scope)}
			group by 1`)
	);
}

/** What others changed since the reader looked, beneath every place down to a depth. */
async function newsBeneath(db: Querier, reach: Reach, depth: number): Promise<Map<string, number>> {
	return countUp(
		await db.execute<{ way: string; n: number }>(
			sql`${newsOf(reach, sql`${wayDownTo(depth)} as way, count(*)::int as n`)} group by 1`
		)
	);
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
		(r) => !allows(reach.level(parents.find((p) => p.id === r.parentId)?.scope ?? ''), 'view')
	);
}

export const shelves = answers(contract.shelves, {
	async run({ db, project, reach, now }) {
		const [places, alone, counted, held, fresh, departments] = await Promise.all([
			db
				.select()
				.from(place)
				.where(
					and(
						eq(place.projectId, project.id),
						live(),
						reach.sees(place.scope),
						ne(place.kind, 'document'),
						isNull(place.deskOf),
						sql`length(${place.path}) <= ${2 * ID_LENGTH}`
					)
				)
				.orderBy(asc(place.createdAt), asc(place.name)),
			givenAlone(db, reach),
			totals(db, reach, 1),
			inHandBeneath(db, reach, 1),
			newsBeneath(db, reach, 1),
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
			[...counted.values()].map((t) => t.lastBy)
		);
		const boxOf = (box: Place) => {
			const total = counted.get(box.id);
			return {
				id: box.id,
				name: box.name,
				documents: total?.documents ?? 0,
				inHand: held.get(box.id) ?? 0,
				fresh: fresh.get(box.id) ?? 0,
				lastAt: total?.lastAt?.toISOString() ?? null,
				lastBy: total?.lastBy ? (names.get(total.lastBy) ?? null) : null,
				frozen: reach.freezeAt(box.path) !== null,
				closed: box.closed,
				viewOnly: !allows(reach.level(box.scope), 'download')
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
					viewOnly: !allows(level, 'download'),
					frozen: freeze && { by: freeze.by, reason: freeze.reason },
					position: owner?.position ?? 1_000,
					department: owner && { code: owner.code, name: owner.name, lead: owner.lead, people: owner.people },
					documents: counted.get(shelf.id)?.documents ?? 0,
					inHand: held.get(shelf.id) ?? 0,
					fresh: fresh.get(shelf.id) ?? 0,
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
				viewOnly: !allows(reach.level(p.scope), 'download')
			})),
			drops: await dropsOf(db, reach),
			overdue: reach.subject.controller
				? await overdueReleases(db, project.id, dayOf(now, project.timeZone))
				: []
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

/** @param today the day by the project's clock */
/** Issued releases that somebody has not answered by the day they were asked to. */
export async function overdueReleases(db: Querier, projectId: string, today: string) {
	const late = replyOwed();
	return db
		.select({ number: release.number, replyBy: late })
		.from(release)
		.where(and(eq(release.projectId, projectId), eq(release.state, 'issued'), sql`${late} < ${today}`));
}

export const folder = answers(contract.folder, {
	async run(context) {
		const { db, project, place: here, level, reach, person: me } = context;
		const way = idsOf(here.path);
		// Shown are the shelves, and at every step of the way down the folders beside it and in it.
		const shown = db
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
		const [tree, counted, [direct], held, kept] = await Promise.all([
			shown,
			documentsBeneath(db, reach, way.length),
			db
				.select({ n: sql<number>`coalesce(sum(${folderCount.documents}), 0)::int` })
				.from(folderCount)
				.where(and(eq(folderCount.folderId, here.id), reach.seesKept(folderCount.scope))),
			inHandBeneath(db, reach, way.length - 1),
			keptAtHand(db, here.id, me.id)
		]);
		const steps = way.flatMap((step) => tree.find((f) => f.id === step) ?? []);
		const freeze = reach.freezeAt(here.path);
		const uncapped = reach.level(here.scope)!;
		return {
			place: {
				id: here.id,
				name: here.name,
				kind: here.kind,
				closed: here.closed,
				atHand: kept,
				onDesk: reach.desks.has(here.scope)
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
			way: steps.map(({ id, name, kind, code }) => ({ id, name, kind, code })),
			tree: tree.map(({ path, ...f }) => ({
				...f,
				position: f.position ?? 1_000,
				documents: counted.get(f.id) ?? 0,
				frozen: reach.freezeAt(path) !== null
			})),
			direct: direct!.n,
			documents: counted.get(here.id) ?? 0,
			inHand: held.get(here.id) ?? 0,
			can: canAt(context, false, null)
		};
	}
});

/** Most folders offered for choosing one. */
const MOST_FOLDERS = 5_000;

export const folders = answers(contract.folders, {
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
				.filter((r) => allows(reach.held(r, OPEN_SPOT), 'work'))
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
