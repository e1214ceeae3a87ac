import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { isMainThread } from 'node:worker_threads';
import type { Config } from './config';

/** Folders of the home that hold what people entrusted to Cupboard. */
const FOLDERS = ['uploads', 'mail', 'heads'];

/**
 * Keeps what Cupboard writes from everybody else on the machine: folders 700, files 600, from now on and for the folders
 * that are there already. The home itself is made so by whoever makes it (`scripts/parts/postgres.mjs`), since a
 * PostgreSQL of another user may have to pass through it.
 */
export function keepPrivate({ home, store }: Pick<Config, 'home' | 'store'>): void {
	// The mask is the process's own; threads cannot set it and inherit it.
	if (isMainThread) process.umask(0o077);
	mkdirSync(store, { recursive: true });
	for (const folder of [store, ...FOLDERS.map((name) => join(home, name))])
		if (existsSync(folder)) chmodSync(folder, 0o700);
}
