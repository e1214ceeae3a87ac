import { and, eq, inArray, sql } from 'drizzle-orm';
import * as Y from 'yjs';
import type { Removal } from '../../../core/text/authorship';
import type { Database, Querier, Tx } from '../../platform/db';
import { liveRemoval, liveRoom, liveUpdate, liveWriter } from '../../platform/db/schema';
import { roomOf } from './names';

/** Longest that a change waits to be stored with others, in milliseconds. */
const GATHER = 150;
/** Stored changes of a room after which they are folded into its state. */
const COMPACT_AFTER = 400;

interface Waiting {
	update: Uint8Array;
	personId: string | null;
}

/**
 * Keeps what happens in rooms: every change is in PostgreSQL a moment after it came, with who made it, so that a killed
 * server loses at most that moment (and the browsers send even that again). Nothing that was ever written is thrown
 * away: what people remove stays in the state, for looking back and for who wrote what.
 */
export class RoomRecord {
	private readonly waiting = new Map<string, Waiting[]>();
	private readonly timers = new Map<string, ReturnType<typeof setTimeout>>();
	private readonly flushing = new Map<string, Promise<void>>();
	private readonly stored = new Map<string, number>();

	constructor(
		private readonly database: Database,
		private readonly failed: (error: unknown) => void
	) {}

	/** The state of a room with every stored change, or null when there is no such room. */
	async load(db: Querier, name: string): Promise<Uint8Array | null> {
		const [room] = await db.select({ state: liveRoom.state }).from(liveRoom).where(eq(liveRoom.name, name));
		if (!room) return null;
		const updates = await db
			.select({ bytes: liveUpdate.bytes })
			.from(liveUpdate)
			.where(eq(liveUpdate.room, name))
			.orderBy(liveUpdate.seq);
		this.stored.set(name, updates.length);
		return updates.length ? merged([room.state, ...updates.map((u) => u.bytes)]) : room.state;
	}

	/** Makes a room with a first state, within the transaction of an act. */
	async make(tx: Tx, name: string, state: Uint8Array, personId: string, now: Date): Promise<void> {
		await tx.insert(liveRoom).values({ name, documentId: roomOf(name)!.document, state, changedAt: now });
		await this.noteWriters(tx, name, [{ update: state, personId }]);
	}

	/** Makes a room for marks unless there is one. */
	async open(name: string, state: Uint8Array): Promise<void> {
		await this.database.db
			.insert(liveRoom)
			.values({ name, documentId: roomOf(name)!.document, state, changedAt: new Date() })
			.onConflictDoNothing();
	}

	/** Takes a change to be stored soon. */
	append(name: string, update: Uint8Array, personId: string | null): void {
		const list = this.waiting.get(name) ?? [];
		this.waiting.set(name, list);
		list.push({ update, personId });
		if (!this.timers.has(name))
			this.timers.set(
				name,
				setTimeout(() => void this.flush(name).catch(this.failed), GATHER)
			);
	}

	/** Stores what waits of one room. Raises what the database raises; what could not be stored waits on. */
	async flush(name: string): Promise<void> {
		clearTimeout(this.timers.get(name));
		this.timers.delete(name);
		const before = this.flushing.get(name) ?? Promise.resolve();
		const doing = before.catch(() => {}).then(() => this.store(name));
		this.flushing.set(name, doing);
		try {
			await doing;
		} finally {
			if (this.flushing.get(name) === doing) this.flushing.delete(name);
		}
	}

	async flushAll(): Promise<void> {
		await Promise.all(
			[...new Set([...this.waiting.keys(), ...this.flushing.keys()])].map((n) => this.flush(n))
		);
	}

