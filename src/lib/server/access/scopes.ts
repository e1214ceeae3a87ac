import { and, eq, sql } from 'drizzle-orm';
import { beneath } from './reach';
import type { Tx } from '../platform/db';
import { grant, place } from '../platform/db/schema';

type At = Pick<
	typeof place.$inferSelect,
	'id' | 'projectId' | 'path' | 'scope' | 'parentId' | 'closed' | 'kind'
>;

/** Serialises changes to the shape and the scopes of a project's tree. */
export async function holdTree(tx: Tx, projectId: string): Promise<void> {
	await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${'tree:' + projectId}))`);
}

/** Makes a place a scope of its own: what inherited from above through it now inherits from it. */
export async function makeScope(tx: Tx, at: At): Promise<void> {
	if (at.scope === at.id) return;
	await tx
		.update(place)
		.set({ scope: at.id })
		.where(and(eq(place.projectId, at.projectId), beneath(at.path), eq(place.scope, at.scope)));
}

/** Lets a place inherit again when nothing stands at it any more. */
export async function foldScope(tx: Tx, at: At): Promise<void> {
	if (at.scope !== at.id || at.closed || at.kind === 'shelf' || !at.parentId) return;
	const [entry] = await tx.select({ id: grant.id }).from(grant).where(eq(grant.placeId, at.id)).limit(1);
	if (entry) return;
	const [parent] = await tx.select({ scope: place.scope }).from(place).where(eq(place.id, at.parentId));
	await tx
		.update(place)
		.set({ scope: parent!.scope })
		.where(and(eq(place.projectId, at.projectId), beneath(at.path), eq(place.scope, at.id)));
}
