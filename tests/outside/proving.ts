/** A package proved by programs that know nothing of Cupboard: coreutils, OpenSSL, Python and Poppler. */
import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Runs a program in a folder: how it ended, and what it said on both its ways. */
export const run = (folder: string, program: string, ...args: string[]) => {
	const { status, stdout, stderr } = spawnSync(program, args, { cwd: folder, encoding: 'utf8' });
	return { status, said: stdout + stderr };
};

/** What the program that goes with a package says of it. */
export const proved = (folder: string) => run(folder, '/usr/bin/python3', 'verify.py');

/** The lists of hashes, as coreutils check them: silent and 0 where every file is whole and listed. */
export const hashed = (folder: string) =>
	['manifest-sha256.txt', 'tagmanifest-sha256.txt'].map((list) =>
		run(folder, 'sha256sum', '-c', '--strict', '--quiet', list)
	);

/** What OpenSSL says of the signature of the signed list. */
export const signed = (folder: string) =>
	run(
		folder,
		...(['openssl', 'pkeyutl', '-verify', '-pubin', '-rawin'] as const),
		...['-inkey', 'data/proof/public-key.pem'],
		...['-in', 'data/proof/manifest.json', '-sigfile', 'data/proof/manifest.sig']
	);

/** What Poppler says of the signature of each cover note. */
export function notes(folder: string) {
	const proof = join(folder, 'data/proof');
	return readdirSync(proof, { recursive: true, encoding: 'utf8' })
		.filter((one) => one.endsWith('.pdf'))
		.map((note) => run(proof, 'pdfsig', note));
}
