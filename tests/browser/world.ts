import { cpSync, readFileSync, rmSync } from 'node:fs';
import { test as base } from '@playwright/test';
import { address, folder, makeAnew, serve, TEMPLATE, type Session } from './template';

export * from '@playwright/test';

/** Where the story that runs has its world. */
export interface World {
	origin: string;
	database: string;
	home: string;
	/** Sessions of people who signed in before, by person: a browser that comes back need not sign in again. */
	sessions: Map<string, Session>;
}
let now: World | null = null;
export function world(): World {
	if (!now) throw new Error('Use the test of tests/browser/world, which gives each story its world.');
	return now;
}

/** A story's own server over its own copy of the demo world, so that stories run in any order and beside each other. */
export const test = base.extend<object, { ownWorld: World }>({
	ownWorld: [
		// Playwright reads what a fixture uses from its first argument.

		async ({}, use, { parallelIndex }) => {
			const name = `${TEMPLATE}_${parallelIndex}`;
			const home = folder(name);
			rmSync(home, { recursive: true, force: true });
			cpSync(folder(TEMPLATE), home, { recursive: true });
			await makeAnew(name, TEMPLATE);
			const server = await serve(name, home);
			const sessions = JSON.parse(readFileSync(folder('sessions.json'), 'utf8')) as Record<string, Session>;
			now = {
				origin: server.origin,
				database: address(name),
				home,
				sessions: new Map(Object.entries(sessions))
			};
			await use(now);
			await server.stop('SIGTERM');
		},
		{ scope: 'worker', auto: true, timeout: 60_000 }
	]
});
