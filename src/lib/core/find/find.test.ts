import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findQuestion, meantWords, typingErrors } from './find';

describe('typing errors', () => {
	it('counts letters left out, added, changed and swapped', () => {
		expect(typingErrors('linkspan', 'linkspna')).toBe(1);
		expect(typingErrors('fender', 'fener')).toBe(1);
		expect(typingErrors('quay', 'quuay')).toBe(1);
		expect(typingErrors('stair', 'chair')).toBe(2);
		expect(typingErrors('', 'pile')).toBe(4);
	});

	it('is none for the same word, the same both ways, and never more than the longer word', () => {
		const word = fc.string({ maxLength: 12 });
		fc.assert(
			fc.property(word, word, (a, b) => {
				const errors = typingErrors(a, b);
				expect(errors).toBe(typingErrors(b, a));
				expect(errors).toBeLessThanOrEqual(Math.max(a.length, b.length));
				expect(errors).toBeGreaterThanOrEqual(Math.abs(a.length - b.length));
				expect(errors === 0).toBe(a === b);
			})
		);
	});

	it('finds the word somebody meant after one slip of the finger', () => {
		const known = ['linkspan', 'fender', 'arrangement', 'elevation', 'schedule', 'calculation', 'drainage'];
		fc.assert(
			fc.property(fc.constantFrom(...known), fc.nat(), fc.integer({ min: 0, max: 2 }), (word, seed, how) => {
				const at = seed % (word.length - 1);
				const slips = [
					word.slice(0, at) + word[at + 1]! + word[at]! + word.slice(at + 2),
					word.slice(0, at) + word.slice(at + 1),
					word.slice(0, at) + 'x' + word.slice(at)
				];
				expect(meantWords(slips[how]!, known)).toEqual([word]);
			})
		);
	});

	it('takes nothing for meant that is too far off', () => {
		expect(meantWords('zebra', ['linkspan', 'fender'])).toEqual([]);
		expect(meantWords('zebra', [])).toEqual([]);
	});
});

describe('the question', () => {
	it('asks for every word by its beginning, and short ones as they are', () => {
		expect(
			findQuestion([
				{ word: 'link', instead: [], asBeginning: true },
				{ word: '48', instead: [], asBeginning: true }
			])
		).toBe(`('link':*) & ('48')`);
		expect(findQuestion([{ word: 'span', instead: ['linkspan'], asBeginning: false }])).toBe(
			`('span' | 'linkspan')`
		);
	});

	it('keeps signs inside their quotes', () => {
		expect(findQuestion([{ word: "o'x", instead: ["a'|b"], asBeginning: true }])).toBe(
			`('o''x':* | 'a''|b')`
		);
	});
});
