import { and, eq, isNull } from 'drizzle-orm';
import { outcomeOf, type Verdict } from '../../core/releases';
import type { Querier, Tx } from '../platform/db';
import { release, releaseItem } from '../platform/db/schema';
import { alongBy } from './answered';
import { recipientsOf, signedVerdicts, verdictsOn } from './recipients';
import type { Said } from './returned';

/* What the verdicts on a document of a release come to (T9). */

/** A document on which the verdicts have come to one, with everything that was said of it. */
export interface Settled {
	documentId: string;
	code: Verdict;
	says: Said[];
}

/** What everybody who was asked has signed on documents of a release, for those who work on with them. */
export async function saidOn(db: Querier, releaseId: string, documents: readonly string[]) {
	const [recipients, signed] = [await recipientsOf(db, releaseId), await signedVerdicts(db, releaseId)];
	const along = await alongBy(
		db,
		recipients.flatMap((one) => one.passId ?? [])
	);
	return documents.map((documentId) => {
		const on = verdictsOn(recipients, signed, documentId);
		return {
			documentId,
			given: on.map((one) => one.signed?.code ?? null),
			says: on.flatMap(({ of, signed: one }) =>
				one?.code
					? [
							{
								code: one.code,
								remark: one.remark,
								by: `${one.signedName}, ${of.company}`,
								...along(of.passId, documentId)
							}
						]
					: []
			)
		};
	});
}

/**
 * Keeps what the verdicts on documents of a release come to, where everybody who is asked has signed the same.
 * @returns what came to one, and the documents on which all have answered and not alike
 */
export async function settleVerdicts(
	tx: Tx,
	releaseId: string,
	documents: readonly string[],
	now: Date
): Promise<{ settled: Settled[]; differing: string[] }> {
	// Two may sign at one moment: each must see what the other signed.
	await tx.select({ id: release.id }).from(release).where(eq(release.id, releaseId)).for('update');
	const settled: Settled[] = [];
	const differing: string[] = [];
	for (const { documentId, given, says } of await saidOn(tx, releaseId, documents)) {
		const code = outcomeOf(given);
		if (code === 'differ') differing.push(documentId);
		if (code === 'open' || code === 'differ') continue;
		const first = await tx
			.update(releaseItem)
			.set({ outcome: code, outcomeAt: now })
			.where(
				and(
					eq(releaseItem.releaseId, releaseId),
					eq(releaseItem.documentId, documentId),
					isNull(releaseItem.outcome)
				)
			)
			.returning();
		if (first.length) settled.push({ documentId, code, says });
	}
	return { settled, differing };
}
