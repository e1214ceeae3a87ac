import { and, eq } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import type { Tx } from '../platform/db';
import { pass, verdict } from '../platform/db/schema';
import { gotBy, type GotItem } from '../releases/got';
import { tellAnswers } from '../trail/following-passes';

/**
 * Holds the answers of a pass still, makes sure that one on a document can still change, and tells who looks at them.
 * @returns the pass under which they are kept, and the document as it was sent
 * Raises `conflict` where no verdict is asked, or it is signed, and `not-found` for a document that they did not get.
 */
export async function answering(
	tx: Tx,
	held: { id: string },
	about: { id: string },
	document: string
): Promise<{ passId: string; item: GotItem }> {
	const { share, items } = await gotBy(tx, held, about);
	await tx.select({ id: pass.id }).from(pass).where(eq(pass.id, share.passId)).for('update');
	await tellAnswers(tx, share.passId);
	if (share.expects !== 'verdicts')
		throw new Problem('conflict', 'No verdicts are asked of you on this release.');
	const item = items.find((one) => one.documentId === document);
	if (!item) throw new Problem('not-found', 'The document is not in this release.');
	const [given] = await tx
		.select({ signedAt: verdict.signedAt })
		.from(verdict)
		.where(and(eq(verdict.passId, share.passId), eq(verdict.documentId, document)));
	if (given?.signedAt) throw new Problem('conflict', 'This verdict is signed; it stays as it was signed.');
	return { passId: share.passId, item };
}
