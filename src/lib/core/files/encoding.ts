import { analyse } from 'chardet';

/** Encodings of text that can be chosen, by the names of the WHATWG Encoding Standard, with what people call them. */
export const ENCODINGS = {
	'utf-8': 'Unicode (UTF-8)',
	'utf-16le': 'Unicode (UTF-16, little end first)',
	'utf-16be': 'Unicode (UTF-16, big end first)',
	'windows-1252': 'Western European (Windows-1252)',
	'windows-1250': 'Central European (Windows-1250)',
	'iso-8859-2': 'Central European (ISO 8859-2)',
	'windows-1257': 'Baltic (Windows-1257)',
	'windows-1251': 'Cyrillic (Windows-1251)',
	'koi8-r': 'Cyrillic (KOI8-R)',
	'windows-1253': 'Greek (Windows-1253)',
	'windows-1254': 'Turkish (Windows-1254)',
	'windows-1255': 'Hebrew (Windows-1255)',
	'windows-1256': 'Arabic (Windows-1256)',
	shift_jis: 'Japanese (Shift JIS)',
	'euc-jp': 'Japanese (EUC-JP)',
	'euc-kr': 'Korean (EUC-KR)',
	gb18030: 'Chinese, simplified (GB 18030)',
	big5: 'Chinese, traditional (Big5)'
} as const;
export type Encoding = keyof typeof ENCODINGS;

/** How an encoding was told: by its mark, because nothing else fits, or guessed by how often which bytes occur. */
export interface Told {
	encoding: Encoding;
	by: 'mark' | 'form' | 'guess';
}

/** Bytes that statistics are made of; more tells no more. */
const SAMPLE = 256 * 1024;

const MARKS: readonly (readonly [readonly number[], Encoding])[] = [
	[[0xef, 0xbb, 0xbf], 'utf-8'],
	[[0xff, 0xfe], 'utf-16le'],
	[[0xfe, 0xff], 'utf-16be']
];

/** Names that statistics give for what is read by a larger relative (WHATWG Encoding Standard). */
const RELATIVES: Record<string, Encoding> = {
	ascii: 'utf-8',
	'iso-8859-1': 'windows-1252',
	'iso-8859-5': 'windows-1251',
	'iso-8859-6': 'windows-1256',
	'iso-8859-7': 'windows-1253',
	'iso-8859-8': 'windows-1255',
	'iso-8859-9': 'windows-1254'
};

/**
 * Tells how a text is encoded.
 * @param bytes its beginning, which may end within a character
 */
export function tellEncoding(bytes: Uint8Array): Told {
	for (const [mark, encoding] of MARKS)
		if (mark.every((byte, i) => bytes[i] === byte)) return { encoding, by: 'mark' };
	const sample = bytes.subarray(0, SAMPLE);
	const wide = wideEncoding(sample);
	if (wide) return { encoding: wide, by: 'form' };
	if (fits(sample, 'utf-8')) return { encoding: 'utf-8', by: 'form' };
	for (const { name } of analyse(sample)) {
		const known = name.toLowerCase();
		const encoding = RELATIVES[known] ?? (known in ENCODINGS ? (known as Encoding) : null);
		if (encoding && !encoding.startsWith('utf-') && fits(sample, encoding)) return { encoding, by: 'guess' };
	}
	return { encoding: 'windows-1252', by: 'guess' };
}

/** UTF-16 without a mark: of mostly Latin text every second byte is nought, and no other is. */
function wideEncoding(sample: Uint8Array): Encoding | null {
	const noughts = [0, 0];
	for (const [i, byte] of sample.entries()) if (byte === 0) noughts[i % 2]!++;
	const pairs = Math.floor(sample.length / 2);
	const [even, odd] = noughts as [number, number];
	if (pairs < 2 || even + odd < pairs / 3) return null;
	if (odd > even * 20) return 'utf-16le';
	return even > odd * 20 ? 'utf-16be' : null;
}

/** Whether bytes can be read so; a character that is cut at the end counts as whole. */
function fits(bytes: Uint8Array, encoding: Encoding): boolean {
	try {
		new TextDecoder(encoding, { fatal: true }).decode(bytes, { stream: true });
		return true;
	} catch {
		return false;
	}
}

/** Control characters that no text holds. */
const NO_TEXT = /[\x00-\x08\x0b\x0e-\x19\x1c-\x1f]/;

/**
 * Whether bytes are a text in some encoding.
 * @param head the beginning of a file, which may end within a character
 */
export function isText(head: Uint8Array): boolean {
	const { encoding } = tellEncoding(head);
	return !NO_TEXT.test(new TextDecoder(encoding).decode(head, { stream: true }));
}

/** A text as it is read, with how that was known. */
export function decodeText(bytes: Uint8Array, chosen: Encoding | null = null): { text: string; told: Told } {
	const told: Told = chosen ? { encoding: chosen, by: 'mark' } : tellEncoding(bytes);
	return { text: new TextDecoder(told.encoding).decode(bytes), told };
}
