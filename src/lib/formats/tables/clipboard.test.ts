import fc from 'fast-check';
import { expect, it } from 'vitest';
import { rowsPasted, rowsToCopy } from './clipboard';

it('reads lines, tabs and quoted cells', () => {
	expect(rowsPasted('a\tb\r\nc\td\r\n')).toEqual([
		['a', 'b'],
		['c', 'd']
	]);
	expect(rowsPasted('"a ""b"""\t"two\nlines"\nx\t')).toEqual([
		['a "b"', 'two\nlines'],
		['x', '']
	]);
	expect(rowsPasted('12" pipe\tb')).toEqual([['12" pipe', 'b']]);
	expect(rowsPasted('')).toEqual([]);
});

it('gives back whatever was copied', () => {
	const cell = fc.string({ maxLength: 12 }).map((s) => s.replace(/\r/g, ''));
	const rows = fc
		.integer({ min: 2, max: 4 })
		.chain((width) => fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1 }));
	fc.assert(
		fc.property(rows, (all) => {
			expect(rowsPasted(`${rowsToCopy(all)}\n`)).toEqual(all);
		})
	);
});
