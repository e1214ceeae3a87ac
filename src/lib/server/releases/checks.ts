import { isDeepStrictEqual } from 'node:util';
import { and, asc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import canonicalize from 'canonicalize';
import { checkNumber, type NumberingRule } from '../../core/numbering/numbering';
import {
	arrangementWords,
	AS_ADDED,
	changesOf,
	checkItem,
	leavingWords,
	receivingWords,
	type Changes,
	type Build,
	type Check
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
import { offDesks } from '../places/desks';
import type { Querier } from '../platform/db';
import {
	content,
	document,
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
import { inArrangement } from './arranged';
import { namedAs, namedItems } from './named';
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
	const added = await db
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
			placed: releaseItem.placed,
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
	return inArrangement(db, releaseId, added);
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
		.innerJoin(place, eq(place.id, document.id))
		.where(
			and(
				eq(document.projectId, projectId),
				eq(document.live, true),
				offDesks(place.scope),
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
	const [recipients, route, [here]] = await Promise.all([
		recipientsOf(db, about.id),
		routeWords(db, about.route),
		db.select().from(project).where(eq(project.id, about.projectId))
	]);
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
		...(isDeepStrictEqual(about.arrangement, AS_ADDED)
			? {}
			: { arranged: arrangementWords(about.arrangement, here!.settings.numbering) }),
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
