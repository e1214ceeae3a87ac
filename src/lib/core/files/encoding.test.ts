import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeText, ENCODINGS, isText, tellEncoding, type Encoding } from './encoding';

/** Writes a text in an encoding of one byte a character, by reading every byte. */
function written(text: string, encoding: Encoding): Uint8Array {
	const byCharacter = new Map<string, number>();
	for (let byte = 255; byte >= 0; byte--)
		byCharacter.set(new TextDecoder(encoding).decode(Uint8Array.of(byte)), byte);
	return Uint8Array.from([...text].map((c) => byCharacter.get(c) ?? 63));
}
function wide(text: string, littleEnd: boolean, mark: boolean): Uint8Array {
	const bytes = new Uint8Array((text.length + (mark ? 1 : 0)) * 2);
	const view = new DataView(bytes.buffer);
	if (mark) view.setUint16(0, 0xfeff, littleEnd);
	for (let i = 0; i < text.length; i++)
		view.setUint16((i + (mark ? 1 : 0)) * 2, text.charCodeAt(i), littleEnd);
	return bytes;
}
const utf8 = (text: string) => new TextEncoder().encode(text);

const GERMAN =
	'Die Fähre legt an der Brücke an. Prüfung der Bewehrung: Größe 12 mm, Überdeckung 50 mm, für Süßwasser.\n';
const POLISH =
	'Łączna długość ścianki szczelnej wynosi 130 metrów, a głębokość wbicia pali jest większa niż żądana.\n';
const RUSSIAN =
	'Общая длина шпунтовой стенки составляет сто тридцать метров, глубина забивки больше заданной.\n';

describe('the encoding of a text', () => {
	it.each<[string, Uint8Array, Encoding]>([
		['UTF-8', utf8(GERMAN), 'utf-8'],
		['UTF-8 by its mark', utf8('\ufeffa;b'), 'utf-8'],
		['UTF-16 by its mark', wide('a;b\n1;2', true, true), 'utf-16le'],
		['UTF-16 the other way round', wide('a;b\n1;2', false, true), 'utf-16be'],
		['UTF-16 without a mark', wide(GERMAN, true, false), 'utf-16le'],
		['UTF-16 without a mark, the other way round', wide(GERMAN, false, false), 'utf-16be'],
		['Western European', written(GERMAN.repeat(3), 'windows-1252'), 'windows-1252'],
		['Central European', written(POLISH.repeat(3), 'windows-1250'), 'windows-1250'],
		['Cyrillic', written(RUSSIAN.repeat(3), 'windows-1251'), 'windows-1251'],
		['Cyrillic of another kind', written(RUSSIAN.repeat(3), 'koi8-r'), 'koi8-r']
	])('is told for %s', (_, bytes, encoding) => {
		expect(tellEncoding(bytes).encoding).toBe(encoding);
		expect(isText(bytes)).toBe(true);
	});
	it('is read back whole, and as somebody says when they know better', () => {
		expect(decodeText(written(POLISH.repeat(3), 'windows-1250')).text).toBe(POLISH.repeat(3));
		expect(decodeText(wide('\u00e4;\u00f6', true, true)).text).toBe('ä;ö');
		expect(decodeText(written(RUSSIAN, 'windows-1251'), 'windows-1251').text).toBe(RUSSIAN);
		for (const encoding of Object.keys(ENCODINGS)) expect(() => new TextDecoder(encoding)).not.toThrow();
	});
	it('does not hang on where a sample is cut', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme', minLength: 1 }), fc.nat(40), (text, cut) => {
				const bytes = utf8('Größe: ' + text.replace(/\p{Cc}/gu, ' '));
				const { encoding } = tellEncoding(bytes.subarray(0, Math.max(9, bytes.length - (cut % 4))));
				expect(encoding).toBe('utf-8');
			})
		);
	});
	it('is none for bytes that are no text', () => {
		for (const bytes of [
			[1, 0, 2, 0, 250],
			[0x42, 0x4d, 0x36, 0, 0, 0, 0, 0, 0, 0, 0x36],
			[0x41, 0x43, 0x31, 0x30, 0x33, 0x32, 0, 0, 0, 0, 3]
		])
			expect(isText(Uint8Array.from(bytes))).toBe(false);
	});
});
