import { describe, expect, it } from 'vitest';
import { tellSeparator } from './csv';

describe('what parts the cells of a list', () => {
	it.each<[string, string, string]>([
		['commas', 'a,b\n1,2', ','],
		['semicolons, with commas in figures', 'Mark;Length\nP1;12,5\nP2;13,0\nP3;9,75', ';'],
		[
			'semicolons, with commas in the words of most lines',
			'Mark;Says\nP1;wall, 12 m\nP2;beam, 4 m; yellow',
			';'
		],
		['tabs', 'a\tb\tc\n1, 2\t3\t4', '\t'],
		['bars', 'a|b\n1|2', '|'],
		['commas, with semicolons in quotes', 'a,b\n"x;y;z",2\n"q;r",3', ','],
		['line breaks in quotes', 'a;b\n"one, two\nthree, four";2', ';'],
		['one column only', 'Mark\nP1\nP2', ','],
		['nothing at all', '', ',']
	])('is told for %s', (_, text, separator) => {
		expect(tellSeparator(text)).toBe(separator);
	});
});
