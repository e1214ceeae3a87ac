import { defineConfig } from 'vitest/config';

export default defineConfig({
	test: {
		projects: [
			{ test: { name: 'unit', include: ['src/**/*.test.ts', 'scripts/**/*.test.ts'] } },
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
