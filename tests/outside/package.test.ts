/** The package of a release, proved by programs that know nothing of Cupboard: coreutils, OpenSSL, Python and Poppler. */
import { createHash } from 'node:crypto';
import {
	appendFileSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import canonicalize from 'canonicalize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_SUITABILITY, type Manifest } from '../../src/lib/core/releases';
import { coverNote } from '../../src/lib/server/formats/cover-note';
import { signersOf, signingCertificate } from '../../src/lib/server/platform/certificate';
import { signPdf } from '../../src/lib/server/platform/sign-pdf';
import { signText } from '../../src/lib/server/platform/signing';
import { releasePackage, type Proof } from '../../src/lib/server/releases/package';
import { hashed, notes, proved, run, signed } from './proving';

const ISSUED = '2031-03-05T10:00:00.000Z';
const hash = (bytes: string | Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const stored = (bytes: string | Uint8Array) => ({ hash: hash(bytes), size: Buffer.byteLength(bytes) });
const content = new Map<string, string | Uint8Array>(
	['the hinge', 'the deck'].map((text) => [hash(text), text])
);

let home: string;
beforeAll(() => {
	home = mkdtempSync(join(tmpdir(), 'cupboard-installation-'));
});
afterAll(() => rmSync(home, { recursive: true }));

/** A package of two documents to two people, in a folder of its own. */
async function packed(): Promise<string> {
	const where = { home, certificate: null, origin: 'https://files.example' };
	const by = await signersOf(where);
	const certificate = await signingCertificate(where);
	const documents = [
		{ number: 'VFT-MW-LS-00-DR-0101', title: 'Hinge, “Größe” 1', text: 'the hinge' },
		{ number: 'VFT-MW-LS-00-DR-0102', title: 'Deck', text: 'the deck' }
	].map(({ number, title, text }) => ({
		number,
		title,
		file: `${number}_P01 ${title}.txt`,
		...stored(text)
	}));
	const proof = async (recipient: string, listed: typeof documents): Promise<Proof> => {
		const manifest: Manifest = {
			format: 'cupboard-manifest/1',
			project: 'VFT Vennholm Ferry Terminal',
			release: '0042',
			title: 'Linkspan',
			purpose: 'approval',
			issuedAt: ISSUED,
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
		const note = await signPdf(await coverNote(manifest, null), certificate, new Date(ISSUED));
		content.set(hash(note), note);
		return { manifest, signature: signText(by.key, canonicalize(manifest)!), note: stored(note) };
	};
	const files = releasePackage({
		number: 42,
		project: { code: 'VFT', name: 'Vennholm Ferry Terminal' },
		title: 'Linkspan',
		suitability: USUAL_SUITABILITY.approval,
		whole: await proof('Maren Aldgate; Kaja Dorn', documents),
		documents: documents.map((one) => ({ ...one, department: 'MW', type: 'DR', original: null })),
		recipients: await Promise.all(
			[['Maren Aldgate', documents] as const, ['Kaja Dorn', documents.slice(0, 1)] as const].map(
				async ([name, listed]) => ({
					name,
					company: 'Vennholm Harbour Trust',
					proof: await proof(name, [...listed]),
					receivedAt: null,
					verdicts: []
				})
			)
		),
		consolidated: [],
		day: '2031-03-06',
		by
	});
	const folder = mkdtempSync(join(tmpdir(), 'cupboard-package-'));
	for (const { path, sha256, made } of files) {
		mkdirSync(dirname(join(folder, path)), { recursive: true });
		writeFileSync(join(folder, path), made === null ? content.get(sha256)! : Buffer.from(made, 'base64'));
	}
	return folder;
}
describe('the package of a release', () => {
	it('is whole by coreutils, signed by OpenSSL, and proved by the program that goes with it', async () => {
		const folder = await packed();
		expect(hashed(folder)).toEqual([
			{ status: 0, said: '' },
			{ status: 0, said: '' }
		]);
		expect(signed(folder)).toMatchObject({ status: 0 });
		expect(proved(folder)).toEqual({
			status: 0,
			said: expect.stringMatching(/files are whole and listed; 3 signed lists hold/)
		});
	});

	it('has cover notes whose signature another reader shows as whole', async () => {
		const folder = await packed();
		const proof = join(folder, 'data/proof');
		const said = notes(folder);
		expect(said).toHaveLength(3);
		for (const note of said)
			expect(note).toEqual({
				status: 0,
				said: expect.stringMatching(/Total document signed[^]*Signature is Valid/)
			});
		const own = run(proof, 'openssl', 'x509', '-in', 'certificate.pem', '-noout', '-fingerprint', '-sha256');
		const [, fingerprint] = own.said.trim().split('=');
		expect(readFileSync(join(folder, 'how-to-verify.txt'), 'utf8')).toContain(
			fingerprint!.replaceAll(':', '').toLowerCase()
		);
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
	])('says which: %s', async (_, said, change) => {
		const folder = await packed();
		change(folder);
		expect(proved(folder)).toEqual({ status: 1, said: expect.stringContaining(said) });
	});

	it('says so where the lists were written anew around another document', async () => {
		const folder = await packed();
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

	it('says so where a signed list was changed and listed anew', async () => {
		const folder = await packed();
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
