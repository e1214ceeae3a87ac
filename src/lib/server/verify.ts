import { and, asc, eq, gt } from 'drizzle-orm';
import { firstFault, GENESIS } from '../core/trail/chain';
import type { Database } from './db';
import { chainHead, content, event, project } from './db/schema';
import type { Store } from './store/store';
import { sha256 } from './trail';

const PAGE = 5_000;

export interface Verified {
	projects: number;
	events: number;
	objects: number;
	/** The first fault found, in a sentence, or null. */
	fault: string | null;
}

/** Checks every project's event chain to its head (V2), then every stored object against its hash (L8). */
export async function verifyAll({ db }: Database, store: Store): Promise<Verified> {
	const result: Verified = { projects: 0, events: 0, objects: 0, fault: null };
	for (const one of await db
		.select({ id: project.id, code: project.code })
		.from(project)
		.orderBy(asc(project.code))) {
		let start = { seq: 0, hash: GENESIS };
		for (;;) {
			const rows = await db
				.select()
				.from(event)
				.where(and(eq(event.projectId, one.id), gt(event.seq, start.seq)))
				.orderBy(asc(event.seq))
				.limit(PAGE);
			if (!rows.length) break;
			const chained = rows.map((r) => ({
				seq: r.seq,
				at: r.at.toISOString(),
				actor: r.actor,
				kind: r.kind,
				place: r.placeId,
				document: r.documentId,
				release: r.releaseId,
				details: r.details,
				previous: r.previous,
				hash: r.hash
			}));
			const fault = firstFault(chained, sha256, start);
			if (fault) return { ...result, fault: `${one.code}: ${fault.sentence}` };
			start = { seq: rows.at(-1)!.seq, hash: rows.at(-1)!.hash };
			result.events += rows.length;
		}
		const [head] = await db.select().from(chainHead).where(eq(chainHead.projectId, one.id));
		if (head && (head.seq !== start.seq || head.hash !== start.hash)) {
			return {
				...result,
				fault: `${one.code}: the chain ends at entry ${start.seq}, but ${head.seq} were written.`
			};
		}
		result.projects++;
	}
	for (const { hash } of await db.select({ hash: content.hash }).from(content).orderBy(asc(content.hash))) {
		if (!(await store.holds(hash)))
			return { ...result, fault: `The stored object ${hash} is gone or no longer has its hash.` };
		result.objects++;
	}
	return result;
}
