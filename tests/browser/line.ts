import http from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';

/**
 * A line between a browser and a server that counts what goes to the server, and stops, breaks and comes back as a test
 * says: a plain HTTP proxy, to be given to a browser context.
 */
export class Line {
	/** Bytes of bodies that went to the server. */
	sent = 0;
	private up = true;
	private most = Infinity;
	private readonly sockets = new Set<Socket>();
	private readonly held: (() => void)[] = [];
	private readonly server = http.createServer((request, response) => this.pass(request, response));

	/** Begins to listen; gives the address of the proxy. */
	async open(): Promise<string> {
		this.server.on('connection', (socket) => {
			if (!this.up) return void socket.destroy();
			this.sockets.add(socket);
			socket.on('error', () => {});
			socket.once('close', () => this.sockets.delete(socket));
		});
		// What pages and server say to each other all the time goes through as it comes.
		this.server.on('connect', (request, socket: Socket) => {
			const [host, port] = (request.url ?? '').split(':');
			const on = connect(Number(port), host, () => {
				socket.write('HTTP/1.1 200 Connected\r\n\r\n');
				socket.pipe(on).pipe(socket);
			});
			on.on('error', () => socket.destroy());
			socket.on('error', () => on.destroy());
		});
		await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done));
		return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
	}

	private pass(request: http.IncomingMessage, response: http.ServerResponse): void {
		const onward = http.request(
			request.url!,
			{ method: request.method, headers: request.headers },
			(answer) => {
				response.writeHead(answer.statusCode!, answer.headers);
				answer.pipe(response);
				answer.on('error', () => response.destroy());
			}
		);
		onward.on('error', () => response.destroy());
		request.on('error', () => onward.destroy());
		request.on('close', () => request.complete || onward.destroy());
		request.on('data', (piece: Buffer) => {
			this.sent += piece.byteLength;
			if (!onward.write(piece)) {
				request.pause();
				onward.once('drain', () => request.resume());
			}
			if (this.sent >= this.most) {
				request.pause();
				this.most = Infinity;
				this.held.splice(0).forEach((tell) => tell());
			}
		});
		request.on('end', () => onward.end());
	}

	/** Lets so many bytes through from now on, then holds the body that is under way; gives when that is so. */
	holdAfter(bytes: number): Promise<void> {
		this.most = this.sent + bytes;
		return new Promise((tell) => this.held.push(tell));
	}

	/** Breaks everything that is under way and lets nothing through until it is mended. */
	cut(): void {
		this.up = false;
		for (const socket of this.sockets) socket.destroy();
	}

	mend(): void {
		this.up = true;
	}

	async close(): Promise<void> {
		this.cut();
		await new Promise((done) => this.server.close(done));
	}
}
