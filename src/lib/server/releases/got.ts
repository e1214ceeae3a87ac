import { sql } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { gets } from '../../core/releases';
import type { Querier } from '../platform/db';
import { releaseItems } from './checks';
import { GETS, mainPass, shareOf, type ReleaseRecipient } from './recipients';

/** A document of a release as somebody got it. */
export type GotItem = Awaited<ReturnType<typeof releaseItems>>[number];

/** What the holder of a pass got of its release: whatever is read or done by a pass knows of nothing else in it. */
export async function gotBy(
	db: Querier,
	held: { id: string },
	about: { id: string }
): Promise<{ share: ReleaseRecipient & { passId: string }; items: GotItem[] }> {
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

/** A document as somebody had it before a release brought it anew. */
export interface SentBefore {
	document: string;
	/** Number of the release that brought it. */
	release: number;
	label: string;
	hash: string;
	size: number;
	mediaType: string;
	fileName: string;
}

/**
 * What the holder of a pass had of its documents before: as the last release to the same recipient brought it, where that
 * is another file. What they were sent by a pass that was withdrawn counts as never had.
 */
export async function sentBefore(
	db: Querier,
	held: { id: string },
	about: { id: string; issuedAt: Date | null }
): Promise<Map<string, SentBefore>> {
	const rows = await db.execute<SentBefore & Record<string, unknown>>(sql`
		with now as (
			select i.document_id, coalesce(i.copy_hash, i.pinned_hash) as hash, rr.recipient_id
			from release_recipient rr join release_item i on ${GETS}
			where rr.pass_id = ${mainPass(held.id)}
		)
		select * from (
			select distinct on (i.document_id) i.document_id as document, r.number as release, v.label,
				coalesce(i.copy_hash, i.pinned_hash) as hash, c.size::float8 as size, c.media_type as "mediaType",
				i.outgoing_name as "fileName", now.hash as "hashNow"
			from now
			join release_recipient rr on rr.recipient_id = now.recipient_id
			join release r on r.id = rr.release_id and r.issued_at < ${about.issuedAt!.toISOString()}
			join pass p on p.id = rr.pass_id and p.withdrawn_at is null
			join release_item i on i.document_id = now.document_id and ${GETS}
			join version v on v.id = i.version_id
			join content c on c.hash = coalesce(i.copy_hash, i.pinned_hash)
			order by i.document_id, r.issued_at desc
		) last where hash <> "hashNow"`);
	return new Map(rows.map((row) => [row.document, row]));
}

/** One document as they had it before. Raises `not-found` where they had none, or it is the same file. */
export async function hadBefore(
	db: Querier,
	held: { id: string },
	about: { id: string; issuedAt: Date | null },
	document: string
): Promise<SentBefore> {
	const had = (await sentBefore(db, held, about)).get(document);
	if (!had) throw new Problem('not-found', 'You had no other revision of this before.');
	return had;
}
