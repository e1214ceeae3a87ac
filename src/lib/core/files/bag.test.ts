import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bagName, bagTexts, tagManifest, type BagFile } from './bag';

const hash = fc.string({ unit: fc.constantFrom(...'0123456789abcdef'), minLength: 64, maxLength: 64 });
const payload = fc.uniqueArray(
	fc.record({
		path: fc
			.string({ minLength: 1, maxLength: 30, unit: 'grapheme' })
			.map((name) => `data/documents/${bagName(name).replaceAll('/', '-')}.pdf`),
		sha256: hash,
		size: fc.nat(1_000_000_000)
	}),
	{ selector: (file) => file.path, maxLength: 40 }
);
const linesOf = (text: string) => text.split('\n').slice(0, -1);

describe('a bag (RFC 8493)', () => {
	it('lists every file once with its hash, and says how much it carries', () => {
		fc.assert(
			fc.property(payload, (files: BagFile[]) => {
				const texts = new Map(
					bagTexts(files, [['External-Description', 'Linkspan\ndetails']]).map((one) => [one.path, one.text])
				);
				expect(texts.get('bagit.txt')).toBe('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n');
				const listed = linesOf(texts.get('manifest-sha256.txt')!).map((line) => [
					line.slice(66),
					line.slice(0, 64)
				]);
				expect(new Map(listed as [string, string][])).toEqual(
					new Map(files.map((file) => [file.path, file.sha256]))
				);
				expect(listed).toHaveLength(files.length);
				const bytes = files.reduce((sum, file) => sum + file.size, 0);
				expect(linesOf(texts.get('bag-info.txt')!)).toEqual([
					'External-Description: Linkspan details',
					`Payload-Oxum: ${bytes}.${files.length}`
				]);
			})
		);
	});
	it('refuses what would lead out of it, be listed twice, or be read otherwise than it is written', () => {
		const file = (path: string): BagFile => ({ path, sha256: '0'.repeat(64), size: 1 });
		for (const path of ['documents/a.pdf', 'data/../a.pdf', 'data//a.pdf', 'data/50%.pdf', 'data/a\nb.pdf'])
			expect(() => bagTexts([file(path)], []), path).toThrow('cannot carry');
		expect(() => bagTexts([file('data/a'), file('data/a')], [])).toThrow('twice');
		expect(bagName('50% plan\r\nof it')).toBe('50- plan  of it');
	});
	it('lists what stands beside the payload', () => {
		expect(tagManifest([{ path: 'bagit.txt', sha256: 'a'.repeat(64), size: 55 }])).toEqual({
			path: 'tagmanifest-sha256.txt',
			text: `${'a'.repeat(64)}  bagit.txt\n`
		});
	});
});
