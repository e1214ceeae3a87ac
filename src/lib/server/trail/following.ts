import { and, between, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Logger } from 'pino';
import { eventOf, kindsTouching, LEAVING } from '../../core/events';
import { AREAS } from '../../core/events/event';
import type { Notice } from '../../core/documents/rows';
import { allows } from '../../core/access/levels';
import { loadReach, type Reach } from '../access/reach';
import type { Database } from '../platform/db';
import { document, event, place, release, version } from '../platform/db/schema';
import { ANSWERS, CLOCKS_APART, PassLines } from './following-passes';
import { CHANNEL, visibleEvents } from './write';

/** The channel on which a process tells of a preview it made; the payload is the hash of the content. */
export const PREVIEWS = 'cupboard_previews';

/** The channel on which the database tells whose session or token has ended. */
const SESSIONS = 'cupboard_sessions';

interface Watcher {
	projectId: string;
	personId: string;
	tell: (notice: Notice) => void;
	reach: Reach | null;
	reachAt: number;
}

/** Kinds of event after which somebody may reach more, or less, than before. */
const CHANGES_ACCESS = kindsTouching('access', 'places', 'people', 'project');

/** Tells a watcher that something has changed, without saying what: everything shown is to be asked for again. */
export const SOMETHING_CHANGED: Notice = {
	seq: 0,
	touches: AREAS,
	actor: null,
	place: null,
	parent: null,
	document: null,
	release: null
};

function sameLevels(before: Reach, after: Reach | null): boolean {
	if (!after || before.levels.size !== after.levels.size) return false;
	for (const [scope, level] of before.levels) if (after.levels.get(scope) !== level) return false;
	return before.freezes.length === after.freezes.length;
}

/** The folder around a place, for those who may look at it. */
function seenParent(reach: Reach) {
	return sql<string | null>`(select around.id from ${place} around
		where around.id = ${place.parentId} and ${reach.sees(around.scope)})`;
}
const around = alias(place, 'around');

/** Longest time for which a watcher's access is not decided anew. */
const REACH_AGE = 1_000;
/** Previews are told of together, since many come at once after files were added. */
const PREVIEW_PAUSE = 500;

/**
 * Tells watching people of events as they commit, in whichever process: PostgreSQL's NOTIFY carries the numbers of
 * the new events, and each process reads them and lets through what each of its watchers may know of (A10).
 */
export class Live {
	private readonly watchers = new Set<Watcher>();
	/** Open pages of passes. */
	readonly passes: PassLines;
	private readonly sessionWatchers = new Set<{ personId: string; ended: () => void }>();
	private readonly listeners: ((projectId: string) => void)[] = [];
	/** When each project was last heard of, in milliseconds; those before this process listened are not known. */
	private readonly heardAt = new Map<string, number>();
	private listensSince = Infinity;
	private readonly stops: (() => Promise<void>)[] = [];
	private readonly previews = new Set<string>();
	private previewTimer: ReturnType<typeof setTimeout> | null = null;

	constructor(
		private readonly database: Database,
		private readonly log: Logger
	) {
		this.passes = new PassLines(database);
	}

	async open(): Promise<void> {
		const listen = async (channel: string, hear: (text: string) => Promise<void>) => {
			const { unlisten } = await this.database.client.listen(channel, (text) => {
				hear(text).catch((error: unknown) => this.log.error({ error: String(error) }, 'live'));
			});
			this.stops.push(unlisten);
		};
		await listen(CHANNEL, (text) =>
			this.pass(JSON.parse(text) as { projectId: string; from: number; to: number })
		);
		await listen(SESSIONS, (personId) => {
			for (const one of this.sessionWatchers) if (one.personId === personId) one.ended();
			return Promise.resolve();
		});
		await listen(ANSWERS, (keptUnder) => this.passes.answered(keptUnder));
		this.passes.hears();
		this.listensSince = Date.now();
		await listen(PREVIEWS, async (hash) => {
			this.previews.add(hash);
			this.previewTimer ??= setTimeout(() => {
				this.previewTimer = null;
				const hashes = [...this.previews];
				this.previews.clear();
				this.passPreviews(hashes).catch((error: unknown) => {
					this.log.error({ error: String(error) }, 'live');
				});
			}, PREVIEW_PAUSE);
		});
	}

	/**
	 * Whether something may have happened in a project since a moment, in milliseconds: a page that was read then, and
	 * watches only now, may have missed it.
	 */
	heardSince(projectId: string, moment: number): boolean {
		return Math.max(this.heardAt.get(projectId) ?? 0, this.listensSince) >= moment - CLOCKS_APART;
	}

	/** Watches a project for a person; gives the function that ends it. */
	watch(projectId: string, personId: string, tell: (notice: Notice) => void): () => void {
		const watcher: Watcher = { projectId, personId, tell, reach: null, reachAt: 0 };
		this.watchers.add(watcher);
		return () => this.watchers.delete(watcher);
	}

