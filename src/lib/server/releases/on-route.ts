import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import type { Reach } from '../access/reach';
import type { Querier } from '../platform/db';
import type { Release } from '../platform/runner/act';
import { releaseItems } from './checks';
import { earlierFile } from './revisions';

/* What those on the route of a release are shown of its documents, whatever else they may reach. */

/** A document of a release, and what somebody on its route may do with it where it lies. */
export async function itemOnRoute(db: Querier, reach: Reach, releaseId: string, documentId: string) {
	const row = (await releaseItems(db, releaseId)).find((i) => i.documentId === documentId);
	if (!row) throw new Problem('not-found', 'The document is not in this release.');
	const level = reach.held(row, { archived: row.state === 'archived', inHandOf: null });
	return { ...row, mayView: allows(level, 'view'), mayGive: allows(level, 'download') };
}
type ItemOnRoute = Awaited<ReturnType<typeof itemOnRoute>>;

/**
 * Whether somebody compares a document with the revision that it takes the place of: what changed is what they decide on.
 * Somebody outside does where they may look at it, since that revision may never have been theirs to see.
 */
export const mayCompare = (reach: Reach, { mayView }: Pick<ItemOnRoute, 'mayView'>): boolean =>
	mayView || !reach.subject.outside;

/**
 * The file of a document as a release shows it: before it is issued the version in it, afterwards what was sent, on which
 * the client's marks fit; or, with `before`, the issued revision that it takes the place of.
 * @throws Problem `not-found` where there is none before, or it is not for them
 */
export async function fileOnRoute(
	db: Querier,
	reach: Reach,
	about: Pick<Release, 'id' | 'issuedAt'>,
	row: ItemOnRoute,
	before: boolean
) {
	if (before) {
		const earlier = mayCompare(reach, row) ? await earlierFile(db, about.id, row.documentId) : null;
		if (!earlier) throw new Problem('not-found', 'There is no revision before this one.');
		return earlier;
	}
	const label = row.chosenLabel;
	return about.issuedAt
		? {
				...{ label, hash: row.sentHash!, size: row.sentSize! },
				...{ mediaType: row.sentType!, fileName: row.outgoingName! }
			}
		: { label, hash: row.hash, size: row.size, mediaType: row.mediaType, fileName: row.fileName };
}
