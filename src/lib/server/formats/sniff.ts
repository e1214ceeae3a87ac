import { fileTypeFromBuffer } from 'file-type';
import { looksLikeDxf } from '../../core/dxf/read';
import { decodeText, isText } from '../../core/encoding';
import { splitExtension } from '../../core/names';

/** How many bytes from the start of a file decide its kind. */
export const HEAD_BYTES = 8192;

const TEXT_TYPES: Record<string, string> = {
	md: 'text/markdown',
	markdown: 'text/markdown',
	csv: 'text/csv',
	ics: 'text/calendar'
};

/** Office files are zip archives; which one they are may stand too far inside to be seen in the first bytes. */
const OFFICE_TYPES: Record<string, string> = {
	docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
	pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
	odt: 'application/vnd.oasis.opendocument.text',
	ods: 'application/vnd.oasis.opendocument.spreadsheet'
};

/**
 * The media type of a file by its bytes; the name only tells kinds of text apart.
 * @param head the first {@link HEAD_BYTES} bytes
 */
export async function sniff(head: Uint8Array, fileName: string): Promise<string> {
	if (looksLikeDxf(head)) return 'image/vnd.dxf';
	const known = await fileTypeFromBuffer(head).catch(() => undefined);
	if (known?.mime === 'application/zip') return OFFICE_TYPES[splitExtension(fileName)[1]] ?? known.mime;
	if (known && known.mime !== 'application/xml') return known.mime;
	if (isText(head)) {
		const start = decodeText(head.subarray(0, 2048)).text;
		if (/^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)*(<!DOCTYPE svg[^>]*>\s*)?<svg[\s>]/i.test(start))
			return 'image/svg+xml';
		if (/^\s*(<!doctype html|<html)/i.test(start)) return 'text/html';
		return TEXT_TYPES[splitExtension(fileName)[1]] ?? 'text/plain';
	}
	return 'application/octet-stream';
}

/** Types a browser may show as they are; everything else is served as a download. */
export const INLINE_TYPES = new Set([
	'application/pdf',
	'image/png',
	'image/jpeg',
	'image/webp',
	'image/gif',
	'image/svg+xml',
	'text/plain',
	'text/markdown',
	'text/csv',
	'audio/mpeg',
	'audio/wav',
	'audio/ogg',
	'audio/mp4',
	'video/mp4',
	'video/webm',
	'video/quicktime'
]);
