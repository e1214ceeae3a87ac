import { defineConfig } from 'vite';

/**
 * What makes Cupboard ready and checks it, and the demo: built, since their hundreds of sources take longer to be read one
 * by one than most of them to do their work.
 */
export default defineConfig({
	build: {
		ssr: true,
		outDir: 'build/tasks',
		emptyOutDir: true,
		rolldownOptions: {
			input: {
				prepare: 'scripts/tasks/prepare.ts',
				verify: 'scripts/tasks/verify.ts',
				making: 'scripts/world/making.ts'
			},
			output: {
				// All in one folder: what starts another finds it beside itself, as among the sources.
				entryFileNames: '[name].js',
				chunkFileNames: '[name]-[hash].js'
			}
		}
	}
});
