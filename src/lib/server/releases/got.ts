import { Problem } from '../../core/acts/problem';
import { gets } from '../../core/releases';
import type { Querier } from '../platform/db';
import { releaseItems } from './checks';
import { shareOf, type ReleaseRecipient } from './recipients';

/** A document of a release as somebody got it. */
export type GotItem = Awaited<ReturnType<typeof releaseItems>>[number];

/** What the holder of a pass got of its release: whatever is read or done by a pass knows of nothing else in it. */
export async function gotBy(
	db: Querier,
	held: { id: string },
	about: { id: string }
): Promise<{ share: ReleaseRecipient; items: GotItem[] }> {
	const share = await shareOf(db, held.id);
	return { share, items: (await releaseItems(db, about.id)).filter((item) => gets(share, item.documentId)) };
}

/** One document of it as it was sent. Raises `not-found` for one that they did not get. */
export async function oneGotBy(
	db: Querier,
	held: { id: string },
	about: { id: string },
	document: string
): Promise<GotItem & { sentHash: string }> {
	const item = (await gotBy(db, held, about)).items.find((one) => one.documentId === document);
	if (!item?.sentHash) throw new Problem('not-found', 'The document is not in this release.');
	return { ...item, sentHash: item.sentHash };
}
