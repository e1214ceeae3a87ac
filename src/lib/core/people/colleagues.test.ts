import { expect, it } from 'vitest';
import { isColleague } from './colleagues';

it.each([
	['ada@vennholm.example', true],
	['Ada@Vennholm.Example', true],
	['ada@sub.vennholm.example', false],
	['ada@vennholm.example.evil.example', false],
	['vennholm.example', false],
	['', false]
])('“%s” is of the own organisation: %s (A12)', (email, own) => {
	expect(isColleague(email, ['vennholm.example'])).toBe(own);
});
