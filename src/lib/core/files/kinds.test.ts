import { describe, expect, it } from 'vitest';
import { HANDED_IN_AS, liveKindOf } from '../live/live';
import {
	comparedAs,
	FILE_KINDS,
	familyOf,
	isInline,
	isPrintable,
	isSheetKind,
	kindWithin,
	kindWord
} from './kinds';
import { MEDIA_TYPE } from './media';

describe('the registry of file kinds', () => {
	it('an ending tells one kind among those whose bytes look alike', () => {
		const seen = new Set<string>();
		for (const { within, endings } of FILE_KINDS.values())
			for (const ending of within ? endings : []) {
				expect(seen).not.toContain(`${within} ${ending}`);
				seen.add(`${within} ${ending}`);
			}
		expect(kindWithin('zip', 'docx')).toBe(MEDIA_TYPE.docx);
		expect(kindWithin('text', 'docx')).toBeUndefined();
	});

	it('what several edit is handed in as something that can be edited by several again', () => {
		for (const [live, endings] of Object.entries(HANDED_IN_AS))
			for (const ending of endings) expect(liveKindOf(MEDIA_TYPE[ending])).toBe(live);
		expect(liveKindOf('application/pdf')).toBeNull();
	});

	it('what is printed has an ending, by which the printing program knows it', () => {
		for (const [mediaType, kind] of FILE_KINDS)
			if (kind.printed) expect(kind.endings[0], mediaType).toBeTruthy();
		expect([isPrintable(MEDIA_TYPE.docx), isPrintable('application/msword')]).toEqual([true, false]);
	});

	it('kinds that stand in no list have a family by their names', () => {
		expect(familyOf('text/x-python')).toBe('text');
		expect(familyOf('video/x-msvideo')).toBe('film');
		expect(familyOf('application/vnd.oasis.opendocument.graphics')).toBe('package');
		expect(familyOf('application/octet-stream')).toBe('other');
	});

	it('two files are compared when they are read alike', () => {
		expect(comparedAs('application/pdf', 'image/heic')).toBe('sheets');
		expect(comparedAs(MEDIA_TYPE.csv, MEDIA_TYPE.xlsx)).toBe('tables');
		expect(comparedAs(MEDIA_TYPE.docx, MEDIA_TYPE.csv)).toBeNull();
		expect(comparedAs('application/zip', 'application/zip')).toBeNull();
	});

	it('only what does no harm goes to a browser as it is', () => {
		for (const type of ['text/html', 'application/octet-stream', 'application/xhtml+xml', 'text/xml'])
			expect(isInline(type)).toBe(false);
		expect([isInline('image/png'), isSheetKind('image/png'), isSheetKind('text/plain')]).toEqual([
			true,
			true,
			false
		]);
	});

	it('has a word for each, and takes the ending for what it does not know', () => {
		expect(kindWord('application/pdf', 'a')).toBe('PDF');
		expect(kindWord('application/octet-stream', 'survey.las')).toBe('LAS');
		expect(kindWord('application/octet-stream', 'noname')).toBe('File');
	});
});
