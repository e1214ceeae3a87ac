import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';

/** Rooms while developing: the same upgrade as in scripts/server.mjs. */
const rooms: Plugin = {
	name: 'rooms',
	configureServer({ httpServer }) {
		httpServer?.on('upgrade', (request, socket, head) => {
			const { cupboard } = globalThis as { cupboard?: { services: { rooms: { upgrade: unknown } } } };
			if (request.url?.startsWith('/live/rooms/') && cupboard)
				(cupboard.services.rooms as { upgrade: (...of: unknown[]) => void }).upgrade(request, socket, head);
		});
	}
};

/**
 * What most pages have in common comes in a few scripts: dozens of a few hundred bytes each take a browser longer to link
 * than to run (docs/decisions/23).
 */
const together: Plugin = {
	name: 'together',
	apply: 'build',
	outputOptions(options) {
		if (this.environment.config.build.ssr) return null;
		return {
			...options,
			codeSplitting: {
				groups: [
					{ name: 'svelte', test: /node_modules\/(svelte|esm-env|clsx)\//, priority: 3 },
					{ name: 'icons', test: /node_modules\/@lucide\//, minShareCount: 2, priority: 2 },
					{ name: 'common', test: /src\/lib\/(core|client|ui\/platform)\//, minShareCount: 30, priority: 1 }
				]
			}
		};
	}
};

/** What is no JavaScript, or looks for files beside its own: it stays where it was installed. */
const APART = ['@expo-google-fonts/archivo', '@node-rs/argon2', 'pino', 'sharp', 'web-ifc'];

export default defineConfig(({ command }) => ({
	plugins: [tailwindcss(), sveltekit(), rooms, together],
	// The server takes in what it uses of its packages: a thousand files of theirs took it longer to read than to start.
	ssr: command === 'build' ? { noExternal: true, external: APART } : {},
	build: { chunkSizeWarningLimit: 1200 }
}));
