import { describe, expect, it } from 'vitest';
import { standardRule } from '../../core/numbering/numbering';
import { checkRule, settled } from '../../core/numbering/rule';
import { draftOf, keyFor, ruleOf } from './numbering-draft';

describe('a numbering rule in a form', () => {
	const rule = standardRule('VFT', [{ code: 'MW', name: 'Marine works' }]);

	it('comes back as it was', () => {
		const back = ruleOf(draftOf(rule), rule.separator, rule.serialDigits);
		// A pattern beside a list of codes never decided anything.
		const plain = rule.parts.map((part) => (part.values ? { ...part, pattern: null } : part));
		expect(back).toEqual(settled({ ...rule, parts: plain }));
		expect(checkRule(back)).toBeNull();
	});

	it('reads codes a line, with or without what they stand for', () => {
		const [project, ...others] = draftOf(rule);
		const read = ruleOf(
			[{ ...project!, codes: ' VFT, this project\n\nQW\nTB;  Terminal  building ' }, ...others],
			'-',
			4
		);
		expect(read.parts[0]!.values).toEqual([
			{ code: 'VFT', name: 'this project' },
			{ code: 'QW', name: '' },
			{ code: 'TB', name: 'Terminal  building' }
		]);
	});

	it('gives every new part a key of its own', () => {
		expect(keyFor('Work package', ['zone'])).toBe('work-package');
		expect(keyFor('Zone', ['zone', 'zone-2'])).toBe('zone-3');
		expect(keyFor('Serial', [])).toBe('serial-2');
		expect(keyFor('№', [])).toBe('part');
	});
});
