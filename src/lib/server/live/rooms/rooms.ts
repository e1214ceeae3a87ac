import type { IncomingMessage } from 'node:http';
import { BlockList } from 'node:net';
import type { Duplex } from 'node:stream';
import { Hocuspocus, type Document, type Extension } from '@hocuspocus/server';
import type { Logger } from 'pino';
import { WebSocketServer, type WebSocket } from 'ws';
import * as Y from 'yjs';
import { Problem } from '../../../core/acts/problem';
import type { RoomMode } from '../../../core/live/live';
import type { Actor } from '../../platform/runner/actor';
import type { Database } from '../../platform/db';
import { clientAddress } from '../../platform/http/address';
import { load } from '../../platform/http/load';
import { readMessage, type Presence } from './messages';
import { judgePresence } from './presence';
import { CLOSED, headersOf, limitRate } from './sockets';
import { nameOf, roomOf, type RoomName } from './names';
import { RoomRecord } from './record';
import { DrawingTrial } from './drawing';
import { MarkTrial } from './marking';
import { SuggestionTrial } from './suggesting';
import type { Trial } from './trial';

/** Where rooms are reached; the name of the room follows. */
const ROOMS_PATH = '/live/rooms/';

/** Most bytes of one message, and of a whole room. */
const MOST_BYTES = 8e6;
const MOST_ROOM_BYTES = 40e6;
/** Longest that an answer about access is believed while somebody writes, in milliseconds. */
const BELIEVED = 1_000;
/** How often it is looked whether access ran out somewhere. */
const RUN_OUT = 1_000;
/** How often everybody's access is asked for again without a reason: a session may have ended. */
const ROUND = 15_000;
/** Pause in which events are gathered before access is asked for again. */
const PAUSE = 150;

/** How the Redis extension marks what it brings. */
const FROM_ANOTHER_PROCESS = '__hocuspocus__redis__origin__';

/** Somebody's connection to a room. */
interface Guest {
	socket: WebSocket;
	request: IncomingMessage;
	room: RoomName;
	projectId: string;
	personId: string;
	/** Ids of the departments the person works for in the project. */
	departments: readonly string[];
	mode: RoomMode;
	checkedAt: number;
	/** Client numbers under which the connection speaks. */
	clients: Set<number>;
	/** Whether anything was written through it. */
	wrote: boolean;
	/** Set when the connection is ended by the server: nothing more is taken from it, however much is still on its way. */
	ended: boolean;
}

/** Whether, and how, an actor may be in a room now; raises {@link Problem} when they may not. */
export type Admission = (
	actor: Actor,
	room: RoomName
) => Promise<{ projectId: string; mode: RoomMode; departments: readonly string[] }>;

/** Hears that somebody begins to write in a room. */
export type Writing = (room: RoomName, projectId: string, personId: string) => Promise<void>;

/** Who a request comes from. */
export type Identify = (headers: Headers) => Promise<Actor>;

/**
 * What several people edit at once. Everything that comes in is checked before it reaches the others: who sends it, what
 * they may do now, and for people who may only suggest, that they only suggest.
 */
export class Rooms {
	readonly record: RoomRecord;
	private readonly server: Hocuspocus;
	private readonly sockets = new WebSocketServer({
		noServer: true,
		maxPayload: MOST_BYTES,
		perMessageDeflate: false
	});
	private readonly guests = new Set<Guest>();
	private readonly trials = new Map<string, Trial>();
	private readonly sizes = new Map<string, number>();
	private readonly timer: ReturnType<typeof setInterval>;
	private watched = new Date();
	private pause: ReturnType<typeof setTimeout> | null = null;
	private readonly stirred = new Set<string>();
	/** Set by whoever runs the web server: sessions are its business. */
	identify: Identify = () => Promise.resolve(null);
	/** Set when the services start: the trail tells once a connection that somebody writes. */
	onWriting: Writing = () => Promise.resolve();
	/** Set when the services start: projects in which access ran out between two moments. */
	expired: (from: Date, to: Date) => Promise<string[]> = () => Promise.resolve([]);
	/** Set when the services start: access is decided by a view. */
	admit: Admission = () => Promise.reject(new Problem('not-found', 'There is nothing here.'));

