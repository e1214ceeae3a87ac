import { describe, expect, it } from 'vitest';
import { exampleRules } from './examples';
import { checkNumber, standardRule } from './numbering';
import { checkRule, examplesOf } from './rule';

describe('rules to begin from', () => {
	const departments = [{ code: 'MW', name: 'Marine works' }];
	const rules = exampleRules('SLP', departments);

	it.each(rules)('$label can be used, and makes numbers that fit it', ({ rule }) => {
		expect(checkRule(rule)).toBeNull();
		for (const { number } of examplesOf(rule)) expect(checkNumber(rule, number).ok, number).toBe(true);
	});

	it('begin with what a project has', () => {
		expect(rules[0]!.rule).toEqual(standardRule('SLP', departments));
		expect(rules.map(({ rule }) => examplesOf(rule, 1)[0]!.number.split('-').length)).toEqual([6, 4, 2]);
	});
});
