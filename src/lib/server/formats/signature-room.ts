import { PDFHexString, PDFName, PDFString, type PDFDocument } from '@cantoo/pdf-lib';
import { DEFAULT_BYTE_RANGE_PLACEHOLDER, SIG_FLAGS, SUBFILTER_ADOBE_PKCS7_DETACHED } from '@signpdf/utils';

/** Bytes that a signature may take, with a certificate and those above it. */
const ROOM = 16_384;
/** Of a field that is printed and stays where it is (ISO 32000-1, table 165). */
const PRINTED_LOCKED = 132;

/**
 * Leaves room in a PDF for a digital signature (ISO 32000-1, 12.8.1), in a field that shows nothing on the page. The
 * document is to be saved without object streams, so that the room stands open in its bytes.
 */
export function leaveRoomForSignature(pdf: PDFDocument, reason: string, at: Date): void {
	const { context, catalog } = pdf;
	const page = pdf.getPage(0);
	const open = PDFName.of(DEFAULT_BYTE_RANGE_PLACEHOLDER);
	const signature = context.obj({
		Type: 'Sig',
		Filter: 'Adobe.PPKLite',
		SubFilter: SUBFILTER_ADOBE_PKCS7_DETACHED,
		ByteRange: [0, open, open, open],
		Contents: PDFHexString.of('00'.repeat(ROOM)),
		Reason: PDFHexString.fromText(reason),
		M: PDFString.fromDate(at)
	});
	const field = context.register(
		context.obj({
			Type: 'Annot',
			Subtype: 'Widget',
			FT: 'Sig',
			T: PDFString.of('Signature'),
			Rect: [0, 0, 0, 0],
			F: PRINTED_LOCKED,
			V: context.register(signature),
			P: page.ref
		})
	);
	page.node.addAnnot(field);
	catalog.set(
		PDFName.of('AcroForm'),
		context.obj({ SigFlags: SIG_FLAGS.SIGNATURES_EXIST | SIG_FLAGS.APPEND_ONLY, Fields: [field] })
	);
}
