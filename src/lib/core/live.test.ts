import { describe, expect, it } from 'vitest';
import { LEVELS } from './access/levels';
import { marksMode, roomMode } from './live';

describe('in a live text', () => {
	it('Work writes, Remark suggests, and less reads; whoever has it in hand bars the others', () => {
		expect(LEVELS.map((level) => roomMode(level, false))).toEqual([
			'read',
			'read',
			'read',
			'suggest',
			'write',
			'write',
			'write'
		]);
		for (const level of LEVELS) expect(roomMode(level, true)).toBe('read');
	});
});

describe('marks', () => {
	it('are one’s own with Remark and everybody’s with Work', () => {
		expect(LEVELS.map(marksMode)).toEqual(['read', 'read', 'read', 'suggest', 'write', 'write', 'write']);
	});
});
