import { webcrypto } from 'node:crypto';
import { SignPdf } from '@signpdf/signpdf';
import { Signer } from '@signpdf/utils';
import { words, type Signing } from './certificate';

/** Types of attributes that are signed with the content (RFC 5652, 11). */
const CONTENT_TYPE = '1.2.840.113549.1.9.3';
const MESSAGE_DIGEST = '1.2.840.113549.1.9.4';
const SIGNING_TIME = '1.2.840.113549.1.9.5';

/** Signs bytes as CMS (RFC 5652) that stands apart from them, in DER. */
class CmsSigner extends Signer {
	constructor(private readonly by: Signing) {
		super();
	}

	override async sign(bytes: Buffer, at = new Date()): Promise<Buffer> {
		const {
			Attribute,
			ContentInfo,
			EncapsulatedContentInfo,
			IssuerAndSerialNumber,
			ObjectIdentifier,
			OctetString,
			SignedAndUnsignedAttributes,
			SignedData,
			SignerInfo,
			UTCTime
		} = await words();
		const content = new Uint8Array(bytes).buffer;
		const [own] = this.by.chain;
		const attribute = (type: string, value: unknown) => new Attribute({ type, values: [value] });
		const signed = new SignedData({
			version: 1,
			encapContentInfo: new EncapsulatedContentInfo({ eContentType: ContentInfo.DATA }),
			signerInfos: [
				new SignerInfo({
					version: 1,
					sid: new IssuerAndSerialNumber({ issuer: own.issuer, serialNumber: own.serialNumber }),
					signedAttrs: new SignedAndUnsignedAttributes({
						type: 0,
						attributes: [
							attribute(CONTENT_TYPE, new ObjectIdentifier({ value: ContentInfo.DATA })),
							attribute(SIGNING_TIME, new UTCTime({ valueDate: at })),
							attribute(
								MESSAGE_DIGEST,
								new OctetString({ valueHex: await webcrypto.subtle.digest('SHA-256', content) })
							)
						]
					})
				})
			],
			certificates: [...this.by.chain]
		});
		await signed.sign(this.by.key, 0, 'SHA-256', content);
		const der = new ContentInfo({ contentType: ContentInfo.SIGNED_DATA, content: signed.toSchema(true) });
		return Buffer.from(der.toSchema().toBER(false));
	}
}

/**
 * Puts a digital signature (ISO 32000-1, 12.8) into a PDF that has room for it (`leaveRoomForSignature`). Whoever opens it
 * in another reader sees by whom it was signed, and whether it is as it was.
 * @param at the time that the signature names
 */
export function signPdf(pdf: Uint8Array, by: Signing, at: Date): Promise<Buffer> {
	return new SignPdf().sign(Buffer.from(pdf), new CmsSigner(by), at);
}
