/** A certificate that an authority gave to the installation, made by OpenSSL and read by Poppler. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { MANIFEST } from '../manifest';
import { coverNote } from '../../src/lib/server/formats/cover-note';
import { signingCertificate } from '../../src/lib/server/platform/certificate';
import { signPdf } from '../../src/lib/server/platform/sign-pdf';

let folder: string;
const at = (name: string) => join(folder, name);
const openssl = (...args: string[]) => execFileSync('openssl', args, { cwd: folder, stdio: 'pipe' });
beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'cupboard-authority-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

it.each([
	['RSA', ['rsa:2048']],
	['ECDSA on P-256', ['ec', '-pkeyopt', 'ec_paramgen_curve:P-256']],
	['ECDSA on P-384', ['ec', '-pkeyopt', 'ec_paramgen_curve:P-384']]
])('signs with a key of %s under an authority of its own', async (_, kind) => {
	openssl(
		'req',
		'-x509',
		'-newkey',
		'rsa:2048',
		'-nodes',
		'-keyout',
		'ca.key',
		'-out',
		'ca.pem',
		'-subj',
		'/CN=Authority'
	);
	openssl(
		'req',
		'-newkey',
		...kind,
		'-nodes',
		'-keyout',
		'own.key',
		'-out',
		'own.csr',
		'-subj',
		'/CN=Harbour office'
	);
	openssl(
		'x509',
		'-req',
		'-in',
		'own.csr',
		'-CA',
		'ca.pem',
		'-CAkey',
		'ca.key',
		'-CAcreateserial',
		'-out',
		'own.pem'
	);
	const set = at('set.pem');
	writeFileSync(set, ['own.key', 'own.pem', 'ca.pem'].map((name) => readFileSync(at(name), 'utf8')).join(''));
	const by = await signingCertificate({
		home: at('home'),
		certificate: set,
		origin: 'https://files.example'
	});
	expect(by.chain).toHaveLength(2);
	writeFileSync(
		at('note.pdf'),
		await signPdf(await coverNote(MANIFEST, null), by, new Date(MANIFEST.issuedAt))
	);
	const said = execFileSync('pdfsig', [at('note.pdf')], { encoding: 'utf8' });
	expect(said).toContain('Signature is Valid');
	expect(said).toContain('Common Name: Harbour office');
});
