import { fileTypeFromBuffer } from 'file-type';
import { looksLikeDxf } from '../../core/dxf/read';
import { decodeText, isText } from '../../core/files/encoding';
import { IFC, kindWithin } from '../../core/files/kinds';
import { MEDIA_TYPE } from '../../core/files/media';
import { splitExtension } from '../../core/files/names';
import { compoundKind, isCompound } from '../../formats/package/compound';

/** How many bytes from the start of a file decide its kind. */
export const HEAD_BYTES = 8192;

/** Gives bytes of a file from a place on, fewer at its end. */
type ReadAt = (from: number, length: number) => Promise<Uint8Array>;

/**
 * The media type of a file by its bytes; the name only tells kinds of text apart, and what the bytes at hand do not.
 * @param head the first {@link HEAD_BYTES} bytes
 * @param readAt the rest of the file, where it is at hand
 */
export async function sniff(head: Uint8Array, fileName: string, readAt?: ReadAt): Promise<string> {
	const [, ending] = splitExtension(fileName);
	if (looksLikeDxf(head)) return MEDIA_TYPE.dxf;
	if (isCompound(head)) {
		const kind = readAt && (await compoundKind(readAt).catch(() => null));
		return kind ?? kindWithin('compound', ending) ?? 'application/x-cfb';
	}
	if (/^\s*ISO-10303-21;/.test(Buffer.from(head.subarray(0, 64)).toString('latin1')))
		return /FILE_SCHEMA\s*\(\s*\(\s*'IFC/i.test(Buffer.from(head).toString('latin1')) || ending === 'ifc'
			? IFC
			: 'application/x-step';
	const known = await fileTypeFromBuffer(head).catch(() => undefined);
	if (known?.mime === 'application/zip') return kindWithin('zip', ending) ?? known.mime;
	if (known && known.mime !== 'application/xml') return known.mime;
	// What tells the kinds of TIFF apart often stands at the file's end, where it is not looked for.
	if (/^(II\*\0|MM\0\*)/.test(Buffer.from(head.subarray(0, 4)).toString('latin1'))) return 'image/tiff';
	if (isText(head)) {
		const start = decodeText(head.subarray(0, 2048)).text;
		if (/^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)*(<!DOCTYPE svg[^>]*>\s*)?<svg[\s>]/i.test(start))
			return 'image/svg+xml';
		if (/^\s*(<!doctype html|<html)/i.test(start)) return 'text/html';
		return kindWithin('text', ending) ?? 'text/plain';
	}
	return 'application/octet-stream';
}
