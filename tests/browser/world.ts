import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { expect, request, test as base, type BrowserContext } from '@playwright/test';
import postgres from 'postgres';
import { ServerProcess } from '../integration/server';

export * from '@playwright/test';

type Session = Awaited<ReturnType<BrowserContext['storageState']>>;
/** People of the demo world who sign in before the stories begin; others do when they are first met. */
const PEOPLE = ['ines', 'oke', 'rhosyn', 'halla', 'sefa', 'petra', 'tomas', 'lumi', 'ruan'];
/** The demo world that every story copies. */
const TEMPLATE = 'cupboard_browser';

const folder = (name: string) => join(process.env.CUPBOARD_HOME!, name);
function address(database: string): string {
	const url = new URL(process.env.DATABASE_URL!);
	url.pathname = `/${database}`;
	return url.toString();
}
async function withDatabase<T>(url: string, run: (sql: postgres.Sql) => Promise<T>): Promise<T> {
	const sql = postgres(url, { max: 1, onnotice: () => {} });
	try {
		return await run(sql);
	} finally {
		await sql.end();
	}
}
async function makeAnew(database: string, template = ''): Promise<void> {
	await withDatabase(process.env.DATABASE_URL!, async (sql) => {
		await sql.unsafe(`drop database if exists ${database} with (force)`);
		await sql.unsafe(`create database ${database} ${template && `template ${template}`}`);
	});
}
const serve = (database: string, home: string) =>
	ServerProcess.on(address(database), home, {
		CUPBOARD_DEMO: '1',
		CUPBOARD_SECRET: process.env.CUPBOARD_SECRET,
		LOG_LEVEL: 'error'
	});

/** Makes the demo world once, as `npm run demo` does, with its people signed in and its background work done. */
export async function makeTemplate(): Promise<void> {
	const home = folder(TEMPLATE);
	rmSync(process.env.CUPBOARD_HOME!, { recursive: true, force: true });
	mkdirSync(home, { recursive: true });
	await makeAnew(TEMPLATE);
	const made = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/tasks/prepare.ts', '--demo'], {
		env: {
			...process.env,
			NODE_ENV: 'production',
			DATABASE_URL: address(TEMPLATE),
			CUPBOARD_HOME: home,
			CUPBOARD_DEMO: '1',
			CUPBOARD_WORKER: resolve('build/worker/worker.js')
		},
		stdio: 'inherit'
	});
	if (made.status !== 0) throw new Error('The demo world could not be made.');
	const server = await serve(TEMPLATE, home);
	try {
		const sessions: Record<string, Session> = {};
		for (const who of PEOPLE) {
			const browser = await request.newContext({ baseURL: server.origin });
			await browser.post('/sign-in?/password', {
				headers: { origin: server.origin },
				form: { email: `${who}@vennholm.example`, password: 'cupboard-demo' }
			});
			sessions[who] = await browser.storageState();
			await browser.dispose();
		}
		writeFileSync(folder('sessions.json'), JSON.stringify(sessions));
		await withDatabase(address(TEMPLATE), async (sql) => {
			await expect
				.poll(
					async () => {
						// No story looks at a text of the demo world as LibreOffice prints it, where that is installed.
						await sql`delete from pgboss.job where name = 'draw-preview' and state <> 'active'`;
						const [row] = await sql`select count(*)::int as open from pgboss.job
							where name = 'read-content' and state in ('created', 'active', 'retry')`;
						return row!.open as number;
					},
					{ timeout: 120_000, intervals: [500] }
				)
				.toBe(0);
			await sql`delete from pgboss.job where name = 'draw-preview'`;
		});
	} finally {
		await server.stop('SIGTERM');
	}
}

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
