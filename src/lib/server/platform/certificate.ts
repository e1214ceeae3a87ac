import {
	createPrivateKey,
	generateKeyPair,
	randomBytes,
	webcrypto,
	X509Certificate,
	type KeyObject
} from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Certificate } from 'pkijs';
import { daysLater } from '../../core/time/spans';
import type { Config } from './config';
import { keepOnce } from './kept-once';
import { signingKey } from './signing';

/** The words of certificates and signatures: read when first something is signed, since they are many. */
export const words = async () => ({ ...(await import('asn1js')), ...(await import('pkijs')) });

/** What signs PDF files: a private key, and the certificate by which other readers know it, with those above it. */
export interface Signing {
	key: webcrypto.CryptoKey;
	chain: [Certificate, ...Certificate[]];
	/** The certificates alone, for others. */
	pem: string;
	/** SHA-256 of the first certificate's DER, in hex. */
	fingerprint: string;
}
/** What signs lists, and what signs PDF files. */
export interface Signers {
	key: KeyObject;
	certificate: Pick<Signing, 'pem' | 'fingerprint'>;
}
type Where = Pick<Config, 'home' | 'certificate' | 'origin'>;

/** Days for which an own certificate holds: twenty years, as long as drawings are asked for. */
const VALID = 7_300;
const COMMON_NAME = '2.5.4.3';
const KEY_USAGE = '2.5.29.15';
const BASIC_CONSTRAINTS = '2.5.29.19';
/** Digital signature and content commitment (RFC 5280, 4.2.1.3). */
const SIGNS = new Uint8Array([0b1100_0000]);

/**
 * The certificate of the installation: the one that CUPBOARD_CERTIFICATE names, or else one of its own, made on first use
 * and kept readable for its owner only.
 * @throws Error that says what is wrong with a file that was set
 */
export async function signingCertificate(where: Where): Promise<Signing> {
	if (where.certificate) {
		try {
			return await signingOf(await readFile(where.certificate, 'utf8'));
		} catch (error) {
			throw new Error(
				`CUPBOARD_CERTIFICATE (${where.certificate}) cannot sign: ${(error as Error).message} It is a PEM file with a private key (RSA, or ECDSA on P-256, P-384 or P-521) without a password, and its certificate first.`,
				{ cause: error }
			);
		}
	}
	const own = join(where.home, 'signing-certificate.pem');
	const kept = () => readFile(own, 'utf8').then(signingOf);
	try {
		return await kept();
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
	}
	keepOnce(own, await ownCertificate(new URL(where.origin).host));
	return kept();
}

/** Everything that signs for the installation. */
export const signersOf = async (where: Where): Promise<Signers> => ({
	key: signingKey(where.home),
	certificate: await signingCertificate(where)
});

/** Key and certificates of a PEM file, the certificate of the key first. */
async function signingOf(text: string): Promise<Signing> {
	const key = createPrivateKey(text);
	const blocks = text.match(/-----BEGIN CERTIFICATE-----[^-]+-----END CERTIFICATE-----/g) ?? [];
	const [first, ...above] = blocks.map((block) => new X509Certificate(block));
	if (!first?.checkPrivateKey(key)) throw new Error('Its first certificate is not that of its key.');
	const curve = { prime256v1: 'P-256', secp384r1: 'P-384', secp521r1: 'P-521' }[
		key.asymmetricKeyDetails?.namedCurve ?? ''
	];
	const by =
		key.asymmetricKeyType === 'rsa'
			? { name: 'RSASSA-PKCS1-v1_5', hash: 'SHA-256' }
			: key.asymmetricKeyType === 'ec' && curve
				? { name: 'ECDSA', namedCurve: curve }
				: null;
	if (!by) throw new Error('Its key is of a kind that readers of PDF do not know.');
	const { Certificate } = await words();
	const certificateOf = ({ raw }: X509Certificate) => Certificate.fromBER(new Uint8Array(raw));
	return {
		key: await webcrypto.subtle.importKey(
			'pkcs8',
			new Uint8Array(key.export({ type: 'pkcs8', format: 'der' })),
			by,
			false,
			['sign']
		),
		chain: [certificateOf(first), ...above.map(certificateOf)],
		pem: blocks.map((block) => `${block}\n`).join(''),
		fingerprint: first.fingerprint256.replaceAll(':', '').toLowerCase()
	};
}

/** A key and a certificate that it signed itself (X.509 v3, RFC 5280), as PEM. RSA, which every reader knows. */
async function ownCertificate(host: string): Promise<string> {
	const { AttributeTypeAndValue, BasicConstraints, BitString, Certificate, Extension, Integer, Utf8String } =
		await words();
	const { privateKey, publicKey } = await promisify(generateKeyPair)('rsa', { modulusLength: 3072 });
	const by = { name: 'RSASSA-PKCS1-v1_5', hash: 'SHA-256' };
	const imported = <T extends 'pkcs8' | 'spki'>(form: T, der: Buffer, use: 'sign' | 'verify') =>
		webcrypto.subtle.importKey(form, new Uint8Array(der), by, true, [use]);
	const certificate = new Certificate();
	certificate.version = 2;
	const serial = new Uint8Array(randomBytes(16));
	// A positive number without leading zeros, as DER wants it.
	serial[0] = (serial[0]! & 0x3f) | 0x40;
	certificate.serialNumber = new Integer({ valueHex: serial.buffer });
	for (const name of [certificate.issuer, certificate.subject])
		name.typesAndValues.push(
			new AttributeTypeAndValue({
				type: COMMON_NAME,
				value: new Utf8String({ value: `Cupboard at ${host}`.slice(0, 64) })
			})
		);
	const now = new Date();
	certificate.notBefore.value = now;
	certificate.notAfter.value = daysLater(now, VALID);
	certificate.extensions = [
		new Extension({
			extnID: BASIC_CONSTRAINTS,
			critical: true,
			extnValue: new BasicConstraints({ cA: false }).toSchema().toBER(false)
		}),
		new Extension({
			extnID: KEY_USAGE,
			critical: true,
			extnValue: new BitString({ valueHex: SIGNS.buffer, unusedBits: 6 }).toBER(false)
		})
	];
	await certificate.subjectPublicKeyInfo.importKey(
		await imported('spki', publicKey.export({ type: 'spki', format: 'der' }), 'verify')
	);
	await certificate.sign(
		await imported('pkcs8', privateKey.export({ type: 'pkcs8', format: 'der' }), 'sign'),
		'SHA-256'
	);
	return (
		privateKey.export({ type: 'pkcs8', format: 'pem' }).toString() +
		new X509Certificate(Buffer.from(certificate.toSchema(true).toBER(false))).toString()
	);
}
