import { writeFileSync } from 'node:fs';

/**
 * Lays out what was built for scripts/server.mjs: what browsers fetch, packed ahead, and what answers them. That is
 * bundled with what it needs already (vite.config.ts), so that nothing is bundled a second time.
 * @type {import('@sveltejs/kit').Adapter}
 */
export default {
	name: 'cupboard',
	async adapt(builder) {
		for (const part of ['build/client', 'build/server']) builder.rimraf(part);
		builder.writeClient('build/client');
		await builder.compress('build/client');
		builder.writeServer('build/server');
		const manifest = builder.generateManifest({ relativePath: './' });
		writeFileSync('build/server/manifest.js', `export const manifest = ${manifest};\n`);
	}
};
