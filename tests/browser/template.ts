import { cpSync, linkSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { dirname, join, resolve } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { request, type BrowserContext } from '@playwright/test';
import postgres from 'postgres';
import { ServerProcess } from '../integration/server';

export type Session = Awaited<ReturnType<BrowserContext['storageState']>>;
/** People of the demo world who sign in before the stories begin; others do when they are first met. */
const PEOPLE = ['ines', 'oke', 'rhosyn', 'halla', 'sefa', 'petra', 'tomas', 'lumi', 'ruan'];
/** The demo world that every story copies. */
export const TEMPLATE = 'cupboard_browser';

export const folder = (name: string) => join(process.env.CUPBOARD_HOME!, name);
export function address(database: string): string {
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
export async function makeAnew(database: string, template = ''): Promise<void> {
	await withDatabase(process.env.DATABASE_URL!, async (sql) => {
		await sql.unsafe(`drop database if exists ${database} with (force)`);
		await sql.unsafe(`create database ${database} ${template && `template ${template}`}`);
	});
}

/** A home like another one. What its store holds is never written to again, and so is linked. @returns its folder */
export function copyOf(name: string, as: string): string {
	const [from, to] = [folder(name), folder(as)];
	rmSync(to, { recursive: true, force: true });
	const store = join(from, 'store');
	cpSync(from, to, { recursive: true, filter: (path) => path !== store });
	for (const entry of readdirSync(store, { recursive: true, withFileTypes: true })) {
		const place = join(entry.parentPath, entry.name);
		const there = join(to, place.slice(from.length));
		mkdirSync(entry.isDirectory() ? there : dirname(there), { recursive: true });
		if (entry.isFile()) linkSync(place, there);
	}
	return to;
}
export const serve = (database: string, home: string, port?: number) =>
	ServerProcess.on(
		address(database),
		home,
		{ CUPBOARD_DEMO: '1', CUPBOARD_SECRET: process.env.CUPBOARD_SECRET, LOG_LEVEL: 'error' },
		port
	);

/** Only what hangs is ended; a busy machine takes its time to read the files of the world. */
const MOST_TRIES = 3_000;

/** Makes the demo world once, as `npm run demo` does, with its people signed in and its background work done. */
export async function makeTemplate(): Promise<void> {
	const home = folder(TEMPLATE);
	rmSync(process.env.CUPBOARD_HOME!, { recursive: true, force: true });
	mkdirSync(home, { recursive: true });
	await makeAnew(TEMPLATE);
	const made = spawnSync(process.execPath, ['build/tasks/prepare.js', '--demo'], {
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
			for (let tries = 0; ; tries++) {
				// No story looks at a text of the demo world as LibreOffice prints it, where that is installed.
				await sql`delete from pgboss.job where name = 'draw-preview' and state <> 'active'`;
				const [row] = await sql`select count(*)::int as open from pgboss.job
					where name = 'read-content' and state in ('created', 'active', 'retry')`;
				if (row!.open === 0) break;
				if (tries === MOST_TRIES)
					throw new Error('What the files of the demo world say is still being read.');
				await wait(200);
			}
			await sql`delete from pgboss.job where name = 'draw-preview'`;
		});
	} finally {
		await server.stop('SIGTERM');
	}
}
