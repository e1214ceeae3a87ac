/** Measures Cupboard against its budgets, on a large project in a cluster of its own; all of them, or those that are named. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { ensureBuild } from './parts/build.mjs';
import { environment, freePort, ready, runTask } from './parts/launch.mjs';
import { ensureChromium, ensureMeasures, ensurePackages, ensurePrograms } from './parts/packages.mjs';
import { ensurePostgres } from './parts/postgres.mjs';
import { command, Refusal } from './parts/say.mjs';

await command(async () => {
	await ensurePackages(() => {
		ensurePrograms();
		ensureMeasures();
	});
	const chromium = ensureChromium();
	ensureBuild();
	const home = resolve(process.env.CUPBOARD_BENCH_HOME ?? '.cupboard-bench');
	mkdirSync(home, { recursive: true });
	const postgres = await ensurePostgres(home);
	const port = await freePort();
	const env = { ...environment(home, postgres.url, port, false), ORIGIN: `http://127.0.0.1:${port}` };
	try {
		if (runTask('prepare', [], env) !== 0) throw new Refusal('The database could not be made ready.');
		const server = spawn(process.execPath, ['scripts/server.mjs'], {
			stdio: ['ignore', 'inherit', 'inherit'],
			env
		});
		try {
			await ready(env.ORIGIN, port, server);
			const { status } = spawnSync(
				process.execPath,
				['--import', 'tsx', 'bench/run.ts', ...process.argv.slice(2)],
				{
					stdio: 'inherit',
					env: { ...env, SERVER_PID: String(server.pid), CHROMIUM: chromium }
				}
			);
			process.exitCode = status ?? 1;
		} finally {
			const ended = new Promise((done) => server.once('exit', done));
			server.kill('SIGTERM');
			await ended;
		}
	} finally {
		postgres.stop();
	}
});
