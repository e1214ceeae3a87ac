/** Programs of others are held to the work they do, not to how long a busy machine lets them wait. */
import { chmod, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { delimiter, join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { makeStandIn } from './stand-in';

let home: string;
const path = process.env.PATH;
beforeEach(async () => {
	home = await mkdtemp(join(tmpdir(), 'cupboard-program-'));
	process.env.PATH = `${home}${delimiter}${path}`;
	await writeFile(join(home, 'memo.doc'), 'a memo');
});
afterEach(async () => {
	process.env.PATH = path;
	await rm(home, { recursive: true, force: true });
});

/** Puts a program in the place of LibreOffice; `$out` is the folder that it is told to write into. */
async function program(lines: string) {
	await writeFile(
		join(home, 'soffice'),
		`#!/bin/sh\nwhile [ "$1" != --outdir ]; do shift; done\nout=$2\n${lines}\n`
	);
	await chmod(join(home, 'soffice'), 0o755);
}
const made = () =>
	makeStandIn(
		{ path: join(home, 'memo.doc'), mediaType: 'application/msword', to: join(home, 'made.pdf') },
		1
	);

it('one that has to wait longer than it may work is waited for', async () => {
	await program('sleep 1.5; mkdir -p "$out"; echo printed > "$out/file.pdf"');
	await made();
	expect(await readFile(join(home, 'made.pdf'), 'utf8')).toBe('printed\n');
});

it('one that goes round in circles is ended', async () => {
	await program('while :; do :; done');
	await expect(made()).rejects.toThrow();
});

it('one that makes nothing has failed', async () => {
	await program('exit 0');
	await expect(made()).rejects.toThrow(/ENOENT/);
});
