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

/** A later revision of a document, as a later release brought it to the same recipient. */
export interface SentSince {
	document: string;
	/** Number of the release that brought it. */
	release: number;
	label: string;
	/** What that one's pass opens by, sealed as it is kept. */
	sealedSecret: string;
}

/**
 * What a recipient was sent since of the documents of a release, by passes that still open: the newest of each. A colleague
 * of theirs was let into this release, and into no other, so nothing is said of others to them.
 */
export async function sentSince(
	db: Querier,
	held: { id: string; alongWith: string | null },
	about: { issuedAt: Date | null },
	now: Date
): Promise<Map<string, SentSince>> {
	if (held.alongWith) return new Map();
	const rows = await db.execute<SentSince & Record<string, unknown>>(sql`
		with mine as (
			select i.document_id, v.seq, rr.recipient_id
			from release_recipient rr join release_item i on ${GETS} join version v on v.id = i.version_id
			where rr.pass_id = ${held.id}
		)
		select distinct on (i.document_id) i.document_id as document, r.number as release, v.label,
			p.sealed_secret as "sealedSecret"
		from mine
		join release_recipient rr on rr.recipient_id = mine.recipient_id
		join release r on r.id = rr.release_id and r.issued_at > ${about.issuedAt!.toISOString()}
		join pass p on p.id = rr.pass_id and p.withdrawn_at is null and p.sealed_secret is not null
			and p.ends_at > ${now.toISOString()}
		join release_item i on i.document_id = mine.document_id and ${GETS}
		join version v on v.id = i.version_id and v.seq > mine.seq
		order by i.document_id, v.seq desc`);
	return new Map(rows.map((row) => [row.document, row]));
}
