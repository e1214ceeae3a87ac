/** Holds the files that Cupboard writes and reads against other programs: LibreOffice, ezdxf, qpdf and poppler. */
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { environment } from './parts/launch.mjs';
import { ensureOthers, ensurePackages, ensurePrograms } from './parts/packages.mjs';
import { ensurePostgres } from './parts/postgres.mjs';
import { command, Refusal } from './parts/say.mjs';

await command(async () => {
	await ensurePackages(() => {
		ensurePrograms();
		ensureOthers();
	});
	// The demo world is made and served, for the packages of its releases.
	if (spawnSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' }).status !== 0)
		throw new Refusal('The application could not be built; the reason stands above.');
	const home = resolve(process.env.CUPBOARD_TEST_HOME ?? '.cupboard-test');
	mkdirSync(home, { recursive: true });
	const postgres = await ensurePostgres(home, { lasting: false });
	try {
		const env = { ...environment(home, postgres.url, 0, false), CUPBOARD_HOME: join(home, 'world') };
		const { status } = spawnSync('npx', ['vitest', 'run', '--project', 'outside', ...process.argv.slice(2)], {
			stdio: 'inherit',
			env: { ...env, NODE_ENV: 'test' }
		});
		process.exitCode = status ?? 1;
	} finally {
		postgres.stop();
	}
});
