import { defineConfig } from '@playwright/test';

export default defineConfig({
	testDir: 'tests/browser',
	globalSetup: './tests/browser/global-setup.ts',
	workers: 1,
	fullyParallel: false,
	timeout: 120_000,
	expect: { timeout: 10_000 },
	reporter: [['list'], ['json', { outputFile: process.env.CUPBOARD_REPORT ?? 'test-results/report.json' }]],
	use: {
		baseURL: process.env.CUPBOARD_BASE,
		viewport: { width: 1280, height: 800 },
		actionTimeout: 15_000,
		launchOptions: {
			executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
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
