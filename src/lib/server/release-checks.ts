import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { checkItem, type Check } from '../core/releases';
import { inspection } from './content';
import type { Querier } from './db';
import { content, document, lock, person, place, releaseItem, remark, version } from './db/schema';
import type { Services } from './services';

export interface CheckedItem {
	documentId: string;
	versionId: string;
	hash: string;
	number: string;
	title: string;
	chosenLabel: string;
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
	releaseId: string,
	thorough: boolean
): Promise<CheckedItem[]> {
	const checked: CheckedItem[] = [];
	for (const item of await releaseItems(db, releaseId)) {
		const seen = await inspection(services, db, item.hash);
		const holds = thorough ? await services.store.holds(item.hash) : await services.store.has(item.hash);
		checked.push({
			documentId: item.documentId,
			versionId: item.versionId,
			hash: item.hash,
			number: item.number,
			title: item.title,
			chosenLabel: item.chosenLabel,
			checks: checkItem({
				chosenLabel: item.chosenLabel,
				newestLabel: item.newestLabel,
				isNewest: item.versionId === item.currentVersionId,
				inHandOf: item.holder,
				removed: item.removalId !== null,
				openRemarks: item.openRemarks,
				fault: holds
					? seen.fault
					: 'The stored bytes are gone or no longer have their hash. Restore them from a backup.',
				unchecked: seen.unchecked
			})
		});
	}
	return checked;
}
