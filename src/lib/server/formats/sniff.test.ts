import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { isInline } from '../../core/files/kinds';
import { HEAD_BYTES, sniff } from './sniff';

const text = (value: string) => new TextEncoder().encode(value);
const png = Uint8Array.from([
	0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52, 0, 0
]);

describe('the kind of a file', () => {
	it.each<[string, Uint8Array, string, string]>([
		['a PDF whatever it is called', text('%PDF-1.7\n'), 'drawing.txt', 'application/pdf'],
		['a picture whatever it is called', png, 'plan.pdf', 'image/png'],
		[
			'a scan whose directory lies at its end',
			Uint8Array.from([73, 73, 42, 0, 0, 0, 9, 0, 1, 2]),
			'a',
			'image/tiff'
		],
		['a drawing', text('  0\nSECTION\n  2\nHEADER\n'), 'a.dxf', 'image/vnd.dxf'],
		[
			'a vector picture',
			text('<?xml version="1.0"?>\n<!-- x -->\n<svg xmlns="a">'),
			'a.txt',
			'image/svg+xml'
		],
		['a page, which is never shown', text('<!DOCTYPE html><script>'), 'a.md', 'text/html'],
		['a table', text('a;b\n1;2'), 'list.csv', 'text/csv'],
		['Markdown', text('# Title'), 'minutes.md', 'text/markdown'],
		['plain text', text('Größe 12 µm'), 'note', 'text/plain'],
		['bytes of no kind', Uint8Array.from([1, 0, 2, 0, 250]), 'model.ifc', 'application/octet-stream'],
		['a mail', text('From: maj@vennholm.example\nSubject: Piles\n\nText'), 'a.eml', 'message/rfc822'],
		[
			'a building model',
			text("ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('IFC4'));"),
			'model.txt',
			'application/x-ifc'
		],
		['another model', text("ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AP214'));"), 'a.stp', 'application/x-step']
	])('tells %s', async (_, bytes, name, type) => {
		expect(await sniff(bytes, name)).toBe(type);
	});

	it('tells office files from other archives by name, once they are known to be archives', async () => {
		const zip = zipSync({ 'a.txt': text('x') });
		expect(await sniff(zip, 'a.docx')).toContain('wordprocessingml');
		expect(await sniff(zip, 'a.zip')).toBe('application/zip');
		expect(await sniff(text('no archive'), 'a.docx')).toBe('text/plain');
	});

	it('lets a character be cut in two at the end of what is read', async () => {
		const long = text('ä'.repeat(5_000)).subarray(0, 8_191 + 1);
		expect(await sniff(long, 'a.txt')).toBe('text/plain');
	});

	it('never lets a page or an unknown kind be shown', () => {
		for (const type of ['text/html', 'application/octet-stream', 'application/zip', 'application/xhtml+xml'])
			expect(isInline(type)).toBe(false);
	});

	it('tells what compound files hold by their directory, whatever they are called', async () => {
		const kindOf = async (file: string, name: string) => {
			const bytes = readFileSync(join(import.meta.dirname, '../../../../tests/files', file));
			const readAt = (from: number, length: number) =>
				Promise.resolve(new Uint8Array(bytes.subarray(from, from + length)));
			return sniff(bytes.subarray(0, HEAD_BYTES), name, readAt);
		};
		expect(await kindOf('piles.xls', 'list.doc')).toBe('application/vnd.ms-excel');
		expect(await kindOf('memo.doc', 'memo')).toBe('application/msword');
		expect(await kindOf('locked.docx', 'locked.docx')).toBe('application/x-locked-office');
	});

	it('tells them by name where only their beginning is at hand', async () => {
		const head = Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]);
		expect(await sniff(head, 'mail.msg')).toBe('application/vnd.ms-outlook');
		expect(await sniff(head, 'thing')).toBe('application/x-cfb');
	});
});
