import { describe, expect, it } from 'vitest';
import { findWords, type ShownWord } from './shown';

const word = (text: string, x: number, y: number): ShownWord => ({ text, x, y, w: text.length * 5, h: 10 });

describe('words on a page', () => {
	const words = [word('Bearing', 0, 0), word('shelf', 40, 0), word('of', 70, 0), word('Linkspan', 0, 20)];

	it('are found in any case, in parts of words and over several', () => {
		expect(findWords(words, 'SHELF')).toEqual([{ x: 40, y: 0, w: 25, h: 10 }]);
		expect(findWords(words, 'earing  sh')).toEqual([{ x: 0, y: 0, w: 65, h: 10 }]);
		expect(findWords(words, 'nothing')).toEqual([]);
		expect(findWords(words, '  ')).toEqual([]);
	});

	it('are marked line by line when they go over a line end', () => {
		expect(findWords(words, 'of linkspan')).toEqual([
			{ x: 70, y: 0, w: 10, h: 10 },
			{ x: 0, y: 20, w: 40, h: 10 }
		]);
	});
});
