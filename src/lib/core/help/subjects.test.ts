import { existsSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { LEVELS, levelLabel } from '../access/levels';
import { subjectOf, SUBJECTS, subjectsAbout } from './subjects';

describe('how Cupboard works', () => {
	it('is a screen a subject, each with an address and a picture that is there', () => {
		expect(new Set(SUBJECTS.map(({ id }) => id)).size).toBe(SUBJECTS.length);
		for (const { id, picture, steps, know } of SUBJECTS) {
			expect(subjectOf(id)?.id).toBe(id);
			expect(steps.length + know.length, id).toBeLessThanOrEqual(9);
			if (picture) expect(existsSync(`static/help/${picture}.webp`), picture).toBe(true);
		}
	});

	it('names every level', () => {
		const { lead } = subjectOf('levels')!;
		for (const level of LEVELS) expect(lead).toContain(levelLabel(level));
	});

	it('is found by what somebody new would type, called so first', () => {
		expect(subjectsAbout('pass')[0]?.id).toBe('passes');
		expect(subjectsAbout('hand in')[0]?.id).toBe('in-hand');
		expect(subjectsAbout('restore version').map(({ id }) => id)).toContain('revisions');
		expect(subjectsAbout('a')).toEqual([]);
		expect(subjectsAbout('zebra')).toEqual([]);
	});
});
