import { describe, expect, it } from 'vitest';
import { LEVELS } from '../access/levels';
import { marksMode, roomMode } from './live';

describe('in a live text', () => {
	it('Work writes, Remark suggests, and less reads; whoever has it in hand bars the others', () => {
		expect(LEVELS.map((level) => roomMode('text', level, false))).toEqual([
			'read',
			'read',
			'read',
			'suggest',
			'write',
			'write',
			'write'
		]);
		for (const level of LEVELS) expect(roomMode('text', level, true)).toBe('read');
	});
});

describe('in a live schedule or drawing', () => {
	it('Work edits, and everybody else looks on', () => {
		for (const kind of ['schedule', 'drawing'] as const) {
			expect(LEVELS.filter((level) => roomMode(kind, level, false) === 'write')).toEqual([
				'work',
				'organise',
				'manage'
			]);
			expect(LEVELS.some((level) => roomMode(kind, level, false) === 'suggest')).toBe(false);
		}
	});
});

describe('marks', () => {
	it('are one’s own with Remark and everybody’s with Work', () => {
		expect(LEVELS.map(marksMode)).toEqual(['read', 'read', 'read', 'suggest', 'write', 'write', 'write']);
	});
});