	constructor(
		private readonly database: Database,
		private readonly origin: string,
		extensions: Extension[],
		private readonly log: Logger,
		private readonly proxies = new BlockList()
	) {
		this.record = new RoomRecord(database, (error) => log.error({ error: String(error) }, 'room not stored'));
		this.server = new Hocuspocus({
			quiet: true,
			yDocOptions: { gc: false, gcFilter: () => false },
			debounce: 1_000,
			extensions,
			onAuthenticate: ({ documentName, context, connectionConfig }) =>
				this.enter(documentName, guestOf(context), connectionConfig),
			beforeHandleMessage: async ({ context, update, document }) => {
				// What may not be acted on never is: its connection is ending, and an error would only fill the log.
				if (!(await this.check(guestOf(context), update, document))) await new Promise(() => {});
			},
			onLoadDocument: async ({ document, documentName }) => {
				const state = await this.stateOf(documentName);
				this.sizes.set(documentName, state.byteLength);
				Y.applyUpdate(document, state);
				document.on('update', (update: Uint8Array, origin: unknown) =>
					this.changed(documentName, update, origin)
				);
			},
			onStoreDocument: ({ documentName }) => this.record.flush(documentName),
			beforeUnloadDocument: ({ documentName }) => {
				this.trials.get(documentName)?.close();
				this.trials.delete(documentName);
				this.sizes.delete(documentName);
				return Promise.resolve();
			}
		});
		this.timer = setInterval(() => void this.watch().catch(() => {}), RUN_OUT);
		this.timer.unref();
	}

	/** The state of a room as it is loaded. Marks have a room as soon as somebody looks for it. */
	private async stateOf(name: string): Promise<Uint8Array> {
		const state = await this.record.load(this.database.db, name);
		if (state) return state;
		if (roomOf(name)?.kind !== 'marks') throw new Problem('not-found', 'There is no such room.');
		const empty = Y.encodeStateAsUpdate(new Y.Doc());
		await this.record.open(name, empty);
		return empty;
	}

	/** Has a change stored, in the name of who sent it. What another process received is stored there. */
	private changed(name: string, update: Uint8Array, origin: unknown): void {
		this.sizes.set(name, (this.sizes.get(name) ?? 0) + update.byteLength);
		if (origin === FROM_ANOTHER_PROCESS) return;
		const { personId, context } = (origin ?? {}) as { personId?: string; context?: unknown };
		const guest = context ? guestOf(context) : null;
		this.record.append(name, update, guest?.personId ?? personId ?? null);
		if (!guest || guest.wrote) return;
		guest.wrote = true;
		// Told when it is stored, so that whoever looks because of it finds it.
		this.record
			.flush(name)
			.then(() => this.onWriting(guest.room, guest.projectId, guest.personId))
			.catch((error: unknown) => this.log.error({ error: String(error) }, 'writing not told'));
	}

