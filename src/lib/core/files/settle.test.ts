import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { standardRule } from '../numbering/numbering';
import { faultsOf, filledDown, isShared, numberAfter, sharedNumbers, tagsOf } from './settle';

const rule = standardRule('VFT', [{ code: 'MW', name: 'Marine works' }]);
const line = { number: 'VFT-MW-LS-00-DR-0101', title: 'Linkspan', tags: '' };

describe('one line', () => {
	it('may land when number, title and tags fit', () => {
		expect(faultsOf(rule, { ...line, tags: 'Steel, fender ; steel' })).toEqual([]);
		expect(tagsOf('Steel, fender ; steel,,')).toEqual(['fender', 'steel']);
	});

	it('says everything that is wrong with it', () => {
		expect(faultsOf(rule, { number: 'VFT-XX-LS-00-DR-0101', title: ' ', tags: '#!' })).toEqual([
			expect.stringContaining('“XX” is not a department'),
			'A title is needed.',
			expect.stringContaining('“#!” is no tag')
		]);
		const many = Array.from({ length: 31 }, (_, i) => `tag ${i}`).join(',');
		expect(faultsOf(rule, { ...line, tags: many })).toEqual(['At most 30 tags.']);
	});
});

it('numbers that several lines have are told once each, however they are typed', () => {
	const lines = ['b', 'a', ' b', 'c', 'a', 'b '].map((number) => ({ number }));
	expect(sharedNumbers(lines)).toBe('b\na');
	expect(sharedNumbers(lines.slice(0, 2))).toBe('');
	expect(['a ', 'c', ''].map((number) => isShared('b\na', number))).toEqual([true, false, false]);
	expect(isShared('', '')).toBe(false);
});

describe('filling down', () => {
	it('counts numbers up and repeats the rest', () => {
		expect(filledDown(rule, 'number', line, 2)).toEqual(['VFT-MW-LS-00-DR-0102', 'VFT-MW-LS-00-DR-0103']);
		expect(filledDown(rule, 'title', line, 2)).toEqual(['Linkspan', 'Linkspan']);
		expect(filledDown(rule, 'number', { ...line, number: 'odd' }, 1)).toEqual(['odd']);
	});

	it('never gives one number twice', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 9_000 }), fc.integer({ min: 1, max: 900 }), (serial, steps) => {
				const first = { ...line, number: `VFT-MW-LS-00-DR-${String(serial).padStart(4, '0')}` };
				const all = [first.number, ...filledDown(rule, 'number', first, steps)];
				expect(new Set(all).size).toBe(steps + 1);
				expect(numberAfter(rule, first.number, steps)).toBe(all.at(-1));
			})
		);
	});
});
