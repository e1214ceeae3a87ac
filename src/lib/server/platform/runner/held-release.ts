import { and, eq, gt, inArray, isNull } from 'drizzle-orm';
import type { ReleaseFacts } from '../../../core/releases/may';
import type { Querier } from '../db';
import { event, pass, release, releaseItem } from '../db/schema';

type Release = typeof release.$inferSelect;

/** Locks a release's row for a change of it, and gives it as it then stands. */
export async function holdRelease(tx: Querier, releaseId: string): Promise<Release> {
	const [row] = await tx.select().from(release).where(eq(release.id, releaseId)).for('update');
	return row!;
}

/** Kinds of event by which somebody has a hand in a release: who does any of these never decides on it. */
const HANDS = ['release.built', 'release.changed', 'release.asked', 'release.accepted'];

/** Everybody who began, changed or asked for the approval of a release, by what the trail says (T3). */
export async function handsIn(tx: Querier, releaseId: string): Promise<Set<string>> {
	const rows = await tx
		.selectDistinct({ actor: event.actor })
		.from(event)
		.where(and(eq(event.releaseId, releaseId), inArray(event.kind, HANDS)));
	return new Set(rows.flatMap((r) => r.actor ?? []));
}

/** What the rules ask of a release and a person, as they stand in this transaction. */
export async function releaseFacts(
	db: Querier,
	about: Release,
	asker: { id: string; controller: boolean },
	now: Date
): Promise<ReleaseFacts> {
	const hands = await handsIn(db, about.id);
	const [open] = await db
		.select({ id: pass.id })
		.from(pass)
		.where(and(eq(pass.releaseId, about.id), isNull(pass.withdrawnAt), gt(pass.endsAt, now)))
		.limit(1);
	return {
		number: about.number,
		state: about.state,
		controller: asker.controller,
		approver: about.approverId === asker.id,
		hand: hands.has(asker.id),
		approverHand: hands.has(about.approverId),
		documents: await db.$count(releaseItem, eq(releaseItem.releaseId, about.id)),
		openPass: open !== undefined
	};
}