	/** Takes over a websocket request of the web server; anything that may not be in the room is answered and cut off. */
	upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): void {
		this.letIn(request, socket, head).catch((error: unknown) => {
			const status = error instanceof Problem ? error.status : 503;
			if (!(error instanceof Problem)) this.log.error({ error: String(error) }, 'room');
			socket.end(`HTTP/1.1 ${status} Refused\r\nconnection: close\r\ncontent-length: 0\r\n\r\n`);
		});
	}

	private async letIn(request: IncomingMessage, socket: Duplex, head: Buffer): Promise<void> {
		socket.on('error', () => socket.destroy());
		const path = new URL(request.url ?? '/', this.origin).pathname;
		const room = path.startsWith(ROOMS_PATH)
			? roomOf(decodeURIComponent(path.slice(ROOMS_PATH.length)))
			: null;
		if (!room) throw new Problem('not-found', 'There is no such room.');
		const actor = await this.identify(headersOf(request));
		// What comes by a session must come from our own pages; a token is sent by nobody unasked.
		if (actor?.via !== 'token' && request.headers.origin !== this.origin)
			throw new Problem('wrong-origin', 'This request did not come from a page of Cupboard.');
		if (!actor) throw new Problem('needs-sign-in', 'Sign in first.');
		const { projectId, mode, departments } = await this.modeOf(actor, room);
		const address = clientAddress(request.socket.remoteAddress ?? '', headersOf(request), this.proxies);
		const ended = load.begin('line', address, actor.person.id);
		socket.once('close', ended);
		this.sockets.handleUpgrade(request, socket, head, (ws) => {
			const guest: Guest = {
				socket: ws,
				request,
				room,
				projectId,
				personId: actor.person.id,
				departments,
				mode,
				checkedAt: Date.now(),
				clients: new Set(),
				wrote: false,
				ended: false
			};
			this.guests.add(guest);
			ws.on('error', () => ws.terminate());
			ws.once('close', () => this.guests.delete(guest));
			limitRate(ws);
			this.server.handleConnection(ws, request, { guest });
		});
	}

	/** The first message of a connection: the room is the one of its address, and writing as the person may. */
	private async enter(name: string, guest: Guest, connection: { readOnly: boolean }): Promise<void> {
		if (name !== nameOf(guest.room) || !(await this.recheck(guest)))
			throw new Problem('not-found', 'There is no such room.');
		connection.readOnly = guest.mode === 'read';
	}

	/** Whether a message may be acted on; when not, the connection ends. */
	private async check(guest: Guest, bytes: Uint8Array, doc: Document): Promise<boolean> {
		if (guest.ended) return false;
		const message = readMessage(bytes);
		if (message.kind === 'presence') return this.checkPresence(guest, message, doc);
		if (message.kind === 'other') return this.refuse(guest, 'This is no message for a room.');
		if (message.kind !== 'change') return true;
		// Every browser offers what it holds when it comes; of somebody who looks on, only what is new is a change.
		if (guest.mode === 'read')
			return (
				Y.snapshotContainsUpdate(Y.snapshot(doc), message.update) ||
				this.refuse(guest, 'You only look on here now.')
			);
		if (Date.now() - guest.checkedAt > BELIEVED && !(await this.recheck(guest))) return false;
		// Another question may have ended the connection while this one was answered.
		if (guest.ended) return false;
		if ((this.sizes.get(doc.name) ?? 0) + message.update.byteLength > MOST_ROOM_BYTES)
			return this.refuse(guest, 'The document is as large as it may be.', CLOSED.tooMuch);
		// Whoever writes a text or a schedule may write anything in it; whose marks and layers are changed is always asked.
		if (guest.mode === 'write' && !ALWAYS_TRIED.has(guest.room.kind)) return true;
		let trial = this.trials.get(doc.name);
		if (!trial) this.trials.set(doc.name, (trial = new TRIALS[guest.room.kind](doc)));
		const fault = trial.try(
			message.update,
			{ id: guest.personId, departments: guest.departments },
			guest.mode
		);
		return fault === null || this.refuse(guest, fault);
	}

	private checkPresence(
		guest: Guest,
		{ states, strike }: { states: Presence[]; strike: () => void },
		{ awareness }: Document
	): boolean {
		const room = nameOf(guest.room);
		const judged = judgePresence(states, guest.personId, {
			clock: (client) => awareness.meta.get(client)?.clock ?? -1,
			// A reload speaks under its old number until the old connection is known to be gone.
			another: (client) =>
				[...this.guests].some(
					(one) => one.personId !== guest.personId && nameOf(one.room) === room && one.clients.has(client)
				)
		});
		if (judged === 'refused') return this.refuse(guest, 'This is the place of another.');
		judged.own.forEach((client) => guest.clients.add(client));
		if (judged.strike) strike();
		return true;
	}

	/** Ends a connection; gives false, for what comes from it is not to be acted on. */
	private refuse(guest: Guest, why: string, code: number = CLOSED.refused): false {
		guest.ended = true;
		guest.socket.close(code, why.slice(0, 100));
		return false;
	}

	/** Asks again how a guest may be here. When that changed, the connection ends; the browser comes back as it may. */
	private async recheck(guest: Guest): Promise<boolean> {
		const asked = Date.now();
		try {
			const actor = await this.identify(headersOf(guest.request));
			const { mode, departments } = await this.modeOf(actor, guest.room);
			guest.checkedAt = asked;
			guest.departments = departments;
			if (mode === guest.mode) return true;
		} catch (error) {
			if (!(error instanceof Problem)) this.log.error({ error: String(error) }, 'room');
		}
		return this.refuse(guest, 'Your access changed.', CLOSED.accessChanged);
	}

	/** Whoever looks as somebody else changes nothing. */
	private async modeOf(actor: Actor, room: RoomName) {
		const found = await this.admit(actor, room);
		return actor?.trying ? { ...found, mode: 'read' as const } : found;
	}

	/** What no event tells of: access that ran out by its date, and sessions that ended. */
	private async watch(): Promise<void> {
		const [from, to] = [this.watched, new Date()];
		this.watched = to;
		if (!this.guests.size) return;
		for (const project of await this.expired(from, to)) this.recheckProject(project);
		for (const guest of this.guests) if (Date.now() - guest.checkedAt > ROUND) await this.recheck(guest);
	}

	/** To be called when something happened in a project: who is in its rooms may be there differently now. */
	recheckProject(projectId: string): void {
		this.stirred.add(projectId);
		this.pause ??= setTimeout(() => {
			this.pause = null;
			const projects = new Set(this.stirred);
			this.stirred.clear();
			for (const guest of this.guests) if (projects.has(guest.projectId)) void this.recheck(guest);
		}, PAUSE);
	}

	/**
	 * Reads a room as it is now, with what its members have just typed.
	 * @param room its name. Raises `not-found` when there is no such room
	 */
	async read<T>(room: string, reading: (doc: Y.Doc) => T): Promise<T> {
		const direct = await this.server.openDirectConnection(room, {});
		try {
			return reading(direct.document!);
		} finally {
			await direct.disconnect();
		}
	}

	/**
	 * Changes a room in somebody's name; everybody in it sees the change at once. It is stored when this returns.
	 * Raises `not-found` when there is no such room.
	 */
	async change<T>(room: string, personId: string, changing: (doc: Y.Doc) => T): Promise<T> {
		const direct = await this.server.openDirectConnection(room, {});
		try {
			const document = direct.document!;
			// Under a client number of its own, so that what is written is the person's.
			const mine = new Y.Doc({ gc: false });
			Y.applyUpdate(mine, Y.encodeStateAsUpdate(document));
			const result = changing(mine);
			const update = Y.encodeStateAsUpdate(mine, Y.encodeStateVector(document));
			Y.applyUpdate(document, update, { personId });
			await this.record.flush(room);
			return result;
		} finally {
			await direct.disconnect();
		}
	}

	async close(): Promise<void> {
		clearInterval(this.timer);
		if (this.pause) clearTimeout(this.pause);
		for (const guest of this.guests) guest.socket.close(1001, 'The server is restarting.');
		await this.record.flushAll();
		await this.server.hooks('onDestroy', { instance: this.server });
	}
}

/** Rooms in which every change is tried, also of those who may write. */
const ALWAYS_TRIED: ReadonlySet<RoomName['kind']> = new Set(['marks', 'drawing']);

/** What a change in a room of each kind is tried by. */
const TRIALS: Record<RoomName['kind'], new (doc: Document) => Trial> = {
	marks: MarkTrial,
	drawing: DrawingTrial,
	text: SuggestionTrial,
	schedule: SuggestionTrial
};

/** The connection that something came through, as it was handed to the room server. */
function guestOf(context: unknown): Guest {
	return (context as { guest: Guest }).guest;
}
