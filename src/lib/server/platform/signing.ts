import {
	createHash,
	createPrivateKey,
	createPublicKey,
	generateKeyPairSync,
	sign,
	verify,
	type KeyObject
} from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { keepOnce } from './kept-once';

/** The installation's Ed25519 key (RFC 8032), kept readable for its owner only. Made on first use. */
export function signingKey(home: string): KeyObject {
	const path = join(home, 'signing-key.pem');
	const kept = () => createPrivateKey(readFileSync(path));
	try {
		return kept();
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
	}
	const { privateKey } = generateKeyPairSync('ed25519');
	keepOnce(path, privateKey.export({ type: 'pkcs8', format: 'pem' }).toString());
	return kept();
}

/** Signs a text; base64. */
export function signText(key: KeyObject, text: string): string {
	return sign(null, Buffer.from(text), key).toString('base64');
}

export function verifyText(key: KeyObject, text: string, signature: string): boolean {
	return verify(null, Buffer.from(text), createPublicKey(key), Buffer.from(signature, 'base64'));
}

/** The key that signs, to be had by everybody, and the fingerprint by which it is known: SHA-256 of its DER, in hex. */
export function publicKeyOf(key: KeyObject): { pem: string; fingerprint: string } {
	const pub = createPublicKey(key);
	const der = pub.export({ type: 'spki', format: 'der' });
	return {
		pem: pub.export({ type: 'spki', format: 'pem' }).toString(),
		fingerprint: createHash('sha256').update(der).digest('hex')
	};
}
