import type { NumberingRule } from '../numbering/numbering';

/** What a number says under one of the rule's keys (`zone`, `type`); empty when it does not say it. */
export function partOf(rule: NumberingRule, number: string, key: string): string {
	const at = rule.parts.findIndex((part) => part.key === key);
	return at < 0 ? '' : (number.split(rule.separator)[at] ?? '');
}

/** The last part of a number: its serial, where it has one. */
export const lastPartOf = ({ separator }: Pick<NumberingRule, 'separator'>, number: string): string =>
	number.slice(number.lastIndexOf(separator) + 1);
