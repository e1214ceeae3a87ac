import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nameKey, normaliseName, splitExtension } from './names';

describe('names', () => {
	it('come into one form', () => {
		expect(normaliseName('  Cafe\u0301   plan ')).toEqual({ name: 'Café plan' });
	});
	it.each([
		['', 'empty'],
		[' \t ', 'empty'],
		['a/b', 'path'],
		['..', 'path'],
		['a\\b', 'path'],
		['a\u0000b', 'control'],
		['plan\u202efdp.exe', 'control'],
		['x'.repeat(181), 'too-long']
	])('%j is refused as %s', (raw, fault) => {
		expect(normaliseName(raw)).toMatchObject({ fault });
	});
	it('stay as they are once normalised', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme' }), (raw) => {
				const once = normaliseName(raw);
				if ('name' in once) expect(normaliseName(once.name)).toEqual(once);
			})
		);
	});
	it('meet regardless of case and width', () => {
		expect(nameKey('ＬINKSPAN')).toBe(nameKey('linkspan'));
	});
	it('split at the last dot only', () => {
		expect(splitExtension('a.b.DXF')).toEqual(['a.b', 'dxf']);
		expect(splitExtension('.profile')).toEqual(['.profile', '']);
		expect(splitExtension('end.')).toEqual(['end.', '']);
	});
});
