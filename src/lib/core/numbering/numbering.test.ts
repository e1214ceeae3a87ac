import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkNumber, headOf, nextAfter, nextNumber, propose, standardRule } from './numbering';

const rule = standardRule('VFT', [
	{ code: 'AR', name: 'Architecture' },
	{ code: 'MW', name: 'Marine works' }
]);
const here = { project: 'VFT', department: 'MW', zone: 'LS', level: '00', type: 'DR' };

describe('numbering', () => {
	it('accepts what fits and names the part that does not', () => {
		expect(checkNumber(rule, 'VFT-MW-LS-00-DR-0101').ok).toBe(true);
		expect(checkNumber(rule, 'VFT-XX-LS-00-DR-0101')).toMatchObject({
			sentence: expect.stringContaining('department')
		});
		expect(checkNumber(rule, 'VFT-MW-LS-00-DR-101')).toMatchObject({
			sentence: expect.stringContaining('serial')
		});
		expect(checkNumber(rule, 'Linkspan')).toMatchObject({ sentence: expect.stringContaining('6 parts') });
	});

	it.each([
		[
			'VFT-MW-LS-00-DR-0101 Linkspan general arrangement_v3_final_NEW.dxf',
			'VFT-MW-LS-00-DR-0101',
			'Linkspan general arrangement'
		],
		['vft_mw_ls_00_dr_0102_hinge details.pdf', 'VFT-MW-LS-00-DR-0102', 'Hinge details'],
		['Fender panel (2).dxf', 'VFT-MW-LS-00-DR-0008', 'Fender panel'],
		['VFT-MW-LS-00-DR-0103 P03.2.dxf', 'VFT-MW-LS-00-DR-0103', 'P03.2']
	])('proposes from %s', (file, number, title) => {
		expect(propose(rule, file, here, new Set(['VFT-MW-LS-00-DR-0007']))).toMatchObject({ number, title });
	});

	it('always proposes a free number that fits the rule', () => {
		const serials = fc.array(fc.integer({ min: 1, max: 9000 }));
		fc.assert(
			fc.property(serials, (used) => {
				const taken = new Set(used.map((n) => `VFT-MW-LS-00-DR-${String(n).padStart(4, '0')}`));
				const number = nextNumber(rule, here, taken);
				expect(taken.has(number)).toBe(false);
				expect(checkNumber(rule, number).ok).toBe(true);
			})
		);
	});

	it('counts on from a number in use under the same parts only', () => {
		const taken = new Set(['VFT-MW-LS-00-DR-0007', 'VFT-MW-LS-00-DR-0012', 'VFT-MW-LS-00-SP-0099']);
		expect(headOf(rule, here)).toBe('VFT-MW-LS-00-DR-');
		expect(nextAfter(rule, 'VFT-MW-LS-00-DR-0007', taken)).toBe('VFT-MW-LS-00-DR-0013');
		expect(nextNumber(rule, here, taken)).toBe('VFT-MW-LS-00-DR-0013');
		expect(checkNumber(rule, nextAfter(rule, 'VFT-MW-LS-00-SP-0099', taken)).ok).toBe(true);
	});
});
