import { inArray } from 'drizzle-orm';
import { numbersNamed, type Named } from '../../core/references/references';
import type { Querier } from '../platform/db';
import { contentText, type project } from '../platform/db/schema';

/** So many stored contents are remembered with what they name; what is stored under a hash never changes. */
const MOST_KEPT = 5_000;
/** Texts that are read at a time. */
const AT_ONCE = 50;
const kept = new Map<string, readonly Named[]>();

/**
 * The documents that stored contents name, by the hash of each and the number of whose content it is. Content that is
 * not read yet names none, and is asked for again.
 * @param items hash of the content, and the number of the document that it is of
 */
export async function namedIn(
	db: Querier,
	{ settings: { numbering, revisions } }: Pick<typeof project.$inferSelect, 'settings'>,
	items: readonly { hash: string; number: string }[]
): Promise<Map<string, readonly Named[]>> {
	const rule = JSON.stringify([numbering, revisions]);
	const keyOf = (one: { hash: string; number: string }) => `${one.hash} ${one.number} ${rule}`;
	const found = new Map<string, readonly Named[]>();
	const left = items.filter((one) => {
		const known = kept.get(keyOf(one));
		if (known) found.set(one.hash, known);
		return !known;
	});
	for (let at = 0; at < left.length; at += AT_ONCE) {
		const some = left.slice(at, at + AT_ONCE);
		const texts = await db
			.select({ hash: contentText.hash, text: contentText.text })
			.from(contentText)
			.where(
				inArray(
					contentText.hash,
					some.map((one) => one.hash)
				)
			);
		for (const { hash, text } of texts)
			for (const one of some.filter((other) => other.hash === hash)) {
				const named = numbersNamed(text, numbering, revisions, one.number);
				found.set(hash, named);
				kept.set(keyOf(one), named);
			}
	}
	for (const key of kept.keys()) {
		if (kept.size <= MOST_KEPT) break;
		kept.delete(key);
	}
	return found;
}
