import { and, between, eq, gte, inArray, or, sql, type SQL } from 'drizzle-orm';
import type { Database, Tx } from '../platform/db';
import { event, pass } from '../platform/db/schema';
import { GETS } from '../releases/recipients';

/** The channel on which it is told that answers have changed; the payload is the pass under which they are kept. */
export const ANSWERS = 'cupboard_answers';

/** Tells, once the transaction is through, whoever looks at the answers kept under a pass that they have changed. */
export async function tellAnswers(tx: Tx, passId: string): Promise<void> {
	await tx.execute(sql`select pg_notify(${ANSWERS}, ${passId})`);
}

/** Kinds of event after which a pass, named in their details, is not what it was. */
const OF_A_PASS = ['pass.withdrawn', 'pass.changed'];
/** Kinds of event after which what somebody got of a document is superseded. */
const SUPERSEDES = ['document.issued', 'document.revised'];
/** How far the clocks of several servers may be apart, in milliseconds. */
export const CLOCKS_APART = 1_000;
/** How long it is known when answers changed, in milliseconds; who asks for what was before is told in any case. */
const REMEMBERED = 60_000;

/** A page of a pass that is open somewhere. */
interface Watcher {
	projectId: string;
	passId: string;
	tell: () => void;
}

/**
 * Tells open pages of passes that what they show has changed: the pass itself, what its holder got being superseded,
 * answers of their colleagues. It is never said what, and nothing is told of what concerns others (A10).
 */
export class PassLines {
	private readonly watchers = new Set<Watcher>();
	/** When answers changed lately, by the pass under which they are kept, in milliseconds. */
	private readonly answeredAt = new Map<string, number>();
	private hearsSince = Infinity;

	constructor(private readonly database: Database) {}

	/** Says that from now on it is told of answers ({@link answered}). */
	hears(): void {
		this.hearsSince = Date.now();
	}

	/**
	 * Watches a pass; gives the function that ends it.
	 * @param since when its page was read, in milliseconds: what happened in between is told, too
	 */
	watch(watcher: Watcher, since: number | null): () => void {
		this.watchers.add(watcher);
		if (since !== null)
			this.missed(watcher, since - CLOCKS_APART).then(
				(missed) => missed && watcher.tell(),
				// What cannot be known is told.
				() => watcher.tell()
			);
		return () => this.watchers.delete(watcher);
	}

	private async missed({ projectId, passId }: Watcher, since: number): Promise<boolean> {
		if (since < Math.max(this.hearsSince, Date.now() - REMEMBERED)) return true;
		const [row] = await this.database.db
			.select({ keptUnder: sql<string>`coalesce(${pass.alongWith}, ${pass.id})` })
			.from(pass)
			.where(eq(pass.id, passId));
		if (!row || (this.answeredAt.get(row.keptUnder) ?? 0) >= since) return true;
		const happened = [eq(event.projectId, projectId), gte(event.at, new Date(since))];
		return (await this.concerned([passId], happened)).size > 0;
	}

	/** Hears that answers kept under a pass have changed. */
	async answered(keptUnder: string): Promise<void> {
		const now = Date.now();
		for (const [one, at] of this.answeredAt) if (at < now - REMEMBERED) this.answeredAt.delete(one);
		this.answeredAt.set(keptUnder, now);
		if (!this.watchers.size) return;
		const rows = await this.database.db
			.select({ id: pass.id })
			.from(pass)
			.where(or(eq(pass.id, keptUnder), eq(pass.alongWith, keptUnder)));
		for (const one of this.watchers) if (rows.some((row) => row.id === one.passId)) one.tell();
	}

	/** Hears of events of a project, by their numbers. */
	async happened(projectId: string, from: number, to: number): Promise<void> {
		const watching = [...this.watchers].filter((one) => one.projectId === projectId);
		if (!watching.length) return;
		const concerned = await this.concerned(
			watching.map((one) => one.passId),
			[eq(event.projectId, projectId), between(event.seq, from, to)]
		);
		for (const one of watching) if (concerned.has(one.passId)) one.tell();
	}

	/** Which passes events concern. */
	private async concerned(passIds: string[], events: SQL[]): Promise<Set<string>> {
		const rows = await this.database.db
			.selectDistinct({ id: pass.id })
			.from(event)
			.innerJoin(
				pass,
				sql`(${inArray(event.kind, OF_A_PASS)} and ${event.details}->>'pass' = ${pass.id})
					or (${inArray(event.kind, SUPERSEDES)} and exists (
						select 1 from release_recipient rr join release_item i on ${GETS}
						where rr.pass_id = coalesce(${pass.alongWith}, ${pass.id}) and i.document_id = ${event.documentId}))`
			)
			.where(and(...events, inArray(pass.id, passIds), inArray(event.kind, [...OF_A_PASS, ...SUPERSEDES])));
		return new Set(rows.map((row) => row.id));
	}

	close(): void {
		this.watchers.clear();
	}
}
