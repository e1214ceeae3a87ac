import { eq } from 'drizzle-orm';
import {
	changesWords,
	gets,
	releaseNumber,
	replyDayOf,
	standing,
	suitabilityOf,
	type Manifest,
	type ManifestItem
} from '../../core/releases';
import type { Querier } from '../platform/db';
import { chainHead, type project, type release } from '../platform/db/schema';
import { decisionsOf } from '../platform/runner/on-route';
import type { CheckedItem } from './checks';
import type { Outgoing } from './outgoing';
import { recipientsOf, type ReleaseShare } from './recipients';
import { namesOf } from './route';

/** The list and the day of a cover note that is not written yet. */
export interface Draft {
	manifest: Manifest;
	replyBy: string | null;
}

/**
 * What would go out beside the documents of a release if it were issued now: for the whole, and for each who gets it.
 * @param by name of who would issue it
 * @param looked what its checks said, and the digest of the build
 * @param items its documents; of those that something is put on, no hash is known before it is made
 */
export async function draftPapers(
	db: Querier,
	about: typeof release.$inferSelect,
	here: typeof project.$inferSelect,
	by: string,
	now: Date,
	{ checked, digest }: { checked: CheckedItem[]; digest: string },
	items: Outgoing[]
): Promise<{ whole: Draft; each: { to: ReleaseShare; draft: Draft }[] }> {
	const recipients = await recipientsOf(db, about.id);
	const [head] = await db.select().from(chainHead).where(eq(chainHead.projectId, here.id));
	const common = {
		format: 'cupboard-manifest/1',
		project: `${here.code} ${here.name}`,
		release: releaseNumber(about.number),
		title: about.title,
		purpose: about.purpose,
		suitability: suitabilityOf(here.settings, about.purpose),
		...(about.words ? { words: about.words } : {}),
		issuedAt: now.toISOString(),
		issuedBy: by,
		approvedBy: await approversOf(db, about, digest),
		trail: { entry: head!.seq, hash: head!.hash }
	} as const;
	const draft = (to: readonly ReleaseShare[], listed: Outgoing[], replyBy: string | null): Draft => ({
		manifest: {
			...common,
			recipient: to.map((one) => `${one.name}, ${one.company}`).join('; '),
			documents: listed.map((i) => ({
				number: i.number,
				title: i.title,
				revision: i.to,
				file: i.outgoing,
				...(i.heading ? { group: i.heading } : {}),
				...sentOf(i),
				...acceptedOf(checked, i.documentId)
			}))
		},
		replyBy
	});
	return {
		whole: draft(recipients, items, about.replyBy),
		each: recipients.map((to) => ({
			to,
			draft: draft(
				[to],
				items.filter((i) => gets(to, i.documentId)),
				replyDayOf(about, to)
			)
		}))
	};
}

/** The file of a document as it is sent, and what that was made from where something is put on it. */
function sentOf({
	hash,
	size,
	fileName,
	changes,
	copy
}: Outgoing): Omit<ManifestItem, 'number' | 'title' | 'revision' | 'file' | 'group'> {
	if (!changes) return { size, sha256: hash };
	return {
		size: copy?.size ?? 0,
		sha256: copy?.hash ?? '',
		madeFrom: { file: fileName, size, sha256: hash, how: changesWords(changes) }
	};
}

/** Who approved a build, in the order of the route, with whom they stood in for. */
async function approversOf(db: Querier, about: typeof release.$inferSelect, digest: string): Promise<string> {
	const given = standing(about.route, await decisionsOf(db, about.id), digest).flatMap((one) => one.given);
	const names = await namesOf(
		db,
		given.flatMap((one) => [one.by, one.standsFor ?? one.by])
	);
	const said = given.map((one) =>
		one.standsFor ? `${names.get(one.by)} for ${names.get(one.standsFor)}` : names.get(one.by)!
	);
	return [...new Set(said)].join(', ');
}

/** What of a document was looked at and goes out with a reason, for the manifest and the cover note. */
function acceptedOf(checked: CheckedItem[], documentId: string): Pick<ManifestItem, 'accepted'> {
	const accepted = (checked.find((c) => c.documentId === documentId)?.checks ?? []).flatMap((c) =>
		c.accepted ? [{ check: c.name, sentence: c.sentence, reason: c.accepted.reason, by: c.accepted.by }] : []
	);
	return accepted.length ? { accepted } : {};
}
