import { readdirSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

/** Longest first, so that two at a time end together. */
const LONG = [
	'together',
	'axe',
	'eight',
	'folders',
	'recipients',
	'register',
	'uploads',
	'follows',
	'routes'
];
const stories = readdirSync('tests/browser')
	.filter((file) => file.endsWith('.spec.ts'))
	.map((file) => file.replace('.spec.ts', ''))
	.sort((a, b) => (LONG.indexOf(a) + 1 || 99) - (LONG.indexOf(b) + 1 || 99) || a.localeCompare(b));

export default defineConfig({
	testDir: 'tests/browser',
	globalSetup: './tests/browser/global-setup.ts',
	workers: 2,
	fullyParallel: false,
	// A story is a project, which Playwright gives a worker of its own, and so a world of its own.
	projects: stories.map((name) => ({ name, testMatch: `${name}.spec.ts` })),
	// Only what hangs is ended; a slow machine is not a fault.
	timeout: 480_000,
	expect: { timeout: 90_000 },
	reporter: [['list'], ['json', { outputFile: process.env.CUPBOARD_REPORT ?? 'test-results/report.json' }]],
	use: {
		viewport: { width: 1280, height: 800 },
		actionTimeout: 90_000,
		launchOptions: {
			executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
			args: [
				'--no-sandbox',
				'--disable-gpu',
				'--disable-dev-shm-usage',
				'--disable-background-networking',
				'--disable-component-update',
				'--disable-sync',
				'--no-first-run'
			]
		}
	}
});
