import { and, asc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import canonicalize from 'canonicalize';
import { checkNumber, type NumberingRule } from '../../core/numbering/numbering';
import { referenceOf } from '../../core/references/references';
import {
	changesOf,
	checkItem,
	leavingWords,
	receivingWords,
	type Changes,
	type Build,
	type Check,
	type NamedItem
} from '../../core/releases';
import { label, nextIssue, parse, type RevisionScheme } from '../../core/revisions/revisions';
import { isSheetKind } from '../../core/files/kinds';
import { readTitleBlock, type SheetArea } from '../../core/documents/title-block';
import { stateOf } from '../live/acts';
import { atOnce } from '../platform/at-once';
import { inspection } from '../content/content';
import type { GivenMarks } from '../marks/marked';
import { marksOn } from '../marks/read';
import { readWords } from '../find/reading';
import { namedIn } from '../references/named';
import { naming } from '../references/naming';
import { among, type Querier } from '../platform/db';
import {
	content,
	document,
	findable,
	liveCut,
	lock,
	lockWish,
	person,
	place,
	project,
	release,
	releaseItem,
	releaseOverride,
	remark,
	version,
	type Inspection
} from '../platform/db/schema';
import type { Services } from '../platform/services';
import { recipientsOf } from './recipients';
import { routeWords } from './route';
import { sha256 } from '../trail/write';

export interface CheckedItem {
	documentId: string;
	versionId: string;
	hash: string;
	number: string;
	title: string;
	chosenLabel: string;
	/** The label it gets at issue; null when its own does not fit the scheme. */
	to: string | null;
	/** What is put on it on its way out, and the marks that are burned in; null where it leaves as it is. */
	changes: Changes | null;
	marks: GivenMarks | null;
	checks: Check[];
}

/** The items of a release with everything its checks ask for, in order. */
export async function releaseItems(db: Querier, releaseId: string) {
	const newest = alias(version, 'newest');
	const sent = alias(content, 'sent');
	return db
		.select({
			documentId: document.id,
			number: document.number,
			title: document.title,
			removalId: place.removalId,
			versionId: version.id,
			chosenLabel: version.label,
			hash: version.hash,
			fileName: version.fileName,
			seq: version.seq,
			currentVersionId: document.currentVersionId,
			newestLabel: newest.label,
			size: content.size,
			mediaType: content.mediaType,
			fromLabel: releaseItem.fromLabel,
			pinnedHash: releaseItem.pinnedHash,
			/** What was sent: the document as it is, or what was made from it on its way out. */
			sentHash: sql<string | null>`coalesce(${releaseItem.copyHash}, ${releaseItem.pinnedHash})`,
			sentSize: sent.size,
			sentType: sent.mediaType,
			outcome: releaseItem.outcome,
			outcomeAt: releaseItem.outcomeAt,
			outcomeBy: releaseItem.outcomeBy,
			outcomeReason: releaseItem.outcomeReason,
			outgoingName: releaseItem.outgoingName,
			holder: person.name,
			holderId: lock.holderId,
			heldSince: lock.takenAt,
			holderAsked: sql<boolean>`exists (select 1 from ${lockWish}
				where ${lockWish.documentId} = ${document.id} and ${lockWish.asked})`,
			state: document.state,
			kind: document.kind,
			room: document.room,
			inspection: content.inspection,
			scope: place.scope,
			path: place.path,
			openRemarks: sql<number>`(select count(*)::int from ${remark}
				where ${remark.documentId} = ${document.id} and ${remark.settledAt} is null)`
		})
		.from(releaseItem)
		.innerJoin(document, eq(document.id, releaseItem.documentId))
		.innerJoin(place, eq(place.id, document.id))
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(newest, eq(newest.id, document.currentVersionId))
		.innerJoin(content, eq(content.hash, version.hash))
		.leftJoin(sent, eq(sent.hash, sql`coalesce(${releaseItem.copyHash}, ${releaseItem.pinnedHash})`))
		.leftJoin(lock, and(eq(lock.documentId, document.id), isNull(lock.endedAt)))
		.leftJoin(person, eq(person.id, lock.holderId))
		.where(eq(releaseItem.releaseId, releaseId))
		.orderBy(asc(releaseItem.position));
}

/** Files that are opened or hashed side by side. */
const AT_ONCE = 4;

/**
 * Runs the checks of a release (T2) on every document.
 * @param thorough also hash the stored bytes again; asked for at issue
 */
export async function checkRelease(
	services: Services,
	db: Querier,
	about: typeof release.$inferSelect,
	thorough: boolean
): Promise<CheckedItem[]> {
	const items = await releaseItems(db, about.id);
	const [here] = await db.select().from(project).where(eq(project.id, about.projectId));
	const { numbering, revisions, titleBlock: area } = here!.settings;
	const going = new Map(
		items.map((item) => {
			const at = parse(revisions, item.chosenLabel);
			return [item.number, at && label(revisions, nextIssue(revisions, at, about.purpose))];
		})
	);
	await readWords(
		services,
		items.map((item) => item.hash)
	);
	const [twins, accepted, named, namedBefore, freezes] = await Promise.all([
		sameFiles(db, about.projectId, items),
		acceptedChecks(db, about.id),
		namedItems(db, here!, items, going),
		namedAs(db, here!, items, going),
		freezesIn(db, about.projectId)
	]);
	// What nobody has opened yet is opened now, and what is issued is hashed again.
	const opened = new Map<string, { seen: Inspection; holds: boolean }>();
	await atOnce(items, AT_ONCE, async ({ hash, inspection: known }) => {
		const seen = known ?? (await inspection(services, db, hash));
		opened.set(hash, {
			seen,
			holds: thorough ? await services.store.holds(hash) : await services.store.has(hash)
		});
	});
	const demanded = revisions.demands[about.purpose];
	const checked: CheckedItem[] = [];
	for (const item of items) {
		const { seen, holds } = opened.get(item.hash)!;
		const current = parse(revisions, item.chosenLabel);
		const to = going.get(item.number) ?? null;
		const marks =
			about.withMarks && isSheetKind(item.mediaType)
				? await marksOn(db, services.rooms, about.projectId, {
						document: item.documentId,
						label: item.chosenLabel
					})
				: null;
		const fits = checkNumber(numbering, item.number);
		const checks = checkItem({
			number: item.number,
			chosenLabel: item.chosenLabel,
			newestLabel: item.newestLabel,
			isNewest: item.versionId === item.currentVersionId,
			unhandedIn: await unhandedIn(services, db, item),
			inHandOf: item.holder,
			holderAsked: item.holderAsked,
			removed: item.removalId !== null,
			frozen: freezes.find((one) => item.path.startsWith(one.path))?.reason ?? null,
			named: named.get(item.documentId) ?? [],
			namedAs: namedBefore.get(item.number) ?? [],
			openRemarks: item.openRemarks,
			fault: holds
				? seen.fault
				: 'The stored bytes are gone or no longer have their hash. Restore them from a backup.',
			unchecked: seen.unchecked,
			numberFault: fits.ok ? null : fits.sentence,
			titleBlock: saysOfItself(seen, item.number, area, numbering, revisions),
			writable: item.kind === 'file' && !!seen.titleBlock,
			twins: twins.get(item.documentId) ?? [],
			to,
			demanded,
			sequence: current?.prefix ?? null
		});
		checked.push({
			documentId: item.documentId,
			versionId: item.versionId,
			hash: item.hash,
			number: item.number,
			title: item.title,
			chosenLabel: item.chosenLabel,
			to,
			changes: changesOf(about, item, marks?.marks.length ?? 0),
			marks,
			checks: checks.map((check) => {
				// A reason counts for what was looked at: when the check says something else, it asks again.
				const said = accepted.find(
					(a) => a.documentId === item.documentId && a.check === check.name && a.sentence === check.sentence
				);
				return said && check.result === 'look'
					? { ...check, accepted: { reason: said.reason, by: said.by, at: said.at.toISOString() } }
					: check;
			})
		});
	}
	return checked;
}

/** What a sheet says of itself: by the attributes of a drawing, or by the words where a PDF's title block stands. */
function saysOfItself(
	seen: Inspection,
	own: string,
	area: SheetArea,
	numbering: NumberingRule,
	revisions: RevisionScheme
): { number: string | null; revision: string | null } {
	if (seen.titleBlock) return { number: seen.titleBlock.number, revision: seen.titleBlock.revision };
	if (!seen.sheetWords?.length) return { number: null, revision: null };
	const read = readTitleBlock(seen.sheetWords, area, numbering, revisions);
	// A sheet names others, too; where its own number stands among them, that is the one it means.
	const names = seen.sheetWords.some((w) => w.text.toUpperCase() === own.toUpperCase());
	return names ? { ...read, number: own } : read;
}

/** Whether a live document holds what none of its versions does. */
async function unhandedIn(
	services: Services,
	db: Querier,
	item: { kind: string; room: string | null; currentVersionId: string }
): Promise<boolean> {
	if (item.kind === 'file' || !item.room) return false;
	const [last] = await db
		.select({ stateHash: liveCut.stateHash })
		.from(liveCut)
		.where(eq(liveCut.versionId, item.currentVersionId));
	const { stateHash } = await services.rooms.read(item.room, stateOf);
	return last?.stateHash !== stateHash;
}

/** Where something is frozen in a project, and why. */
async function freezesIn(db: Querier, projectId: string): Promise<{ path: string; reason: string }[]> {
	const rows = await db
		.select({ path: place.path, reason: place.frozenReason, by: person.name })
		.from(place)
		.innerJoin(person, eq(person.id, place.frozenBy))
		.where(and(eq(place.projectId, projectId), isNotNull(place.frozenAt)));
	return rows.map(({ path, reason, by }) => ({ path, reason: `${reason ?? ''} (${by})` }));
}

/**
 * For each document, those that it names, as these stand once the release is out.
 * @param going the labels at which the documents of the release go out, by number
 */
async function namedItems(
	db: Querier,
	here: typeof project.$inferSelect,
	items: { documentId: string; number: string; hash: string }[],
	going: ReadonlyMap<string, string | null>
): Promise<Map<string, NamedItem[]>> {
	const found = await namedIn(db, here, items);
	const numbers = [...new Set([...found.values()].flat().map((one) => one.number))];
	const there = numbers.length
		? await db.execute<{ number: string; issued: string | null }>(sql`
			select d.number,
				(select v.label from version v where v.document_id = d.id and v.issued order by v.seq desc limit 1) as issued
			from document d where d.project_id = ${here.id} and d.live and d.number = any(${sql.param(numbers)}::text[])`)
		: [];
	const known = new Map(there.map((row) => [row.number, row.issued]));
	return new Map(
		items.map((item) => [
			item.documentId,
			(found.get(item.hash) ?? []).map((one) => {
				const current = going.get(one.number) ?? known.get(one.number) ?? null;
				return {
					...one,
					current,
					how: referenceOf(one, { issued: current }, false, here.settings.revisions),
					there: known.has(one.number)
				};
			})
		])
	);
}

/**
 * For each document of a release that goes out anew, by its number: the issued revisions, superseded by that, at which
 * others that are issued name it. Those of the release are checked by what they name.
 * @param going the labels at which the documents of the release go out, by number
 */
async function namedAs(
	db: Querier,
	here: typeof project.$inferSelect,
	items: { documentId: string; number: string; chosenLabel: string }[],
	going: ReadonlyMap<string, string | null>
): Promise<Map<string, string[]>> {
	const anew = items.filter((item) => going.get(item.number) !== item.chosenLabel);
	const others = sql`not (${among(
		findable.documentId,
		items.map((item) => item.documentId)
	)})`;
	const issued = new Set(
		(
			await db
				.select({ number: document.number, label: version.label })
				.from(version)
				.innerJoin(document, eq(document.id, version.documentId))
				.where(
					and(
						version.issued,
						inArray(
							version.documentId,
							anew.map((item) => item.documentId)
						)
					)
				)
		).map((row) => `${row.number} ${row.label}`)
	);
	const found = new Map<string, Set<string>>();
	for (const { named, revision } of await naming(
		db,
		here,
		anew.map((item) => item.number),
		others,
		'issued'
	)) {
		if (revision === null || !issued.has(`${named} ${revision}`)) continue;
		found.set(named, (found.get(named) ?? new Set()).add(revision));
	}
	return new Map([...found].map(([number, revisions]) => [number, [...revisions].sort()]));
}

/** The documents that one of a release names, that are there, and of which nothing is issued, by their ids. */
export async function missingReferences(
	db: Querier,
	about: typeof release.$inferSelect,
	documentId: string
): Promise<string[]> {
	const items = await releaseItems(db, about.id);
	const item = items.find((one) => one.documentId === documentId);
	const [here] = await db.select().from(project).where(eq(project.id, about.projectId));
	if (!item) return [];
	const going = new Map(items.map((one) => [one.number, one.chosenLabel]));
	const named = (await namedItems(db, here!, [item], going)).get(documentId)!;
	const numbers = named.flatMap((one) => (one.there && one.current === null ? [one.number] : []));
	if (!numbers.length) return [];
	const rows = await db
		.select({ id: document.id })
		.from(document)
		.where(
			and(eq(document.projectId, about.projectId), eq(document.live, true), inArray(document.number, numbers))
		);
	return rows.map((row) => row.id);
}

/** For each document, the numbers of others in the project whose newest version has the very same bytes. */
async function sameFiles(
	db: Querier,
	projectId: string,
	items: { documentId: string; hash: string }[]
): Promise<Map<string, string[]>> {
	if (!items.length) return new Map();
	const rows = await db
		.select({ id: document.id, number: document.number, hash: version.hash })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.where(
			and(
				eq(document.projectId, projectId),
				eq(document.live, true),
				inArray(version.hash, [...new Set(items.map((i) => i.hash))])
			)
		)
		.orderBy(asc(document.number));
	return new Map(
		items.map((item) => [
			item.documentId,
			rows.filter((r) => r.hash === item.hash && r.id !== item.documentId).map((r) => r.number)
		])
	);
}

/** What was accepted with a reason in a release. */
async function acceptedChecks(db: Querier, releaseId: string) {
	return db
		.select({
			documentId: releaseOverride.documentId,
			check: releaseOverride.check,
			sentence: releaseOverride.sentence,
			reason: releaseOverride.reason,
			by: person.name,
			at: releaseOverride.decidedAt
		})
		.from(releaseOverride)
		.innerJoin(person, eq(person.id, releaseOverride.decidedBy))
		.where(eq(releaseOverride.releaseId, releaseId));
}

/** A release as somebody approves it, and the digest by which an approval says what it saw. */
export async function buildOf(
	db: Querier,
	about: typeof release.$inferSelect,
	checked: CheckedItem[]
): Promise<{ build: Build; digest: string }> {
	const numberOf = new Map(checked.map((item) => [item.documentId, item.number]));
	const [recipients, route] = await Promise.all([recipientsOf(db, about.id), routeWords(db, about.route)]);
	const build: Build = {
		title: about.title,
		purpose: about.purpose,
		recipients: recipients.map((one) =>
			receivingWords({
				...one,
				documents: one.documents && one.documents.flatMap((id) => numberOf.get(id) ?? []).sort()
			})
		),
		words: about.words,
		// Absent where they leave as they are: what was approved before they could leave otherwise stays approved.
		...(about.stamped || about.withMarks ? { leaving: leavingWords(about) } : {}),
		route,
		replyBy: about.replyBy,
		items: checked.map((item) => ({
			number: item.number,
			title: item.title,
			label: item.chosenLabel,
			to: item.to ?? '?',
			hash: item.hash,
			...(item.changes?.marks ? { marks: sha256(canonicalize(item.marks)!) } : {}),
			accepted: item.checks.flatMap((c) =>
				c.accepted ? [{ check: c.name, sentence: c.sentence, reason: c.accepted.reason }] : []
			)
		}))
	};
	return { build, digest: sha256(canonicalize(build)!) };
}
