import { defineConfig } from 'vite';

/** What writes PDFs, and what only that loads. */
const PDF = [
	...['@cantoo/pdf-lib', 'culori', 'node-html-better-parser', '@signpdf/utils'],
	...['fontkit', 'brotli', 'clone', 'dfa', 'fast-deep-equal', 'restructure', 'tiny-inflate'],
	...['unicode-properties', 'unicode-trie', '@swc/helpers']
];
/** What others use, too. */
const SHARED = ['fflate', 'html-entities', 'tslib', 'base64-js'];
const from = (packages: string[]) => new RegExp(`node_modules/(${packages.join('|')})/`);

/** The worker threads of the server, built on their own: they are loaded as files, not imported. */
export default defineConfig({
	// Taken in as far as it is used: their own files, hundreds of them, take a worker half a second to load.
	ssr: { noExternal: ['echarts', 'zrender', ...PDF, ...SHARED] },
	build: {
		ssr: 'src/lib/server/formats/worker.ts',
		outDir: 'build/worker',
		emptyOutDir: true,
		rolldownOptions: {
			output: {
				entryFileNames: 'worker.js',
				codeSplitting: {
					groups: [
						{ name: 'shared', test: from(SHARED), priority: 1 },
						{ name: 'pdf', test: from(PDF) }
					]
				}
			}
		}
	}
});
