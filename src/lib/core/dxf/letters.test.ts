import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textWidth, wrapped } from './letters';

const words = fc.array(fc.stringMatching(/^[A-Za-z0-9桟橋]{1,12}$/), { maxLength: 30 });

describe('breaking lines to a width', () => {
	it('loses no letter, and makes no line wider than it may be unless it is one word', () => {
		fc.assert(
			fc.property(words, fc.integer({ min: 1, max: 60 }), (list, width) => {
				const lines = wrapped([list.join(' ')], width, 2.5, 10_000);
				expect(lines.join('').replaceAll(' ', '')).toBe(list.join(''));
				for (const line of lines)
					if (/\s/.test(line)) expect(textWidth(line, 2.5)).toBeLessThanOrEqual(width * 1.021);
			})
		);
	});

	it('breaks nothing without a width, and keeps the breaks that are there', () => {
		expect(wrapped(['a long line of words', '', 'b'], 0, 1, 10)).toEqual(['a long line of words', '', 'b']);
		expect(wrapped(['one two', '', 'three'], 100, 1, 10)).toEqual(['one two', '', 'three']);
	});

	it('breaks scripts that are written in squares between any two letters', () => {
		expect(wrapped(['桟橋桟橋'], 2.8, 1, 10)).toEqual(['桟橋', '桟橋']);
	});

	it('ends where it is told to', () => {
		expect(wrapped([Array(500).fill('word').join(' ')], 1, 1, 7)).toHaveLength(7);
	});
});
