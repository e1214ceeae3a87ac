import { and, eq } from 'drizzle-orm';
import type { Querier } from '../platform/db';
import { atHand } from '../platform/db/schema';

/** Whether a person keeps a place at hand. */
export async function keptAtHand(db: Querier, placeId: string, personId: string): Promise<boolean> {
	const [kept] = await db
		.select({ at: atHand.createdAt })
		.from(atHand)
		.where(and(eq(atHand.placeId, placeId), eq(atHand.personId, personId)));
	return kept !== undefined;
}
