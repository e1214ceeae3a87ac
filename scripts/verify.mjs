import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { ensureBuild } from './parts/build.mjs';
import { environment, runTask } from './parts/launch.mjs';
import { ensurePackages } from './parts/packages.mjs';
import { ensurePostgres } from './parts/postgres.mjs';
import { command } from './parts/say.mjs';

await command(async () => {
	const home = resolve(process.env.CUPBOARD_HOME ?? '.cupboard');
	mkdirSync(home, { recursive: true });
	await ensurePackages();
	ensureBuild();
	const postgres = await ensurePostgres(home);
	const status = runTask('verify', [], environment(home, postgres.url, 0, false));
	if (!postgres.wasRunning) postgres.stop();
	process.exitCode = status;
});
