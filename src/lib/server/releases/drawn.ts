import { createHash } from 'node:crypto';
import { and, eq, isNotNull } from 'drizzle-orm';
import { markOf } from '../../core/releases/drawn';
import { marksOf, writeMark } from '../../core/markup/shared';
import { nameOf } from '../live/rooms/names';
import type { Querier } from '../platform/db';
import {
	recipient,
	release,
	releaseItem,
	releaseRecipient,
	verdict,
	verdictMark,
	version
} from '../platform/db/schema';
import type { Services } from '../platform/services';

/* What clients drew on the sheets of a release, once it is signed. */

/** The marks that were drawn with signed verdicts on a document of a release, with who signed them, lowest first. */
export function signedMarks(db: Querier, releaseId: string, documentId: string) {
	return db
		.select({ mark: verdictMark, name: verdict.signedName, company: recipient.company })
		.from(verdictMark)
		.innerJoin(
			verdict,
			and(eq(verdict.passId, verdictMark.passId), eq(verdict.documentId, verdictMark.documentId))
		)
		.innerJoin(releaseRecipient, eq(releaseRecipient.passId, verdictMark.passId))
		.innerJoin(recipient, eq(recipient.id, releaseRecipient.recipientId))
		.where(
			and(
				eq(releaseRecipient.releaseId, releaseId),
				eq(verdictMark.documentId, documentId),
				isNotNull(verdict.signedAt)
			)
		)
		.orderBy(releaseRecipient.position, verdictMark.createdAt, verdictMark.id);
}

/** An id that nobody outside can choose, so that no mark hides behind one that is there. */
const idOf = ({ passId, id }: { passId: string; id: string }) =>
	createHash('sha256').update(`${passId} ${id}`).digest('base64url').slice(0, 16);

/**
 * Puts what was drawn with the verdicts on a document among the marks on the version that was sent, for its department to
 * work on with: there marks can be moved, carried over and deleted, while what was signed stays with the verdict.
 */
export async function layDrawn(
	{ database: { db }, rooms }: Pick<Services, 'database' | 'rooms'>,
	of: { release: string; document: string }
): Promise<void> {
	const signed = await signedMarks(db, of.release, of.document);
	const [sent] = await db
		.select({ label: version.label, issuedBy: release.issuedBy })
		.from(releaseItem)
		.innerJoin(release, eq(release.id, releaseItem.releaseId))
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.where(and(eq(releaseItem.releaseId, of.release), eq(releaseItem.documentId, of.document)));
	// Who answers by a pass has no account; what they drew hangs on who issued it, under their own name.
	const by = sent!.issuedBy!;
	const room = nameOf({ kind: 'marks', document: of.document, label: sent!.label });
	await rooms.change(room, by, (doc) => {
		const there = marksOf(doc);
		const orders = [...there.values()].map((kept) => Number(kept.get('order')) || 0);
		const above = Math.max(0, ...orders) + 1;
		signed.forEach(({ mark, company }, i) => {
			const id = idOf(mark);
			if (there.has(id)) return;
			const at = mark.createdAt.toISOString();
			const { id: _, ...fields } = markOf(mark.drawn, {
				...{ by, from: `${mark.drawnBy}, ${company}`, at, layer: '' }
			});
			writeMark(doc, id, { ...fields, order: above + i });
		});
	});
}