	/** Calls back when a session or token of a person has ended somewhere; gives the function that ends it. */
	watchSessions(personId: string, ended: () => void): () => void {
		const watcher = { personId, ended };
		this.sessionWatchers.add(watcher);
		return () => this.sessionWatchers.delete(watcher);
	}

	/** Calls back with a project in which something has happened. */
	onEvents(listener: (projectId: string) => void): void {
		this.listeners.push(listener);
	}

	/** Whether events between two numbers may have changed who reaches what; then no remembered access counts. */
	private async changesAccess(projectId: string, from: number, to: number): Promise<boolean> {
		const [row] = await this.database.db
			.select({ seq: event.seq })
			.from(event)
			.where(
				and(eq(event.projectId, projectId), between(event.seq, from, to), inArray(event.kind, CHANGES_ACCESS))
			)
			.limit(1);
		return row !== undefined;
	}

	/** For what was moved between two numbers: the scope of the folder that it left, and the one it is in now. */
	private async moved(projectId: string, from: number, to: number) {
		const source = alias(place, 'source');
		return this.database.db
			.select({ left: source.scope, now: place.scope })
			.from(event)
			.innerJoin(place, eq(place.id, event.placeId))
			.innerJoin(
				source,
				or(
					...[...LEAVING].map(([kind, detail]) =>
						and(eq(event.kind, kind), sql`${source.id} = ${event.details}->>${detail}`)
					)
				)
			)
			.where(and(eq(event.projectId, projectId), between(event.seq, from, to)));
	}

	private async pass({
		projectId,
		from,
		to
	}: {
		projectId: string;
		from: number;
		to: number;
	}): Promise<void> {
		this.heardAt.set(projectId, Date.now());
		for (const listener of this.listeners) listener(projectId);
		await this.passes.happened(projectId, from, to);
		const watchers = [...this.watchers].filter((watcher) => watcher.projectId === projectId);
		if (!watchers.length) return;
		const changesAccess = await this.changesAccess(projectId, from, to);
		const moved = changesAccess ? await this.moved(projectId, from, to) : [];
		for (const watcher of watchers) {
			const before = watcher.reach;
			if (changesAccess) watcher.reachAt = 0;
			const reach = await this.reachOf(watcher);
			// What somebody lost or gained cannot be named to them, but what they look at has to be asked for again.
			if (changesAccess && before && !sameLevels(before, reach)) watcher.tell(SOMETHING_CHANGED);
			if (!reach) continue;
			const sees = (scope: string) => allows(reach.level(scope), 'view');
			// The same holds for what went where they see nothing: it is still shown to them where it was.
			if (moved.some(({ left, now }) => sees(left) && !sees(now))) watcher.tell(SOMETHING_CHANGED);
			const rows = await this.database.db
				.select({
					seq: event.seq,
					kind: event.kind,
					actor: event.actor,
					place: event.placeId,
					parent: seenParent(reach),
					document: event.documentId,
					release: event.releaseId
				})
				.from(event)
				.leftJoin(place, eq(place.id, event.placeId))
				.leftJoin(release, eq(release.id, event.releaseId))
				.where(and(eq(event.projectId, projectId), between(event.seq, from, to), visibleEvents(reach)));
			for (const { kind, ...row } of rows) watcher.tell({ ...row, touches: eventOf(kind)?.touches ?? AREAS });
		}
	}

	/** Tells watchers that the newest versions of documents they may look at have their previews now. */
	private async passPreviews(hashes: string[]): Promise<void> {
		for (const watcher of this.watchers) {
			const reach = await this.reachOf(watcher);
			if (!reach) continue;
			const rows = await this.database.db
				.select({ id: document.id, parent: seenParent(reach) })
				.from(version)
				.innerJoin(document, eq(document.currentVersionId, version.id))
				.innerJoin(place, eq(place.id, document.id))
				.where(
					and(
						inArray(version.hash, hashes),
						eq(document.projectId, watcher.projectId),
						isNull(place.removalId),
						reach.sees(place.scope)
					)
				)
				.limit(500);
			for (const row of rows)
				watcher.tell({
					seq: 0,
					touches: ['previews'],
					actor: null,
					place: row.id,
					parent: row.parent,
					document: row.id,
					release: null
				});
		}
	}

	private async reachOf(watcher: Watcher): Promise<Reach | null> {
		if (watcher.reach && Date.now() - watcher.reachAt < REACH_AGE) return watcher.reach;
		const { db } = this.database;
		watcher.reach = await loadReach(db, watcher.projectId, watcher.personId, new Date());
		watcher.reachAt = Date.now();
		return watcher.reach;
	}

	async close(): Promise<void> {
		await Promise.all(this.stops.map((stop) => stop()));
		if (this.previewTimer) clearTimeout(this.previewTimer);
		this.watchers.clear();
		this.passes.close();
	}
}
