import { ensureBuild } from './parts/build.mjs';
import { ensurePackages } from './parts/packages.mjs';
import { command } from './parts/say.mjs';

await command(async () => {
	await ensurePackages();
	ensureBuild();
});
