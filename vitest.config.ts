import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** The reader of DOCX is another one in the browser, which is where texts are brought in. */
const IN_BROWSERS = [{ find: /^mammoth$/, replacement: 'mammoth/mammoth.browser.js' }];
/** Where no page is around: what the framework says of the page is that there is none. */
const NO_PAGE = [
	{ find: '$app/state', replacement: new URL('tests/ui/no-page.ts', import.meta.url).pathname }
];

/** Milliseconds after which a test hangs. How long a thing may take is the bench's to say, where nothing else runs. */
const HANGS = 480_000;

/** Tests of screens: those that put something else in a module's place, which others would be given too, and the rest. */
const SCREENS = ['src/lib/ui', 'tests/ui']
	.flatMap((folder) =>
		readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((file) => join(folder, file))
	)
	.filter((file) => (file.startsWith('tests') ? /\.test\.ts$/ : /\.svelte\.test\.ts$/).test(file));
const replacing = (file: string) => /\bvi\.mock\(/.test(readFileSync(file, 'utf8'));
const screens = (name: string, include: string[], isolate: boolean) => ({
	plugins: [svelte()],
	resolve: { conditions: ['browser'], alias: NO_PAGE },
	test: { name, include, isolate, environment: 'jsdom', testTimeout: HANGS }
});

/** Files that wait most, for servers that start and clocks that run, go first, so that none is left alone at the end. */
const LONG = ['crash', 'walk', 'front-door', 'askable-release', 'askable'];
class LongestFirst extends BaseSequencer {
	override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
		const place = ({ moduleId }: TestSpecification) =>
			LONG.findIndex((name) => moduleId.endsWith(`/${name}.test.ts`)) + 1 || LONG.length + 1;
		return (await super.sort(files)).sort((a, b) => place(a) - place(b));
	}
}

export default defineConfig({
	test: {
		sequence: { sequencer: LongestFirst },
		// As many as processors, not one fewer: what reads the sources beside them has little to do.
		maxWorkers: '100%',
		projects: [
			{
				resolve: { alias: [...IN_BROWSERS, ...NO_PAGE] },
				test: {
					name: 'unit',
					// What is pure keeps nothing: files share a process, and load what they have in common once.
					isolate: false,
					unstubGlobals: true,
					testTimeout: HANGS,
					include: [
						'src/**/*.test.ts',
						'scripts/**/*.test.ts',
						'tests/house/**/*.test.ts',
						'tests/round-trips/**/*.test.ts'
					],
					exclude: ['**/*.svelte.test.ts']
				}
			},
			screens(
				'ui',
				SCREENS.filter((file) => !replacing(file)),
				false
			),
			screens('ui-replaced', SCREENS.filter(replacing), true),
			{
				resolve: { alias: IN_BROWSERS },
				test: {
					name: 'outside',
					include: ['tests/outside/**/*.test.ts'],
					testTimeout: 300_000,
					// Other programs are asked one after the other.
					maxWorkers: 1
				}
			},
			{
				resolve: { alias: NO_PAGE },
				test: {
					name: 'integration',
					include: ['tests/integration/**/*.test.ts'],
					globalSetup: 'tests/integration/global-setup.ts',
					testTimeout: HANGS,
					hookTimeout: 240_000,
					// Each file has a database and a store of its own; the application is loaded once for many files.
					isolate: false,
					// One more than processors: some wait for a clock, or for a server that starts.
					maxWorkers: 3
				}
			}
		]
	}
});
