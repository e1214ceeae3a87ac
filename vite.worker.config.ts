import { defineConfig } from 'vite';

/** The worker threads of the server, built on their own: they are loaded as files, not imported. */
export default defineConfig({
	build: {
		ssr: 'src/lib/server/formats/worker.ts',
		outDir: 'build/worker',
		emptyOutDir: true,
		rolldownOptions: { output: { entryFileNames: 'worker.js' } }
	}
});
