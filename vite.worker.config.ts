import { defineConfig } from 'vite';

/** The worker threads of the server, built on their own: they are loaded as files, not imported. */
export default defineConfig({
	// Taken in as far as it is used: its own files load every chart there is, which takes a worker most of a second.
	ssr: { noExternal: ['echarts', 'zrender'] },
	build: {
		ssr: 'src/lib/server/formats/worker.ts',
		outDir: 'build/worker',
		emptyOutDir: true,
		rolldownOptions: { output: { entryFileNames: 'worker.js' } }
	}
});
