import { and, asc, eq, gt, inArray, isNull } from 'drizzle-orm';
import type { ReleaseFacts } from '../../../core/releases/may';
import { sharingFault } from '../../../core/releases/recipients';
import { unmeetable } from '../../../core/releases/route';
import type { Querier } from '../db';
import {
	document,
	event,
	pass,
	person,
	recipient,
	release,
	releaseItem,
	releaseRecipient,
	type project
} from '../db/schema';
import { onRoute, speakersOf, turnIn } from './on-route';

type Release = typeof release.$inferSelect;
type Settled = Pick<typeof project.$inferSelect, 'settings'>;

/** Locks a release's row for a change of it, and gives it as it then stands. */
export async function holdRelease(tx: Querier, releaseId: string): Promise<Release> {
	const [row] = await tx.select().from(release).where(eq(release.id, releaseId)).for('update');
	return row!;
}

/** Kinds of event by which somebody has a hand in a release: who does any of these never decides on it. */
const HANDS = ['release.built', 'release.changed', 'release.asked', 'release.accepted'];

/**
 * Everybody who began, changed or asked for the approval of a release, by what the trail says, and so does not decide on
 * it (T3). Nobody where the project lets them.
 */
export async function handsIn(tx: Querier, releaseId: string, { settings }: Settled): Promise<Set<string>> {
	if (settings.approveOwn) return new Set();
	const rows = await tx
		.selectDistinct({ actor: event.actor })
		.from(event)
		.where(and(eq(event.releaseId, releaseId), inArray(event.kind, HANDS)));
	return new Set(rows.flatMap((r) => r.actor ?? []));
}

async function hasTwoStep(db: Querier, personId: string): Promise<boolean> {
	const [row] = await db.select({ has: person.twoFactorEnabled }).from(person).where(eq(person.id, personId));
	return row!.has;
}

/** What the rules ask of a release and a person, as they stand in this transaction. */
export async function releaseFacts(
	db: Querier,
	about: Release,
	here: typeof project.$inferSelect,
	asker: { id: string; controller: boolean },
	now: Date
): Promise<ReleaseFacts> {
	const [hands, speakers, turn] = await Promise.all([
		handsIn(db, about.id, here),
		speakersOf(db, here, now),
		turnIn(db, about, here, asker.id, now)
	]);
	const inPerson = about.route.flatMap((step) => step.of.filter((one) => one.kind === 'person'));
	// Whoever asks for approval has a hand in it from then on.
	const { approveOwn = false } = here.settings;
	const unable = asker.controller && !approveOwn ? new Set([...hands, asker.id]) : hands;
	const items = await db
		.select({ id: document.id, number: document.number })
		.from(releaseItem)
		.innerJoin(document, eq(document.id, releaseItem.documentId))
		.where(eq(releaseItem.releaseId, about.id))
		.orderBy(asc(releaseItem.position));
	const shares = await db
		.select({
			name: recipient.name,
			expects: releaseRecipient.expects,
			documents: releaseRecipient.documents
		})
		.from(releaseRecipient)
		.innerJoin(recipient, eq(recipient.id, releaseRecipient.recipientId))
		.where(eq(releaseRecipient.releaseId, about.id))
		.orderBy(asc(releaseRecipient.position));
	const [open] = await db
		.select({ id: pass.id })
		.from(pass)
		.where(and(eq(pass.releaseId, about.id), isNull(pass.withdrawnAt), gt(pass.endsAt, now)))
		.limit(1);
	return {
		number: about.number,
		state: about.state,
		controller: asker.controller,
		onRoute: onRoute(about.route, asker.id, speakers),
		named: !approveOwn && inPerson.some((one) => one.id === asker.id),
		turn: !turn ? 'not-named' : turn.turn.may || turn.turn.why,
		hand: hands.has(asker.id),
		stuck: unmeetable(about.route, speakers, unable)?.name ?? null,
		documents: items.length,
		unshared: sharingFault(shares, items),
		openPass: open !== undefined,
		codeless: here.settings.issueNeeds === 'code' && !(await hasTwoStep(db, asker.id))
	};
}
