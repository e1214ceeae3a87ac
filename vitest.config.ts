import { defineConfig } from 'vitest/config';

export default defineConfig({
	test: {
		projects: [
			{
				// The reader of DOCX is another one in the browser, which is where it is used.
				resolve: { alias: [{ find: /^mammoth$/, replacement: 'mammoth/mammoth.browser.js' }] },
				test: {
					name: 'unit',
					include: ['src/**/*.test.ts', 'scripts/**/*.test.ts', 'tests/round-trips/**/*.test.ts']
				}
			},
			{
				test: {
					name: 'integration',
					include: ['tests/integration/**/*.test.ts'],
					globalSetup: 'tests/integration/global-setup.ts',
					testTimeout: 60_000,
					hookTimeout: 120_000,
					maxWorkers: 2
				}
			}
		]
	}
});