	private async store(name: string): Promise<void> {
		const list = this.waiting.get(name) ?? [];
		if (!list.length) return;
		this.waiting.delete(name);
		try {
			await this.database.db.transaction(async (tx) => {
				// A shared lock: several store at once, but nobody folds meanwhile.
				await tx.select().from(liveRoom).where(eq(liveRoom.name, name)).for('key share');
				await tx
					.insert(liveUpdate)
					.values(byPerson(list).map((w) => ({ room: name, personId: w.personId, bytes: w.update })));
				await this.noteWriters(tx, name, list);
				await tx.update(liveRoom).set({ changedAt: new Date() }).where(eq(liveRoom.name, name));
			});
		} catch (error) {
			this.waiting.set(name, [...list, ...(this.waiting.get(name) ?? [])]);
			if (!this.timers.has(name))
				this.timers.set(
					name,
					setTimeout(() => void this.flush(name).catch(this.failed), 1_000)
				);
			throw error;
		}
		const stored = (this.stored.get(name) ?? 0) + list.length;
		this.stored.set(name, stored);
		if (stored > COMPACT_AFTER) await this.compact(name);
	}

	/** Notes whose client numbers wrote, and who removed what. */
	private async noteWriters(tx: Tx, name: string, list: Waiting[]): Promise<void> {
		const writers = new Map<string, string>();
		const removals: (typeof liveRemoval.$inferInsert)[] = [];
		for (const { update, personId } of list) {
			if (!personId) continue;
			const { structs, ds } = Y.decodeUpdate(update);
			for (const { id } of structs) {
				const client = String(id.client);
				if (!writers.has(client)) writers.set(client, personId);
			}
			for (const [client, ranges] of ds.clients)
				for (const { clock, len } of ranges)
					removals.push({ room: name, client: String(client), clock, length: len, personId });
		}
		if (writers.size)
			await tx
				.insert(liveWriter)
				.values([...writers].map(([client, personId]) => ({ room: name, client, personId })))
				.onConflictDoNothing();
		if (removals.length) await tx.insert(liveRemoval).values(removals);
	}

	/** Folds the stored changes of a room into its state. */
	private async compact(name: string): Promise<void> {
		await this.database.db.transaction(async (tx) => {
			const [room] = await tx.select().from(liveRoom).where(eq(liveRoom.name, name)).for('update');
			const updates = await tx.select().from(liveUpdate).where(eq(liveUpdate.room, name));
			if (!room || !updates.length) return;
			await tx
				.update(liveRoom)
				.set({ state: merged([room.state, ...updates.map((u) => u.bytes)]) })
				.where(eq(liveRoom.name, name));
			await tx.delete(liveUpdate).where(
				and(
					eq(liveUpdate.room, name),
					inArray(
						liveUpdate.seq,
						updates.map((u) => u.seq)
					)
				)
			);
		});
		this.stored.set(name, 0);
	}

	/** Persons by client number, and who removed what, for {@link whoWrote}. */
	async writers(db: Querier, name: string): Promise<{ writers: Map<number, string>; removals: Removal[] }> {
		const [wrote, removed] = await Promise.all([
			db.select().from(liveWriter).where(eq(liveWriter.room, name)),
			db
				.select()
				.from(liveRemoval)
				.where(eq(liveRemoval.room, name))
				.orderBy(sql`seq`)
		]);
		return {
			writers: new Map(wrote.map((w) => [Number(w.client), w.personId])),
			removals: removed.map((r) => ({
				client: Number(r.client),
				clock: r.clock,
				length: r.length,
				person: r.personId
			}))
		};
	}
}

/** Changes as one state, with what was removed still in it. */
function merged(updates: Uint8Array[]): Uint8Array {
	const doc = new Y.Doc({ gc: false });
	doc.transact(() => updates.forEach((update) => Y.applyUpdate(doc, update)));
	return Y.encodeStateAsUpdate(doc);
}

/** Joins changes of one person that follow each other. */
function byPerson(list: Waiting[]): Waiting[] {
	const found: { personId: string | null; updates: Uint8Array[] }[] = [];
	for (const { personId, update } of list) {
		const last = found.at(-1);
		if (last && last.personId === personId) last.updates.push(update);
		else found.push({ personId, updates: [update] });
	}
	return found.map(({ personId, updates }) => ({
		personId,
		update: updates.length > 1 ? Y.mergeUpdates(updates) : updates[0]!
	}));
}
