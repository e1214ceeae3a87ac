import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { HocuspocusProvider, HocuspocusProviderWebsocket } from '@hocuspocus/provider';
import WebSocket from 'ws';
import * as Y from 'yjs';
import type { TestWorld } from './world';

/** What a server of rooms needs of a world. */
type Of = Pick<TestWorld, 'services' | 'people'>;

/** A web server that only lets people into rooms; who asks is named in a header. */
export class RoomServer {
	private readonly open: Guest[] = [];
	private constructor(
		readonly world: Of,
		private readonly server: Server,
		readonly port: number
	) {}

	static async start(world: Of): Promise<RoomServer> {
		world.services.rooms.identify = (headers) =>
			Promise.resolve(world.people[headers.get('x-who') ?? ''] ?? null);
		const server = createServer();
		server.on('upgrade', (request, socket, head) => world.services.rooms.upgrade(request, socket, head));
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
		return new RoomServer(world, server, (server.address() as AddressInfo).port);
	}

	/** Somebody opens a room in a browser, and begins once what it holds is there: as a page lets them. */
	async enter<G extends Guest>(
		kind: new (at: RoomServer, who: string, room: string) => G,
		who: string,
		room: string
	): Promise<G> {
		const guest = new kind(this, who, room);
		this.open.push(guest);
		await guest.until(() => guest.came);
		return guest;
	}

	/** What a request for a room is answered with. */
	status(room: string, headers: Record<string, string>): Promise<number> {
		return new Promise((done) => {
			const socket = new WebSocket(`ws://127.0.0.1:${this.port}/live/rooms/${room}`, { headers });
			socket.on('unexpected-response', (_, response) => done(response.statusCode!));
			socket.on('open', () => done(101));
			socket.on('error', () => {});
		});
	}

	close(): void {
		this.open.forEach((one) => one.close());
		this.server.close();
	}
}

/** Somebody who has a room open in a browser. */
export class Guest {
	readonly doc = new Y.Doc();
	readonly provider: HocuspocusProvider;
	/** Codes with which the server ended the connection. */
	readonly closes: number[] = [];
	/** Whether what the room holds has come once. */
	came = false;
	private readonly socket: HocuspocusProviderWebsocket;

	constructor(at: RoomServer, who: string, room: string) {
		const { origin } = at.world.services.config;
		const Named = class extends WebSocket {
			constructor(address: string) {
				super(address, { headers: { 'x-who': who, origin } });
				// Closed before it stood is no fault of a test that has ended.
				this.on('error', () => {});
			}
		};
		this.socket = new HocuspocusProviderWebsocket({
			url: `ws://127.0.0.1:${at.port}/live/rooms/${room}`,
			WebSocketPolyfill: Named,
			delay: 50,
			minDelay: 50,
			maxDelay: 200,
			onClose: ({ event }) => this.closes.push(event.code)
		});
		this.provider = new HocuspocusProvider({
			websocketProvider: this.socket,
			name: room,
			document: this.doc,
			token: 'session',
			onSynced: () => (this.came = true)
		});
		this.provider.attach();
		const { person } = at.world.people[who]!;
		this.provider.awareness!.setLocalStateField('user', { id: person.id, name: person.name });
	}

	/** What the room holds, for the message when something does not come. */
	says(): string {
		return JSON.stringify(this.doc.toJSON());
	}
	async until(what: () => boolean): Promise<void> {
		for (let i = 0; i < 1_600; i++) {
			if (what()) return;
			await new Promise((done) => setTimeout(done, 25));
		}
		throw new Error(`It did not come to that: “${this.says()}”, closed with ${this.closes.join()}`);
	}
	/** Sends bytes as they are, as a tampered browser might. */
	raw(bytes: Uint8Array): void {
		this.socket.webSocket!.send(Uint8Array.from(bytes));
	}
	/** When the server has received what was sent before, or has ended the line: it answers in turn. */
	heard(): Promise<void> {
		const socket = this.socket.webSocket as unknown as WebSocket;
		return new Promise((done) => {
			socket.once('pong', () => done());
			socket.once('close', () => done());
			socket.ping();
		});
	}
	line(up: boolean): void {
		if (up) void this.socket.connect();
		else this.socket.disconnect();
	}
	close(): void {
		this.provider.destroy();
		this.socket.destroy();
		this.doc.destroy();
	}
}
