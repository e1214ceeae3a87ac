import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { resolve } from 'node:path';
import postgres from 'postgres';

/** Makes the demo world in a database of its own and starts the built application on it, as `npm run demo` does. */
export default async function setup(): Promise<() => Promise<void>> {
	const home = process.env.CUPBOARD_HOME!;
	rmSync(home, { recursive: true, force: true });
	mkdirSync(home, { recursive: true });
	const url = new URL(process.env.DATABASE_URL!);
	const admin = postgres(url.toString(), { max: 1, onnotice: () => {} });
	await admin.unsafe('drop database if exists cupboard_browser with (force)');
	await admin.unsafe('create database cupboard_browser');
	await admin.end();
	url.pathname = '/cupboard_browser';
	const port = await new Promise<number>((done) => {
		const probe = createServer().listen(0, '127.0.0.1', () => {
			const { port } = probe.address() as { port: number };
			probe.close(() => done(port));
		});
	});
	process.env.CUPBOARD_WORLD = url.toString();
	process.env.CUPBOARD_BASE = `http://127.0.0.1:${port}`;
	const env = {
		...process.env,
		NODE_ENV: 'production',
		DATABASE_URL: url.toString(),
		PORT: String(port),
		HOST: '127.0.0.1',
		ORIGIN: process.env.CUPBOARD_BASE,
		BODY_SIZE_LIMIT: 'Infinity',
		CUPBOARD_DEMO: '1',
		CUPBOARD_WORKER: resolve('build/worker/worker.js')
	};
	const made = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/tasks/prepare.ts', '--demo'], {
		env,
		stdio: 'inherit'
	});
	if (made.status !== 0) throw new Error('The demo world could not be made.');
	const server = spawn(process.execPath, ['scripts/server.mjs'], { env, stdio: 'inherit' });
	for (let i = 0; ; i++) {
		const answer = await fetch(`${process.env.CUPBOARD_BASE}/sign-in`).catch(() => null);
		if (answer) break;
		if (i > 200) throw new Error('The server did not start.');
		await new Promise((done) => setTimeout(done, 100));
	}
	return async () => {
		const ended = new Promise((done) => server.once('exit', done));
		server.kill('SIGTERM');
		await ended;
	};
}
