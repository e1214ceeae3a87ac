import { describe, expect, it } from 'vitest';
import { passwordFault } from './passwords';

const COMMON = new Set(['password', '1234567890', 'qwertyuiop', 'iloveyou']);
const oke = { email: 'oke.lindvar@vennholm.example', name: 'Oke Lindvar' };
const fault = (password: string) => passwordFault(password, COMMON, oke);

describe('passwords', () => {
	it('go by length and not by kinds of characters', () => {
		expect(fault('short')).toContain('at least 10');
		expect(fault('x'.repeat(201))).toContain('at most 200');
		expect(fault('slack water under the linkspan')).toBeNull();
		expect(fault('水曜日の潮は低い水位です')).toBeNull();
	});

	it('are refused when many use them, also with figures put around', () => {
		for (const one of ['1234567890', 'QWERTYUIOP', 'Password2026!', '!!iloveyou11'])
			expect(fault(one)).toContain('tried first');
		expect(fault('aaaaaaaaaaab')).toContain('repeats');
	});

	it('are never the owner’s own address or name', () => {
		expect(fault('oke.lindvar@vennholm.example')).toContain('Your own');
		expect(fault('oke.lindvar2026')).toContain('Your own');
		expect(fault('OkeLindvar!')).toContain('Your own');
	});
});
