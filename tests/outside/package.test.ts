/** The package of a release, proved by programs that know nothing of Cupboard: coreutils, OpenSSL and Python. */
import { spawnSync } from 'node:child_process';
import { createHash, generateKeyPairSync, sign } from 'node:crypto';
import { appendFileSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import canonicalize from 'canonicalize';
import { describe, expect, it } from 'vitest';
import { USUAL_SUITABILITY, type Manifest } from '../../src/lib/core/releases';
import { releasePackage, type Proof } from '../../src/lib/server/releases/package';

const hash = (text: string) => createHash('sha256').update(text).digest('hex');
const CONTENT = new Map(['the hinge', 'the deck', 'a cover note'].map((text) => [hash(text), text]));
const stored = (text: string) => ({ hash: hash(text), size: Buffer.byteLength(text) });

/** A package of two documents to two people, in a folder of its own. */
function packed(): string {
	const key = generateKeyPairSync('ed25519').privateKey;
	const documents = [
		{ number: 'VFT-MW-LS-00-DR-0101', title: 'Hinge, “Größe” 1', text: 'the hinge' },
		{ number: 'VFT-MW-LS-00-DR-0102', title: 'Deck', text: 'the deck' }
	].map(({ number, title, text }) => ({
		number,
		title,
		file: `${number}_P01 ${title}.txt`,
		...stored(text)
	}));
	const proof = (recipient: string, listed: typeof documents): Proof => {
		const manifest: Manifest = {
			format: 'cupboard-manifest/1',
			project: 'VFT Vennholm Ferry Terminal',
			release: '0042',
			title: 'Linkspan',
			purpose: 'approval',
			issuedAt: '2031-03-05T10:00:00.000Z',
			issuedBy: 'Ines Maddock',
			approvedBy: 'Halla Brandt',
			recipient,
			documents: listed.map(({ number, title, file, size, hash: sha256 }) => ({
				number,
				title,
				revision: 'P01',
				file,
				size,
				sha256
			}))
		};
		return {
			manifest,
			signature: sign(null, Buffer.from(canonicalize(manifest)!), key).toString('base64'),
			note: stored('a cover note')
		};
	};
	const files = releasePackage({
		number: 42,
		project: { code: 'VFT', name: 'Vennholm Ferry Terminal' },
		title: 'Linkspan',
		suitability: USUAL_SUITABILITY.approval,
		whole: proof('Maren Aldgate; Kaja Dorn', documents),
		documents: documents.map((one) => ({ ...one, department: 'MW', type: 'DR', original: null })),
		recipients: [['Maren Aldgate', documents] as const, ['Kaja Dorn', documents.slice(0, 1)] as const].map(
			([name, listed]) => ({
				name,
				company: 'Vennholm Harbour Trust',
				proof: proof(name, [...listed]),
				receivedAt: null,
				verdicts: []
			})
		),
		consolidated: [],
		day: '2031-03-06',
		key
	});
	const folder = mkdtempSync(join(tmpdir(), 'cupboard-package-'));
	for (const { path, sha256, made } of files) {
		mkdirSync(dirname(join(folder, path)), { recursive: true });
		writeFileSync(join(folder, path), made === null ? CONTENT.get(sha256)! : Buffer.from(made, 'base64'));
	}
	return folder;
}
const run = (folder: string, program: string, ...args: string[]) => {
	const { status, stdout, stderr } = spawnSync(program, args, { cwd: folder, encoding: 'utf8' });
	return { status, said: stdout + stderr };
};
const proved = (folder: string) => run(folder, '/usr/bin/python3', 'verify.py');

describe('the package of a release', () => {
	it('is whole by coreutils, signed by OpenSSL, and proved by the program that goes with it', () => {
		const folder = packed();
		for (const list of ['manifest-sha256.txt', 'tagmanifest-sha256.txt'])
			expect(run(folder, 'sha256sum', '-c', '--strict', '--quiet', list)).toEqual({ status: 0, said: '' });
		expect(
			run(
				folder,
				'openssl',
				'pkeyutl',
				'-verify',
				'-pubin',
				'-inkey',
				'data/proof/public-key.pem',
				'-rawin',
				'-in',
				'data/proof/manifest.json',
				'-sigfile',
				'data/proof/manifest.sig'
			)
		).toMatchObject({ status: 0 });
		expect(proved(folder)).toEqual({
			status: 0,
			said: expect.stringMatching(/files are whole and listed; 3 signed lists hold/)
		});
	});

	it.each([
		[
			'a byte of a document',
			'changed: data/documents/',
			(folder: string) => appendFileSync(document(folder), '.')
		],
		['a document that is gone', 'missing: data/documents/', (folder: string) => rmSync(document(folder))],
		[
			'a file that was slipped in',
			'not listed: data/documents/more.txt',
			(folder: string) => writeFileSync(join(folder, 'data/documents/more.txt'), '')
		]
	])('says which: %s', (_, said, change) => {
		const folder = packed();
		change(folder);
		expect(proved(folder)).toEqual({ status: 1, said: expect.stringContaining(said) });
	});

	it('says so where the lists were written anew around another document', () => {
		const folder = packed();
		writeFileSync(document(folder), 'another hinge');
		const relist = (list: string, paths: string) =>
			run(folder, 'sh', '-c', `find ${paths} -type f -print0 | sort -z | xargs -0 sha256sum > ${list}`);
		relist('manifest-sha256.txt', 'data');
		relist(
			'tagmanifest-sha256.txt',
			'bagit.txt bag-info.txt manifest-sha256.txt how-to-verify.txt verify.py'
		);
		expect(proved(folder)).toEqual({
			status: 1,
			said: expect.stringContaining('signed for, and not here as it was: VFT-MW-LS-00-DR-0101 P01')
		});
	});

	it('says so where a signed list was changed and listed anew', () => {
		const folder = packed();
		run(folder, 'sed', '-i', 's/Halla Brandt/Somebody Else/', 'data/proof/manifest.json');
		run(folder, 'sh', '-c', 'find data -type f -print0 | sort -z | xargs -0 sha256sum > manifest-sha256.txt');
		expect(proved(folder)).toEqual({
			status: 1,
			said: expect.stringContaining('signature does not fit: data/proof/manifest.json')
		});
	});
});

function document(folder: string): string {
	const documents = join(folder, 'data/documents');
	return join(documents, readdirSync(documents).sort()[0]!);
}
