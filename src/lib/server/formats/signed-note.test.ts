import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { MANIFEST } from '../../../../tests/manifest';
import { signingCertificate } from '../platform/certificate';
import { signPdf } from '../platform/sign-pdf';
import { coverNote } from './cover-note';

const AT = new Date(MANIFEST.issuedAt);

let home: string;
beforeAll(() => {
	home = mkdtempSync(join(tmpdir(), 'cupboard-certificate-'));
});
afterAll(() => rmSync(home, { recursive: true }));

const where = (certificate: string | null = null) => ({ home, certificate, origin: 'https://files.example' });
const signed = async (certificate: string | null = null) =>
	signPdf(await coverNote(MANIFEST, null), await signingCertificate(where(certificate)), AT);
/** What another reader says of a file. */
function readerSays(pdf: Uint8Array): string {
	const path = join(home, 'note.pdf');
	writeFileSync(path, pdf);
	return execFileSync('pdfsig', [path], { encoding: 'utf8' });
}

it('is shown as whole by another reader, with who signed it and when', async () => {
	const said = readerSays(await signed());
	expect(said).toContain('Signature is Valid');
	expect(said).toContain('Total document signed');
	expect(said).toContain('Cupboard at files.example');
	expect(said).toMatch(/Signing Time: Nov 12 2026/);
});

it('is shown as broken when one letter of it was changed afterwards', async () => {
	const pdf = await signed();
	const at = pdf.indexOf('/Title');
	pdf[at + 1] = 'X'.charCodeAt(0);
	expect(readerSays(pdf)).not.toContain('Signature is Valid');
});

it('leaves a draft without a signature', async () => {
	expect(Buffer.from(await coverNote(MANIFEST, null, true)).includes('/ByteRange')).toBe(false);
});

it('has one certificate an installation, readable for its owner only, whoever comes first', async () => {
	const made = await Promise.all(Array.from({ length: 4 }, () => signingCertificate(where())));
	expect(new Set(made.map(({ fingerprint }) => fingerprint)).size).toBe(1);
	expect(statSync(join(home, 'signing-certificate.pem')).mode & 0o077).toBe(0);
	expect(made[0]!.pem).not.toContain('PRIVATE KEY');
});

it('takes the certificate that is set, and says what is wrong with one that cannot sign', async () => {
	const own = await signingCertificate(where());
	const set = join(home, 'set.pem');
	copyFileSync(join(home, 'signing-certificate.pem'), set);
	expect((await signingCertificate({ ...where(set), home: join(home, 'none') })).fingerprint).toBe(
		own.fingerprint
	);

	const [key] = readFileSync(set, 'utf8').split('-----BEGIN CERTIFICATE-----');
	writeFileSync(set, key!);
	await expect(signingCertificate(where(set))).rejects.toThrow(/CUPBOARD_CERTIFICATE .* cannot sign/);
	await expect(signingCertificate(where(join(home, 'nothing.pem')))).rejects.toThrow(/CUPBOARD_CERTIFICATE/);
});
