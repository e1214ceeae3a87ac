import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Refusal, step } from './say.mjs';

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

/** Whether something was built from sources as they are now; and the note of it, once it was. */
function builtFrom(stamp, paths) {
	const hash = createHash('sha256');
	for (const path of paths) hash.update(path).update(readFileSync(path));
	const wanted = hash.digest('hex');
	return {
		stands: existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted,
		note: () => writeFileSync(stamp, wanted)
	};
}

/** Builds what runs beside the server in processes of its own, and its tasks, when their sources changed since. */
export function ensureBeside() {
	const sources = [...files('src/lib'), ...files('scripts/tasks'), ...files('scripts/world')];
	const configs = ['vite.worker.config.ts', 'vite.tasks.config.ts'];
	const built = builtFrom('build/tasks/.made-from', [...sources, ...configs, 'package-lock.json']);
	if (built.stands) return;
	for (const config of configs) run(['vite', 'build', '--config', config, '--logLevel', 'error']);
	built.note();
}

/** Builds the application when its sources changed since the last build. */
export function ensureBuild() {
	ensureStatic();
	const built = builtFrom('build/.made-from', [
		...files('src'),
		...files('static'),
		'package-lock.json',
		'svelte.config.js',
		'vite.config.ts'
	]);
	if (!built.stands) {
		step('building');
		run(['svelte-kit', 'sync']);
		run(['vite', 'build', '--logLevel', 'error']);
		built.note();
	}
	ensureBeside();
}
