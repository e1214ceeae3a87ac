import { and, asc, desc, eq, isNull, like, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { CONTRACTS } from '../../contract';
import { canNow } from '../platform/runner/can';
import * as contract from '../../contract/documents';
import {
	DOCUMENT_ACTS,
	DOCUMENT_RULES,
	mayDo,
	type Asking,
	type DocumentAct
} from '../../core/documents/may';
import { Problem } from '../../core/acts/problem';
import { allows, levelLabel, type Level } from '../../core/access/levels';
import { marksMode, roomMode } from '../../core/live/live';
import type { SideRow, VersionRow } from '../../core/documents/rows';
import { live } from '../access/reach';
import { answers, type ContextOf } from '../platform/runner/act';
import { documentFacts, readDocument } from '../platform/runner/held';
import { inspection, ownUploads, sameBytes } from '../content/content';
import { keptAtHand } from '../today/kept';
import { among, type Querier } from '../platform/db';
import {
	content,
	document,
	event,
	liveRoom,
	liveUpdate,
	lock,
	lockWish,
	person,
	place,
	release,
	releaseItem,
	sideVersion,
	version
} from '../platform/db/schema';
import { knownBase } from './known-base';
import { breadcrumb } from '../places/views-tree';
import { documentRows } from './rows';

export const documentRow = answers(contract.documentRow, {
	async run({ db, project, place: here, reach, person: me, now }) {
		return (await documentRows(db, { project, reach, readerId: me.id }, eq(place.id, here.id), now))[0]!;
	}
});

/** How many sheets or pages content has; null where inspecting it did not tell. */
async function pagesOf(db: Querier, hash: string): Promise<number | null> {
	const [stored] = await db
		.select({ inspection: content.inspection })
		.from(content)
		.where(eq(content.hash, hash));
	return stored?.inspection?.pages ?? null;
}

export const documentView = answers(contract.documentView, {
	async run(context) {
		const { db, project, place: here, level, reach, person: me, now } = context;
		const [row] = await documentRows(db, { project, reach, readerId: me.id }, eq(place.id, here.id), now);
		const versions = await db
			.select({
				label: version.label,
				issued: version.issued,
				at: version.createdAt,
				by: person.name,
				note: version.note,
				fileName: version.fileName,
				size: content.size,
				hash: version.hash,
				mediaType: content.mediaType,
				lockKept: version.lockKept,
				release: release.number,
				verdict: sql<
					string | null
				>`(select max(i.outcome) from ${releaseItem} i where i.document_id = ${version.documentId} and i.version_id = ${version.id})`
			})
			.from(version)
			.innerJoin(content, eq(content.hash, version.hash))
			.leftJoin(person, eq(person.id, version.createdBy))
			.leftJoin(release, eq(release.id, version.releaseId))
			.where(eq(version.documentId, here.id))
			.orderBy(desc(version.seq));
		return {
			row: row!,
			project: project.name,
			timeZone: project.timeZone,
			level,
			levelLabel: levelLabel(level),
			can: await canDo(db, context),
			way: (await breadcrumb(db, here, reach)).slice(0, -1),
			sides: await sidesOf(db, here.id),
			waiting: await waitingFor(db, here.id, me.id),
			broken: await brokenLock(db, here.id, me.id),
			marked: await markedVersions(db, here.id),
			marksMode: marksMode(level),
			room: await roomOf(db, here.id, level, row!.lock !== null && !row!.lock.mine),
			atHand: await keptAtHand(db, here.id, me.id),
			onDesk: reach.desks.has(here.scope),
			pages: await pagesOf(db, row!.hash),
			versions: versions.map((v): VersionRow => ({ ...v, at: v.at.toISOString() }))
		};
	}
});

/** What the reader can do with a document now, as the acts would answer. */
async function canDo(db: Querier, context: ContextOf['place']) {
	const held = await readDocument(db, context.place.id);
	const facts = await documentFacts(db, context, held, context.now);
	return canNow(context, DOCUMENT_ACTS, (name) => mayDo(askingOf(name), facts));
}

/** What the contract of an act asks for. */
const ASKED = new Map<string, Asking>(
	CONTRACTS.flatMap(({ name, at }) => (at.kind === 'place' || at.kind === 'document' ? [[name, at]] : []))
);
const askingOf = (name: DocumentAct): Asking => ({ ...ASKED.get(name)!, applies: DOCUMENT_RULES[name] });

/** Where the document is edited together, and how the reader may; null for a plain file. */
async function roomOf(db: Querier, documentId: string, level: Level, inHandByAnother: boolean) {
	const [row] = await db
		.select({ name: document.room, kind: document.kind })
		.from(document)
		.where(eq(document.id, documentId));
	if (!row?.name || row.kind === 'file') return null;
	return { name: row.name, kind: row.kind, mode: roomMode(row.kind, level, inHandByAnother) };
}

/** Labels of the versions that somebody has marked up. */
async function markedVersions(db: Querier, documentId: string): Promise<string[]> {
	const rows = await db
		.select({ name: liveRoom.name })
		.from(liveRoom)
		.where(
			and(
				eq(liveRoom.documentId, documentId),
				like(liveRoom.name, 'marks/%'),
				// An empty state is two bytes long.
				sql`(length(${liveRoom.state}) > 2 or exists (select 1 from ${liveUpdate} where ${liveUpdate.room} = ${liveRoom.name}))`
			)
		);
	return rows.map((r) => r.name.split('/')[2]!);
}

/** What was handed in beside the line, newest first. */
async function sidesOf(db: Querier, documentId: string): Promise<SideRow[]> {
	const base = alias(version, 'base');
	const decider = alias(person, 'decider');
	const rows = await db
		.select({
			number: sideVersion.number,
			at: sideVersion.createdAt,
			by: sql<string>`coalesce(${sideVersion.fromName}, ${person.name})`,
			byId: sideVersion.createdBy,
			note: sideVersion.note,
			fileName: sideVersion.fileName,
			base: base.label,
			hash: sideVersion.hash,
			size: content.size,
			mediaType: content.mediaType,
			state: sideVersion.state,
			decidedBy: decider.name,
			reason: sideVersion.reason
		})
		.from(sideVersion)
		.innerJoin(content, eq(content.hash, sideVersion.hash))
		.innerJoin(person, eq(person.id, sideVersion.createdBy))
		.leftJoin(base, eq(base.id, sideVersion.baseVersionId))
		.leftJoin(decider, eq(decider.id, sideVersion.decidedBy))
		.where(eq(sideVersion.documentId, documentId))
		.orderBy(desc(sideVersion.number));
	return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

/** The last lock of the reader that was broken here and that they have not answered yet (rule L5); null when there is none. */
async function brokenLock(db: Querier, documentId: string, readerId: string) {
	const [row] = await db
		.select({ at: lock.endedAt, by: event.actorName, reason: sql<string>`${event.details}->>'reason'` })
		.from(lock)
		.innerJoin(
			event,
			and(eq(event.documentId, lock.documentId), eq(event.kind, 'lock.broken'), eq(event.at, lock.endedAt))
		)
		.where(
			and(
				eq(lock.documentId, documentId),
				eq(lock.holderId, readerId),
				eq(lock.endedHow, 'broken'),
				isNull(lock.answeredAt)
			)
		)
		.orderBy(desc(lock.endedAt))
		.limit(1);
	return row ? { ...row, at: row.at!.toISOString() } : null;
}

export const handInBase = answers(contract.handInBase, {
	run: ({ db, place: here, person: me }) => knownBase(db, here.id, me.id)
});

/** Who waits for the lock: the names of those who asked, and whether the reader waits too. */
async function waitingFor(db: Querier, documentId: string, readerId: string) {
	const rows = await db
		.select({ id: person.id, name: person.name, asked: lockWish.asked, note: lockWish.note })
		.from(lockWish)
		.innerJoin(person, eq(person.id, lockWish.personId))
		.where(eq(lockWish.documentId, documentId))
		.orderBy(asc(lockWish.createdAt));
	const mine = rows.find((r) => r.id === readerId);
	return {
		asked: rows.filter((r) => r.asked).map(({ name, note }) => ({ name, note })),
		mine: mine ? (mine.asked ? ('asked' as const) : ('told' as const)) : null
	};
}

export const handInCheck = answers(contract.handInCheck, {
	async run({ db, services, place: here, person: me, now }, input) {
		const [file] = await ownUploads(db, { personId: me.id }, [input.upload], now);
		const [current] = await db
			.select({ number: document.number, label: version.label, mediaType: content.mediaType })
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.innerJoin(content, eq(content.hash, version.hash))
			.where(eq(document.id, here.id));
		const warnings: string[] = [];
		if (file!.mediaType !== current!.mediaType)
			warnings.push(
				`The file is of another kind than ${current!.label}: ${file!.fileName} is ${file!.mediaType}.`
			);
		const [same] = await db
			.select({ label: version.label })
			.from(version)
			.where(and(eq(version.documentId, here.id), eq(version.hash, file!.hash)));
		if (same) warnings.push(`These are the very bytes of ${same.label}.`);
		const seen = await inspection(services, db, file!.hash);
		if (seen.fault) warnings.push(seen.fault);
		const found = seen.titleBlock?.number;
		if (found && found !== current!.number)
			warnings.push(`The sheet’s own title block says ${found}, not ${current!.number}.`);
		return { warnings };
	}
});

export const knownBytes = answers(contract.knownBytes, {
	async run({ db, reach, person: me }, input) {
		const [row] = await db.execute<{ hash: string }>(
			sql`select hash from upload where id = ${input.upload} and person_id = ${me.id}`
		);
		return { hash: row?.hash ?? null, documents: row ? await sameBytes(db, reach, row.hash) : [] };
	}
});

/** The stored bytes of one version, for showing it. The caller notes the opening by an act. */
export const versionContent = answers(contract.versionContent, {
	async run({ db, place: here, level }, input) {
		const [row] = await db
			.select({
				label: version.label,
				hash: version.hash,
				fileName: version.fileName,
				mediaType: content.mediaType,
				size: content.size,
				preview: content.preview,
				inspection: content.inspection
			})
			.from(version)
			.innerJoin(content, eq(content.hash, version.hash))
			.where(and(eq(version.documentId, here.id), eq(version.label, input.label)));
		if (!row) throw new Problem('not-found', 'There is no such version.');
		return { ...row, mayGive: allows(level, 'download') };
	}
});

/** The stored bytes of a side version, for showing them. The caller notes the opening by an act. */
export const sideContent = answers(contract.sideContent, {
	async run({ db, place: here, level }, input) {
		const [row] = await db
			.select({
				hash: sideVersion.hash,
				fileName: sideVersion.fileName,
				mediaType: content.mediaType,
				size: content.size
			})
			.from(sideVersion)
			.innerJoin(content, eq(content.hash, sideVersion.hash))
			.where(and(eq(sideVersion.documentId, here.id), eq(sideVersion.number, input.side)));
		if (!row) throw new Problem('not-found', `There is no side version ${input.side}.`);
		return { ...row, mayGive: allows(level, 'download') };
	}
});

/** Most documents in hand that are listed. */
const MOST_IN_HAND = 2_000;

export const everythingInHand = answers(contract.everythingInHand, {
	async run({ db, project, reach, person: me, now }, input) {
		const held = await db
			.select({ id: lock.documentId })
			.from(lock)
			.innerJoin(place, eq(place.id, lock.documentId))
			.where(
				and(
					isNull(lock.endedAt),
					eq(place.projectId, project.id),
					live(),
					reach.sees(place.scope),
					input.mine ? eq(lock.holderId, me.id) : undefined
				)
			)
			.orderBy(asc(lock.takenAt))
			.limit(MOST_IN_HAND);
		const ids = held.map((h) => h.id);
		const [rows, waiting] = await Promise.all([
			documentRows(db, { project, reach, readerId: me.id }, among(place.id, ids), now),
			db
				.select({ id: lockWish.documentId, n: sql<number>`count(*)::int` })
				.from(lockWish)
				.where(and(among(lockWish.documentId, ids), eq(lockWish.asked, true)))
				.groupBy(lockWish.documentId)
		]);
		const wanted = new Map(waiting.map((w) => [w.id, w.n]));
		return {
			rows: ids.flatMap((one) => {
				const row = rows.find((r) => r.id === one);
				return row ? [{ ...row, wanted: wanted.get(one) ?? 0 }] : [];
			})
		};
	}
});
