import { fileTypeFromBuffer } from 'file-type';
import { looksLikeDxf } from '../../core/dxf/read';
import { decodeText, isText } from '../../core/files/encoding';
import { splitExtension } from '../../core/files/names';
import { compoundKind, isCompound } from '../../formats/package/compound';

/** How many bytes from the start of a file decide its kind. */
export const HEAD_BYTES = 8192;

const TEXT_TYPES: Record<string, string> = {
	eml: 'message/rfc822',
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

/** Kinds of compound files by their endings, for those of which only the beginning is at hand. */
const COMPOUND_TYPES: Record<string, string> = {
	doc: 'application/msword',
	xls: 'application/vnd.ms-excel',
	ppt: 'application/vnd.ms-powerpoint',
	msg: 'application/vnd.ms-outlook'
};

/** Gives bytes of a file from a place on, fewer at its end. */
type ReadAt = (from: number, length: number) => Promise<Uint8Array>;

/**
 * The media type of a file by its bytes; the name only tells kinds of text apart, and what the bytes at hand do not.
 * @param head the first {@link HEAD_BYTES} bytes
 * @param readAt the rest of the file, where it is at hand
 */
export async function sniff(head: Uint8Array, fileName: string, readAt?: ReadAt): Promise<string> {
	if (looksLikeDxf(head)) return 'image/vnd.dxf';
	if (isCompound(head)) {
		const kind = readAt && (await compoundKind(readAt).catch(() => null));
		return kind ?? COMPOUND_TYPES[splitExtension(fileName)[1]] ?? 'application/x-cfb';
	}
	if (/^\s*ISO-10303-21;/.test(Buffer.from(head.subarray(0, 64)).toString('latin1')))
		return /FILE_SCHEMA\s*\(\s*\(\s*'IFC/i.test(Buffer.from(head).toString('latin1')) ||
			splitExtension(fileName)[1] === 'ifc'
			? 'application/x-ifc'
			: 'application/x-step';
	const known = await fileTypeFromBuffer(head).catch(() => undefined);
	if (known?.mime === 'application/zip') return OFFICE_TYPES[splitExtension(fileName)[1]] ?? known.mime;
	if (known && known.mime !== 'application/xml') return known.mime;
	// What tells the kinds of TIFF apart often stands at the file's end, where it is not looked for.
	if (/^(II\*\0|MM\0\*)/.test(Buffer.from(head.subarray(0, 4)).toString('latin1'))) return 'image/tiff';
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
