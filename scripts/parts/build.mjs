import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Refusal, step } from './say.mjs';

const STAMP = 'build/.made-from';

function* files(folder) {
	for (const name of readdirSync(folder).sort()) {
		const path = join(folder, name);
		if (statSync(path).isDirectory()) yield* files(path);
		else if (!name.endsWith('.test.ts')) yield path;
	}
}

/** Lays what the PDF viewer needs beside our own files: fonts, character maps and decoders come from no other host. */
export function ensureStatic() {
	for (const part of ['standard_fonts', 'cmaps', 'wasm'])
		cpSync(join('node_modules/pdfjs-dist', part), join('static/pdfjs', part), { recursive: true });
}

const run = (args) => {
	// Bundlers remark on the innards of packages; only a failure is worth reading.
	const { status, stderr } = spawnSync('npx', args, {
		stdio: ['ignore', 'ignore', 'pipe'],
		encoding: 'utf8'
	});
	if (status === 0) return;
	console.error(stderr);
	throw new Refusal('The application did not build; the reason stands above.');
};
const WORKER = ['vite', 'build', '--config', 'vite.worker.config.ts', '--logLevel', 'error'];

/** Builds what reads and writes files in processes of its own, and nothing else. */
export function ensureWorker() {
	run(WORKER);
}

/** Builds the application when its sources changed since the last build. */
export function ensureBuild() {
	ensureStatic();
	const hash = createHash('sha256');
	for (const path of [
		...files('src'),
		...files('static'),
		'package-lock.json',
		'svelte.config.js',
		'vite.config.ts',
		'vite.worker.config.ts'
	]) {
		hash.update(path).update(readFileSync(path));
	}
	const wanted = hash.digest('hex');
	if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
	step('building');
	run(['svelte-kit', 'sync']);
	run(['vite', 'build', '--logLevel', 'error']);
	run(WORKER);
	writeFileSync(STAMP, wanted);
}
