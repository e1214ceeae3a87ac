import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { ensureBeside, ensureBuild, ensureStatic } from './build.mjs';
import { ensurePackages, ensurePrograms } from './packages.mjs';
import { ensurePostgres } from './postgres.mjs';
import { Refusal, step } from './say.mjs';

function portIsFree(port) {
	return new Promise((done) => {
		const probe = createServer();
		probe.once('error', () => done(false));
		probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
	});
}

/** A port that nobody listens on. */
export function freePort() {
	return new Promise((done) => {
		const probe = createServer().listen(0, '127.0.0.1', () => {
			const { port } = probe.address();
			probe.close(() => done(port));
		});
	});
}

/** The environment in which Cupboard's processes run. */
export function environment(home, databaseUrl, port, demo) {
	const secretFile = join(home, 'session-secret');
	if (!existsSync(secretFile))
		writeFileSync(secretFile, randomBytes(32).toString('base64url'), { mode: 0o600 });
	return {
		...process.env,
		NODE_ENV: 'production',
		PORT: String(port),
		HOST: process.env.HOST ?? '127.0.0.1',
		ORIGIN: process.env.ORIGIN ?? `http://127.0.0.1:${port}`,
		CUPBOARD_HOME: home,
		CUPBOARD_SECRET: process.env.CUPBOARD_SECRET ?? readFileSync(secretFile, 'utf8'),
		CUPBOARD_DEMO: demo ? '1' : '',
		CUPBOARD_WORKER: resolve('build/worker/worker.js'),
		DATABASE_URL: databaseUrl
	};
}

/** Runs one of the tasks that are built beside the server to its end; a task says itself what went wrong. */
export function runTask(name, args, env) {
	const { status } = spawnSync(process.execPath, [`build/tasks/${name}.js`, ...args], {
		stdio: 'inherit',
		env
	});
	return status ?? 1;
}

/**
 * From a fresh clone to a running Cupboard, and a clean stop on SIGINT and SIGTERM.
 * @param demo with the demo world and its mail server
 * @param fresh throw the world away first (demo only)
 * @param dev from the sources instead of a build: pages reload on change; with a home of its own
 */
export async function launch({ demo, fresh = false, dev = false }) {
	const home = resolve(process.env.CUPBOARD_HOME ?? (dev ? '.cupboard-dev' : '.cupboard'));
	const command = dev ? 'dev' : demo ? 'demo' : 'start';
	const port = Number(process.env.PORT ?? 4680);
	if (!(await portIsFree(port))) {
		throw new Refusal(
			`Port ${port} is in use, perhaps by another Cupboard. Stop that, or choose another with “PORT=4681 npm run ${command}”.`
		);
	}
	try {
		mkdirSync(home, { recursive: true });
	} catch (error) {
		throw new Refusal(
			`The folder ${home} cannot be made (${error.code}). Set CUPBOARD_HOME to a folder that you can write to.`
		);
	}
	await ensurePackages(ensurePrograms);
	const postgres = await ensurePostgres(home);
	let server = null;
	let stopping = false;
	const stop = () => {
		if (stopping) return;
		stopping = true;
		if (server && server.exitCode === null) server.kill('SIGTERM');
		else {
			postgres.stop();
			process.exit();
		}
	};
	process.on('SIGINT', stop);
	process.on('SIGTERM', stop);
	try {
		if (dev) {
			ensureStatic();
			ensureBeside();
		} else ensureBuild();
		if (fresh) {
			if (!postgres.dropDatabase)
				throw new Refusal('--fresh works on Cupboard’s own cluster only, not on DATABASE_URL.');
			step('throwing the old demo world away');
			postgres.dropDatabase();
			for (const name of ['store', 'mail', 'heads'])
				rmSync(join(home, name), { recursive: true, force: true });
		}
		const env = environment(home, postgres.url, port, demo);
		if (dev) env.NODE_ENV = 'development';
		if (runTask('prepare', demo ? ['--demo'] : [], env) !== 0)
			throw new Refusal('Cupboard could not be made ready; the reason stands above.');
		const program = dev
			? ['node_modules/vite/bin/vite.js', 'dev', '--host', env.HOST, '--port', env.PORT, '--strictPort']
			: ['scripts/server.mjs'];
		server = spawn(process.execPath, program, {
			stdio: ['ignore', 'inherit', 'inherit'],
			env
		});
		server.on('exit', (code) => {
			postgres.stop();
			process.exit(stopping ? 0 : (code ?? 1));
		});
		await ready(env.ORIGIN, port, server);
		console.log(`\nCupboard is ready on ${env.ORIGIN}`);
		if (demo)
			console.log(
				'Sign in as ines@vennholm.example, halla@…, oke@… (any first name) with the password cupboard-demo'
			);
	} catch (error) {
		if (server && server.exitCode === null) server.kill('SIGTERM');
		else postgres.stop();
		throw error;
	}
}

/** Waits until a server that was started answers. */
export async function ready(origin, port, server) {
	for (let i = 0; i < 150; i++) {
		if (server.exitCode !== null)
			throw new Refusal('The server ended while starting; the reason stands above.');
		const answer = await fetch(`http://127.0.0.1:${port}/sign-in`, {
			headers: { host: new URL(origin).host }
		}).catch(() => null);
		if (answer && answer.status < 500) return;
		await new Promise((done) => setTimeout(done, 200));
	}
	throw new Refusal('The server did not answer within 30 seconds.');
}
