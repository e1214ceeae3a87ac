import { describe, expect, it } from 'vitest';
import { fits, plain } from './plain';

describe('what somebody types', () => {
	it('is compared without accents, case and double spaces', () => {
		expect(plain('  Søren  ÅSE ')).toBe('søren ase');
	});

	it('fits a text when each of its words begins one there, in any order', () => {
		expect(fits('bran ha', 'Halla Brandt')).toBe(true);
		expect(fits('halla@tarn', 'halla.brandt@tarn.example')).toBe(true);
		expect(fits('', 'Halla Brandt')).toBe(true);
		expect(fits('alla', 'Halla Brandt')).toBe(false);
		expect(fits('halla x', 'Halla Brandt')).toBe(false);
	});
});
