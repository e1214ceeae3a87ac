import { basename } from 'node:path';
import { readFileSync } from 'node:fs';
import { test as base } from '@playwright/test';
import type { ServerProcess } from '../integration/server';
import { leave } from './seats';
import { address, copyOf, folder, makeAnew, serve, TEMPLATE, type Session } from './template';

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

/** The worlds that one process of the tests makes, one after the other: its browser goes from story to story. */
class Worlds {
	private story = '';
	private server: ServerProcess | null = null;
	/** The same for all its worlds, so that a browser knows their scripts. */
	private port: number | undefined;

	constructor(private readonly database: string) {}

	/** The world of a story, which its first test finds as the demo made it. */
	async of(file: string): Promise<World> {
		const story = basename(file, '.spec.ts');
		if (now && story === this.story) return now;
		await this.end();
		const home = copyOf(TEMPLATE, story);
		await makeAnew(this.database, TEMPLATE);
		this.server = await serve(this.database, home, this.port);
		this.port = this.server.port;
		this.story = story;
		const sessions = JSON.parse(readFileSync(folder('sessions.json'), 'utf8')) as Record<string, Session>;
		return {
			origin: this.server.origin,
			database: address(this.database),
			home,
			sessions: new Map(Object.entries(sessions))
		};
	}

	async end(): Promise<void> {
		now = null;
		await this.server?.stop('SIGTERM');
		this.server = null;
	}
}

/**
 * A story's own server over its own copy of the demo world, so that stories run in any order and beside each other.
 * Whoever took part in a test has left when it ends, and what they left in their browsers is wiped.
 */
export const test = base.extend<{ ownWorld: World }, { worlds: Worlds }>({
	worlds: [
		// Playwright reads what a fixture uses from its first argument.

		async ({}, use, { parallelIndex }) => {
			const worlds = new Worlds(`${TEMPLATE}_${parallelIndex}`);
			await use(worlds);
			await worlds.end();
		},
		{ scope: 'worker' }
	],
	ownWorld: [
		async ({ worlds, browser }, use, { file }) => {
			now = await worlds.of(file);
			await use(now);
			await leave(browser, now.origin);
		},
		{ auto: true, timeout: 60_000 }
	]
});
