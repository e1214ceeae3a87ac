/** What stands written in a file, for finding it by its words. Runs in worker threads. */
import { readFile } from 'node:fs/promises';
import { open } from 'node:fs/promises';
import { DrawingPages } from '../../core/dxf/pages';
import { decodeText } from '../../core/files/encoding';
import { EML, IFC, MSG } from '../../core/files/file-kinds';
import { decodeDxf, readDxf } from '../../core/dxf/read';
import { listArchive, openEntry } from './archive';
import { MOST_DXF_BYTES, poppler } from './limits';
import { writtenInMail } from './mail';
import { modelTables, MOST_MODEL_BYTES } from './model';

/** Most characters of one file that are kept for finding: a manual of a thousand pages. */
const MOST_WRITTEN = 3_000_000;
/** Most bytes of one part of an office file, or of a plain text, that are read. */
const MOST_READ = 20_000_000;

/**
 * The text of a stored file, its spaces drawn together and cut at a bound; empty for kinds that hold none. Throws when
 * the file is damaged.
 */
export async function writtenIn(path: string, mediaType: string, size: number): Promise<string> {
	const text = await rawText(path, mediaType, size);
	return (
		text
			// What is packed into letters (pictures and attachments in mails and pages) is nobody's words.
			.replace(/[A-Za-z0-9+/]{60,}={0,2}/g, ' ')
			.replace(/[\p{Cc}\p{Cf}\s]+/gu, ' ')
			.normalize('NFC')
			.trim()
			.slice(0, MOST_WRITTEN)
			// Half of a character that was cut through cannot be kept.
			.replace(/[\uD800-\uDBFF]$/, '')
	);
}

async function rawText(path: string, mediaType: string, size: number): Promise<string> {
	if (mediaType === 'application/pdf') return pdfText(path);
	if (mediaType === 'image/vnd.dxf') {
		if (size > MOST_DXF_BYTES) return '';
		const { texts } = new DrawingPages(readDxf(decodeDxf(await readFile(path)))).written();
		return texts.map((t) => t.text).join('\n');
	}
	if (mediaType === EML || mediaType === MSG) return writtenInMail(path, mediaType, size, withoutTags);
	if (mediaType === IFC)
		return size <= MOST_MODEL_BYTES
			? (await modelTables(path)).flatMap((t) => t.rows.map((row) => row.join(' '))).join('\n')
			: '';
	if (mediaType === 'text/html') return withoutTags(await plainText(path));
	if (mediaType.startsWith('text/')) return plainText(path);
	const parts = OFFICE.find(([kind]) => kind.test(mediaType))?.[1];
	return parts ? officeText(path, parts) : '';
}

/** The paragraphs of an OpenDocument text, one after the other. */
export async function writtenLines(path: string): Promise<string[]> {
	const { stream } = await openEntry(path, 'content.xml');
	const chunks: Buffer[] = [];
	for await (const chunk of stream) chunks.push(chunk as Buffer);
	const xml = Buffer.concat(chunks)
		.toString('utf8')
		.replace(/<\/text:[ph]>/g, '\n');
	return withoutTags(xml)
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
}

/** Which parts of an office file hold its words. */
const OFFICE: readonly (readonly [kind: RegExp, parts: RegExp])[] = [
	[/wordprocessingml/, /^word\/(document|header\d*|footer\d*|footnotes|comments)\.xml$/],
	[/spreadsheetml/, /^xl\/(sharedStrings|worksheets\/sheet\d+)\.xml$/],
	[/presentationml/, /^ppt\/slides\/slide\d+\.xml$/],
	// Page headers and footers stand among the styles.
	[/opendocument\.text/, /^(content|styles)\.xml$/],
	[/opendocument/, /^content\.xml$/]
];

async function pdfText(path: string): Promise<string> {
	const { stdout } = await poppler('pdftotext', path, ['-l', '2000', '-enc', 'UTF-8'], '-');
	return stdout;
}

/** The beginning of a text file in whichever encoding it is, up to a bound. */
export async function plainText(path: string): Promise<string> {
	const file = await open(path);
	try {
		const { buffer, bytesRead } = await file.read({ buffer: Buffer.alloc(MOST_READ), position: 0 });
		return decodeText(buffer.subarray(0, bytesRead)).text;
	} finally {
		await file.close();
	}
}

async function officeText(path: string, parts: RegExp): Promise<string> {
	const { entries } = await listArchive(path);
	let all = '';
	for (const { name, size } of entries) {
		if (!parts.test(name) || size > MOST_READ || all.length > MOST_WRITTEN) continue;
		const { stream } = await openEntry(path, name);
		const chunks: Buffer[] = [];
		for await (const chunk of stream) chunks.push(chunk as Buffer);
		all += withoutTags(Buffer.concat(chunks).toString('utf8')) + '\n';
	}
	return all;
}

/** Ends of paragraphs, cells and lines, after which a word ends too; other tags can stand within a word. */
const ENDS =
	/<(?:\/(?:w:p|w:tc|si|is|v|c|a:p|text:p|text:h|table:table-cell|p|div|li|td|th|tr|h\d)|(?:w:br|w:tab|br|text:line-break|text:tab|text:s)\b[^>]*)>/g;
const NAMED: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };

function withoutTags(xml: string): string {
	return xml
		.replace(/<(script|style)\b[\s\S]*?<\/\1>/gi, ' ')
		.replace(ENDS, ' ')
		.replace(/<[^>]*>/g, '')
		.replace(
			/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(\w{2,5}));/gi,
			(whole, tens?: string, hex?: string, name?: string) => {
				const code = tens ? Number(tens) : hex ? parseInt(hex, 16) : null;
				if (code === null) return NAMED[name!.toLowerCase()] ?? whole;
				return code > 0 && code <= 0x10ffff && (code < 0xd800 || code > 0xdfff)
					? String.fromCodePoint(code)
					: ' ';
			}
		);
}
