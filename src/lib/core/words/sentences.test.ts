import { describe, expect, it } from 'vitest';
import { ended } from './sentences';

describe('sentences', () => {
	it('ends what somebody wrote with one full stop', () => {
		expect([ended('needed today'), ended('Needed today. '), ended('why?')]).toEqual([
			'needed today.',
			'Needed today.',
			'why?'
		]);
	});
});
