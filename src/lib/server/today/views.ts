import { and, count, desc, eq, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/today';
import { dayOf } from '../../core/time/days';
import { idsOf, live, type Reach } from '../access/reach';
import { newsOf } from '../documents/news';
import { documentRows } from '../documents/rows';
import { givenTo } from '../remarks/views';
import { undecided } from '../passes/views';
import { releasesWaitingFor } from '../releases/route';
import { overdueReleases } from '../places/views-tree';
import { differingReleases } from '../releases/recipients';
import { colleaguesWaiting } from '../releases/colleagues';
import { receivedWaiting } from '../releases/views-received';
import { among, type Querier } from '../platform/db';
import {
	arrival,
	atHand as kept,
	document,
	lock,
	place,
	remark,
	removal,
	seen,
	version
} from '../platform/db/schema';
import { answers } from '../platform/runner/act';

/** What is new to the reader, newest first, and how much there is of it. */
async function news(db: Querier, reach: Reach, limit: number): Promise<{ ids: string[]; total: number }> {
	const rows = await db.execute<{ id: string; total: number }>(sql`
		${newsOf(reach, sql`news.id, count(*) over ()::int as total`)} order by news.changed_at desc limit ${limit}`);
	return { ids: rows.map((row) => row.id), total: rows[0]?.total ?? 0 };
}

export const waiting = answers(contract.waiting, {
	async run({ db, project, reach, person: me, self, now }) {
		const here = and(eq(place.projectId, project.id), live(), reach.sees(place.scope));
		const [[held], [given], asked, [came], [hand], fresh, late, differing, sent, colleagues] =
			await Promise.all([
				db
					.select({
						all: count(),
						mine: sql<number>`count(*) filter (where ${lock.holderId} = ${me.id})::int`
					})
					.from(lock)
					.innerJoin(place, eq(place.id, lock.documentId))
					.where(and(isNull(lock.endedAt), here)),
				db
					.select({ n: count() })
					.from(remark)
					.innerJoin(place, eq(place.id, remark.documentId))
					.where(and(isNull(remark.settledAt), givenTo(reach), here)),
				releasesWaitingFor(db, project, me.id, now),
				db
					.select({
						n: count(),
						/** What one sender sent through one hatch is one thing to decide, once it is checked. */
						lots: sql<number>`(count(distinct (coalesce(${arrival.hatchId}, ${arrival.placeId}), ${arrival.sender}))
						filter (where ${arrival.state} <> 'checking'))::int`
					})
					.from(arrival)
					.innerJoin(place, eq(place.id, arrival.placeId))
					.where(undecided(project.id, reach)),
				db
					.select({ n: count() })
					.from(kept)
					.innerJoin(place, eq(place.id, kept.placeId))
					.where(and(eq(kept.personId, me.id), eq(place.projectId, project.id))),
				news(db, reach, 1),
				reach.subject.controller ? overdueReleases(db, project.id, dayOf(now, project.timeZone)) : [],
				reach.subject.controller ? differingReleases(db, project.id) : 0,
				self.id === me.id ? receivedWaiting(db, project.id, me.email, now) : 0,
				reach.subject.controller ? colleaguesWaiting(db, project.id) : 0
			]);
		return {
			forYou: held!.mine + given!.n + asked.size + came!.lots + late.length + differing + sent + colleagues,
			inHand: held!.all,
			remarks: given!.n,
			fresh: fresh.total,
			atHand: hand!.n,
			arrivals: came!.n
		};
	}
});

export const newToYou = answers(contract.newToYou, {
	async run({ db, project, reach, person: me, now }, input) {
		const { ids, total } = await news(db, reach, input.limit);
		const rows = await documentRows(db, { project, reach, readerId: me.id }, among(place.id, ids), now);
		const names = new Map<string, string>();
		const folders = rows.flatMap((row) => row.folder ?? []);
		if (folders.length)
			for (const { id, name } of await db
				.select({ id: place.id, name: place.name })
				.from(place)
				.where(among(place.id, new Set(folders))))
				names.set(id, name);
		return {
			total,
			rows: ids.flatMap((one) => {
				const row = rows.find((r) => r.id === one);
				return row ? [{ ...row, place: (row.folder && names.get(row.folder)) ?? '' }] : [];
			})
		};
	}
});

export const latelyOpen = answers(contract.latelyOpen, {
	async run({ db, project, reach, person: me }, input) {
		const rows = await db
			.select({
				id: document.id,
				number: document.number,
				title: document.title,
				label: version.label,
				issued: version.issued,
				at: seen.at
			})
			.from(seen)
			.innerJoin(place, eq(place.id, seen.documentId))
			.innerJoin(document, eq(document.id, place.id))
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.where(and(eq(seen.personId, me.id), eq(place.projectId, project.id), live(), reach.sees(place.scope)))
			.orderBy(desc(seen.at))
			.limit(input.limit);
		return { rows: rows.map((row) => ({ ...row, at: row.at.toISOString() })) };
	}
});

export const atHand = answers(contract.atHand, {
	async run({ db, project, reach, person: me }) {
		const rows = await db
			.select({
				place: place.id,
				kind: place.kind,
				name: place.name,
				path: place.path,
				seen: sql<boolean>`${reach.sees(place.scope)}`,
				removedAt: removal.removedAt,
				number: document.number,
				title: document.title,
				known: kept.known,
				kept: kept.createdAt
			})
			.from(kept)
			.innerJoin(place, eq(place.id, kept.placeId))
			.leftJoin(document, eq(document.id, place.id))
			.leftJoin(removal, eq(removal.id, place.removalId))
			.where(and(eq(kept.personId, me.id), eq(place.projectId, project.id)))
			.orderBy(desc(kept.createdAt));
		const above = new Set(rows.filter((row) => row.seen).flatMap((row) => idsOf(row.path).slice(0, -1)));
		const names = new Map(
			above.size
				? (
						await db
							.select({ id: place.id, name: place.name })
							.from(place)
							.where(and(among(place.id, above), reach.sees(place.scope)))
					).map((p) => [p.id, p.name])
				: []
		);
		return {
			rows: rows.map((row) => ({
				place: row.place,
				kind: row.kind,
				name: !row.seen ? row.known : row.number ? `${row.number} ${row.title}` : row.name,
				way: row.seen
					? idsOf(row.path)
							.slice(0, -1)
							.flatMap((id) => names.get(id) ?? [])
					: [],
				state: !row.seen ? ('gone' as const) : row.removedAt ? ('removed' as const) : ('there' as const),
				removedAt: row.seen ? (row.removedAt?.toISOString() ?? null) : null,
				kept: row.kept.toISOString()
			}))
		};
	}
});
