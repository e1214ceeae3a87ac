import { spawn, type ChildProcess } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { resolve } from 'node:path';

/** A port where nobody listens, below those that connections are given: after a crash it is there to be taken again. */
async function freePort(): Promise<number> {
	for (;;) {
		const port = randomInt(20_000, 32_000);
		const free = await new Promise<boolean>((done) => {
			const probe = createServer();
			probe.once('error', () => done(false));
			probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
		});
		if (free) return port;
	}
}

/** A server process of the built application, for tests that need the real thing: HTTP, crashes, several at once. */
export class ServerProcess {
	private child: ChildProcess | null = null;
	readonly origin: string;

	private constructor(
		readonly port: number,
		private readonly env: NodeJS.ProcessEnv
	) {
		this.origin = `http://127.0.0.1:${port}`;
	}

	/** @param wanted the port, where it is not all the same */
	static async on(
		databaseUrl: string,
		home: string,
		more: NodeJS.ProcessEnv = {},
		wanted?: number
	): Promise<ServerProcess> {
		const port = wanted ?? (await freePort());
		const server = new ServerProcess(port, {
			...process.env,
			NODE_ENV: 'production',
			PORT: String(port),
			HOST: '127.0.0.1',
			ORIGIN: `http://127.0.0.1:${port}`,
			DATABASE_URL: databaseUrl,
			CUPBOARD_HOME: home,
			CUPBOARD_SECRET: 'a secret for tests only, long enough',
			CUPBOARD_WORKER: resolve('build/worker/worker.js'),
			LOG_LEVEL: 'fatal',
			...more
		});
		await server.start();
		return server;
	}

	async start(): Promise<void> {
		const child = spawn(process.execPath, ['scripts/server.mjs'], {
			env: this.env,
			stdio: ['ignore', 'ignore', 'pipe']
		});
		this.child = child;
		let said = '';
		child.stderr.on('data', (piece) => (said = (said + String(piece)).slice(-2_000)));
		// Only what hangs is ended; a busy machine takes its time.
		for (let i = 0; i < 1_200; i++) {
			if (child.exitCode !== null) throw new Error(`The server ended with ${child.exitCode}: ${said}`);
			const answer = await fetch(`${this.origin}/sign-in`).catch(() => null);
			if (answer) return;
			await new Promise((done) => setTimeout(done, 50));
		}
		await this.stop('SIGKILL');
		throw new Error('The server did not start');
	}

	get alive(): boolean {
		return this.child?.exitCode === null && this.child.signalCode === null;
	}

	/** Ends the process; with SIGKILL as a crash would. */
	async stop(signal: NodeJS.Signals): Promise<void> {
		const { child } = this;
		if (!child || child.exitCode !== null || child.signalCode !== null) return;
		const ended = new Promise((done) => child.once('exit', done));
		child.kill(signal);
		await ended;
	}

	/** Process id, for reading what it takes of the machine. */
	get pid(): number {
		return this.child!.pid!;
	}

	/** Memory of the process now, in bytes. */
	async memory(): Promise<number> {
		const status = await readFile(`/proc/${this.pid}/status`, 'utf8');
		return Number(/VmRSS:\s+(\d+)/.exec(status)![1]) * 1024;
	}

	/** Calls the API with a token. */
	async call(
		token: string | null,
		method: string,
		path: string,
		body?: unknown
	): Promise<{ status: number; body: Record<string, never> & { code?: string } }> {
		const response = await fetch(`${this.origin}/api/v1${path}`, {
			method,
			headers: { ...(token ? { authorization: `Bearer ${token}` } : {}), 'content-type': 'application/json' },
			body: body === undefined ? undefined : JSON.stringify(body)
		});
		return { status: response.status, body: (await response.json()) as never };
	}

	async send(token: string, name: string, bytes: Uint8Array): Promise<string> {
		const response = await fetch(
			`${this.origin}/api/v1/uploads?project=VFT&name=${encodeURIComponent(name)}`,
			{ method: 'POST', headers: { authorization: `Bearer ${token}` }, body: bytes as BodyInit }
		);
		const answer = (await response.json()) as { upload: string; detail?: string };
		if (!response.ok) throw new Error(answer.detail);
		return answer.upload;
	}

	/** Sends a small file in through a hatch, as its page does. */
	sendThrough(hatch: string, name: string, bytes: Uint8Array): Promise<Response> {
		return fetch(`${this.origin}${hatch}/files`, {
			method: 'POST',
			headers: {
				origin: this.origin,
				'tus-resumable': '1.0.0',
				'upload-length': String(bytes.byteLength),
				'upload-metadata': `name ${Buffer.from(name).toString('base64')}`,
				'content-type': 'application/offset+octet-stream'
			},
			body: bytes as BodyInit
		});
	}
}
