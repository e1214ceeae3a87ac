import { describe, expect, it } from 'vitest';
import { ended, shortened } from './sentences';

describe('sentences', () => {
	it('ends what somebody wrote with one full stop', () => {
		expect([ended('needed today'), ended('Needed today. '), ended('why?')]).toEqual([
			'needed today.',
			'Needed today.',
			'why?'
		]);
	});
});

describe('a text that is too long', () => {
	it('is cut off between words, and says so', () => {
		expect(shortened('The pile cap schedule belongs in this release', 30)).toBe(
			'The pile cap schedule belongs…'
		);
		expect(shortened('Scale missing, and the level', 16)).toBe('Scale missing…');
		expect(shortened('fits', 4)).toBe('fits');
	});

	it('is cut within a word that alone is too long', () => {
		expect(shortened('x'.repeat(50), 10)).toBe(`${'x'.repeat(10)}…`);
	});
});
