import { defineConfig } from '@playwright/test';

/** These take longest and go first, so that two at a time end together. */
const LONG = /\/(axe|eight|folders|recipients|register|together|uploads)\.spec\.ts$/;

export default defineConfig({
	testDir: 'tests/browser',
	globalSetup: './tests/browser/global-setup.ts',
	workers: 2,
	fullyParallel: false,
	projects: [
		{ name: 'long', testMatch: LONG },
		{ name: 'short', testIgnore: LONG }
	],
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
