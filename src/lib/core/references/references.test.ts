import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { standardRule } from '../numbering/numbering';
import { DEFAULT_SCHEME } from '../revisions/revisions';
import { numbersNamed, referenceOf, slipsOf } from './references';

const rule = standardRule('VFT', [
	{ code: 'MW', name: 'Marine works' },
	{ code: 'AR', name: 'Architecture' }
]);
const own = 'VFT-MW-LS-00-DR-0001';
const named = (text: string) => numbersNamed(text, rule, DEFAULT_SCHEME, own);
const number = fc
	.tuple(fc.constantFrom('MW', 'AR'), fc.constantFrom('LS', 'QW'), fc.integer({ min: 2, max: 9999 }))
	.map(([department, zone, n]) => `VFT-${department}-${zone}-00-DR-${String(n).padStart(4, '0')}`);

describe('documents that a text names', () => {
	it('are found by their numbers, whichever hyphen and case, with the revision that follows', () => {
		expect(
			named(
				'See VFT-MW-LS-00-DR-0101 P03, vft–ar–tb–00–dr–0102 (rev. C01) and VFT_MW_QW_00_DR_0301_P02.pdf; own: VFT-MW-LS-00-DR-0001.'
			)
		).toEqual([
			{ number: 'VFT-MW-LS-00-DR-0101', revision: 'P03' },
			{ number: 'VFT-AR-TB-00-DR-0102', revision: 'C01' },
			{ number: 'VFT-MW-QW-00-DR-0301', revision: 'P02' }
		]);
	});

	it('are none within longer words, or where a part is no code of the project', () => {
		expect(
			named('XVFT-MW-LS-00-DR-0101, VFT-MW-LS-00-DR-01011, VFT-XX-LS-00-DR-0101, A-VFT-MW-LS-00-DR-0101')
		).toEqual([]);
	});

	it('take what merely follows for no revision', () => {
		expect(named('VFT-MW-LS-00-DR-0101 Page 3 of 7')[0]!.revision).toBeNull();
		expect(named('VFT-MW-LS-00-DR-0101\n\n\n\nP03')[0]!.revision).toBeNull();
	});

	it('are each named once, with the newest revision that any place says', () => {
		expect(named('VFT-MW-LS-00-DR-0101 P02 … VFT-MW-LS-00-DR-0101 … VFT-MW-LS-00-DR-0101 C01')).toEqual([
			{ number: 'VFT-MW-LS-00-DR-0101', revision: 'C01' }
		]);
	});

	it('are all found, whatever stands between them', () => {
		const filler = fc.constantFrom(' ', ', see ', '\n', ' (', ') and the sheet ', '; ');
		fc.assert(
			fc.property(fc.uniqueArray(number, { maxLength: 12 }), filler, (numbers, between) => {
				expect(named(numbers.join(between)).map((one) => one.number)).toEqual(numbers);
			})
		);
	});

	it('take no time for a text that is made to take long', () => {
		expect(named('VFT-MW-LS-00-'.repeat(20_000))).toEqual([]);
	});
});

describe('a slip', () => {
	const meant = 'VFT-MW-LS-00-DR-0101';
	it('is one sign other, or two the other way about, within the rule', () => {
		const slips = slipsOf(meant, rule);
		for (const one of [
			'VFT-MW-LS-00-DR-0102',
			'VFT-MW-SL-00-DR-0101',
			'VFT-MW-LS-00-DR-1001',
			'VFT-MW-LS-01-DR-0101'
		])
			expect(slips, one).toContain(one);
		// Neither what breaks the rule, nor two slips, nor itself.
		for (const one of ['VFT-MX-LS-00-DR-0101', 'VFT-MW-LS-00-DR-0212', 'VFT-MW-LS-00-DR-011', meant])
			expect(slips, one).not.toContain(one);
	});

	it('goes both ways, and there are few enough of them to be asked for', () => {
		fc.assert(
			fc.property(number, (one) => {
				const slips = slipsOf(one, rule);
				expect(slips.length).toBeLessThan(400);
				expect(new Set(slips).size).toBe(slips.length);
				for (const other of slips.slice(0, 5)) expect(slipsOf(other, rule)).toContain(one);
			}),
			{ numRuns: 30 }
		);
	});
});

describe('how a reference stands', () => {
	const at = (revision: string | null, issued: string | null) =>
		referenceOf({ number: 'x', revision }, { issued }, false, DEFAULT_SCHEME);
	it('goes by the issued revision', () => {
		expect(at('P02', 'P02')).toBe('current');
		expect(at(null, 'P02')).toBe('current');
		expect(at('P02', 'C01')).toBe('older');
		expect(at('C01', 'P03')).toBe('newer');
		expect(at('P03.2', 'P03')).toBe('older');
		expect(at('P02', null)).toBe('not-issued');
		expect(referenceOf({ number: 'x', revision: null }, null, true, DEFAULT_SCHEME)).toBe('planned');
		expect(referenceOf({ number: 'x', revision: null }, null, false, DEFAULT_SCHEME)).toBe('unknown');
	});
});
