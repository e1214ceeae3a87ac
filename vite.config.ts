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

export default defineConfig({
	plugins: [tailwindcss(), sveltekit(), rooms],
	build: { chunkSizeWarningLimit: 1200 }
});
