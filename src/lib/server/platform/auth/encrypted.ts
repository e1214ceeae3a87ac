import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** The key for one purpose, derived from the installation's secret (HKDF, RFC 5869). */
function keyFor(secret: string, purpose: string): Buffer {
	return Buffer.from(hkdfSync('sha256', secret, '', `cupboard-${purpose}`, 32));
}

/** Encrypts a short text with the installation's secret (AES-256-GCM); base64url of nonce, tag and text. */
export function encrypt(secret: string, purpose: string, text: string): string {
	const nonce = randomBytes(12);
	const cipher = createCipheriv('aes-256-gcm', keyFor(secret, purpose), nonce);
	const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
	return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64url');
}

/** The text, or null when it was encrypted with another secret or changed since. */
export function decrypt(secret: string, purpose: string, written: string): string | null {
	const bytes = Buffer.from(written, 'base64url');
	try {
		const cipher = createDecipheriv('aes-256-gcm', keyFor(secret, purpose), bytes.subarray(0, 12));
		cipher.setAuthTag(bytes.subarray(12, 28));
		return Buffer.concat([cipher.update(bytes.subarray(28)), cipher.final()]).toString('utf8');
	} catch {
		return null;
	}
}
