import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import canonicalize from 'canonicalize';
import { checkNumber, type NumberingRule } from '../../core/numbering/numbering';
import { checkItem, type Build, type Check } from '../../core/releases';
import { label, nextIssue, parse, type RevisionScheme } from '../../core/revisions/revisions';
import { readTitleBlock, type SheetArea } from '../../core/documents/title-block';
import { stateOf } from '../live/acts';
import { inspection } from '../content/content';
import type { Querier } from '../platform/db';
import {
	content,
	document,
	liveCut,
	lock,
	person,
	place,
	project,
	recipient,
	release,
	releaseItem,
	releaseOverride,
	remark,
	version,
	type Inspection
} from '../platform/db/schema';
import type { Services } from '../platform/services';
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
	checks: Check[];
}

/** The items of a release with everything its checks ask for, in order. */
export async function releaseItems(db: Querier, releaseId: string) {
	const newest = alias(version, 'newest');
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
			outgoingName: releaseItem.outgoingName,
			holder: person.name,
			holderId: lock.holderId,
			heldSince: lock.takenAt,
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
		.leftJoin(lock, and(eq(lock.documentId, document.id), isNull(lock.endedAt)))
		.leftJoin(person, eq(person.id, lock.holderId))
		.where(eq(releaseItem.releaseId, releaseId))
		.orderBy(asc(releaseItem.position));
}

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
	const [twins, accepted] = await Promise.all([
		sameFiles(db, about.projectId, items),
		acceptedChecks(db, about.id)
	]);
	const demanded = revisions.demands[about.purpose];
	const checked: CheckedItem[] = [];
	for (const item of items) {
		const seen = await inspection(services, db, item.hash);
		const holds = thorough ? await services.store.holds(item.hash) : await services.store.has(item.hash);
		const current = parse(revisions, item.chosenLabel);
		const to = current && label(revisions, nextIssue(revisions, current, about.purpose));
		const fits = checkNumber(numbering, item.number);
		const checks = checkItem({
			number: item.number,
			chosenLabel: item.chosenLabel,
			newestLabel: item.newestLabel,
			isNewest: item.versionId === item.currentVersionId,
			unhandedIn: await unhandedIn(services, db, item),
			inHandOf: item.holder,
			removed: item.removalId !== null,
			openRemarks: item.openRemarks,
			fault: holds
				? seen.fault
				: 'The stored bytes are gone or no longer have their hash. Restore them from a backup.',
			unchecked: seen.unchecked,
			numberFault: fits.ok ? null : fits.sentence,
			titleBlock: saysOfItself(seen, item.number, area, numbering, revisions),
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
	const [[to], [approver]] = await Promise.all([
		db.select().from(recipient).where(eq(recipient.id, about.recipientId)),
		db.select({ name: person.name }).from(person).where(eq(person.id, about.approverId))
	]);
	const build: Build = {
		title: about.title,
		purpose: about.purpose,
		recipient: `${to!.name}, ${to!.company} <${to!.email}>`,
		approver: approver!.name,
		replyBy: about.replyBy,
		items: checked.map((item) => ({
			number: item.number,
			title: item.title,
			label: item.chosenLabel,
			to: item.to ?? '?',
			hash: item.hash,
			accepted: item.checks.flatMap((c) =>
				c.accepted ? [{ check: c.name, sentence: c.sentence, reason: c.accepted.reason }] : []
			)
		}))
	};
	return { build, digest: sha256(canonicalize(build)!) };
}
