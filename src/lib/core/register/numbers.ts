import type { NumberingRule } from '../numbering/numbering';

/** What a number says under one of the rule's keys (`zone`, `type`); empty when it does not say it. */
export function partOf(rule: NumberingRule, number: string, key: string): string {
	const at = rule.parts.findIndex((part) => part.key === key);
	return at < 0 ? '' : (number.split(rule.separator)[at] ?? '');
}
