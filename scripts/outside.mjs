/** Holds the files that Cupboard writes and reads against other programs: LibreOffice, ezdxf, qpdf and poppler. */
import { spawnSync } from 'node:child_process';
import { ensureOthers, ensurePackages, ensurePrograms } from './parts/packages.mjs';
import { command } from './parts/say.mjs';

await command(async () => {
	await ensurePackages(() => {
		ensurePrograms();
		ensureOthers();
	});
	const { status } = spawnSync('npx', ['vitest', 'run', '--project', 'outside', ...process.argv.slice(2)], {
		stdio: 'inherit'
	});
	process.exitCode = status ?? 1;
});
