import { checkNumber, type NumberingRule, type NumberPart } from './numbering';

/** What a part without a list of codes is made of. */
export const PART_SIGNS = {
	letters: { label: 'letters', pattern: '[A-Z]', example: 'A' },
	digits: { label: 'digits', pattern: '\\d', example: '0' },
	either: { label: 'letters and digits', pattern: '[A-Z0-9]', example: '0' }
} as const;
export type PartSigns = keyof typeof PART_SIGNS;

/** Most parts of a number, and most signs of one. */
export const MOST_PARTS = 10;
export const MOST_SIGNS = 8;
const SEPARATORS = /^[-_./ ]$/;

/** The pattern of a part that is so many signs of a sort. */
export const patternOf = (signs: PartSigns, many: number): string => `${PART_SIGNS[signs].pattern}{${many}}`;

/** What a pattern says, when it is one that {@link patternOf} makes; null for any other. */
export function signsOf(pattern: string | null): { signs: PartSigns; many: number } | null {
	const found = /^(.+)\{(\d+)\}$/.exec(pattern ?? '');
	if (!found) return null;
	const signs = (Object.keys(PART_SIGNS) as PartSigns[]).find((one) => PART_SIGNS[one].pattern === found[1]);
	return signs ? { signs, many: Number(found[2]) } : null;
}

/** What is wrong with a part, in a sentence; null when nothing is. */
function partFault(part: NumberPart, last: boolean, separator: string): string | null {
	if (!part.label.trim()) return 'Every part needs a name.';
	if (last) return part.key === 'serial' ? null : 'The last part is the serial, which counts up by itself.';
	if (!part.values) {
		const said = signsOf(part.pattern);
		if (!said) return `Say of “${part.label}” which signs it is made of.`;
		return said.many >= 1 && said.many <= MOST_SIGNS ? null : `“${part.label}” has 1 to ${MOST_SIGNS} signs.`;
	}
	if (!part.values.length) return `“${part.label}” needs at least one code.`;
	const codes = part.values.map((value) => value.code);
	const odd = codes.find((code) => !/^[A-Z0-9]{1,8}$/.test(code));
	if (odd !== undefined)
		return `“${odd}” is no code of “${part.label}”: 1 to 8 capital letters and digits${odd.includes(separator) ? `, without “${separator}”` : ''}.`;
	const twice = codes.find((code, i) => codes.indexOf(code) !== i);
	return twice === undefined ? null : `“${twice}” stands twice among the codes of “${part.label}”.`;
}

/**
 * What is wrong with a numbering rule, in a sentence; null when it can be used. Its last part is the serial; every other
 * one is a list of codes, or so many letters or digits.
 */
export function checkRule(rule: NumberingRule): string | null {
	if (rule.parts.length < 2) return 'A number has at least one part before its serial.';
	if (rule.parts.length > MOST_PARTS) return `A number has ${MOST_PARTS} parts at most.`;
	if (!SEPARATORS.test(rule.separator)) return 'Parts are separated by one of - _ . / or a space.';
	if (!(rule.serialDigits >= 1 && rule.serialDigits <= MOST_SIGNS))
		return `A serial has 1 to ${MOST_SIGNS} digits.`;
	const keys = rule.parts.map((part) => part.key);
	const twice = keys.find((key, i) => !key || keys.indexOf(key) !== i);
	if (twice !== undefined) return 'Two parts have the same key.';
	for (const [i, part] of rule.parts.entries()) {
		const fault = partFault(part, i === rule.parts.length - 1, rule.separator);
		if (fault) return fault;
	}
	return null;
}

/** The rule with its serial’s pattern as its digits say. */
export const settled = (rule: NumberingRule): NumberingRule => ({
	...rule,
	parts: rule.parts.map((part) =>
		part.key === 'serial' ? { ...part, values: null, pattern: patternOf('digits', rule.serialDigits) } : part
	)
});

/** A few numbers as a rule makes them, with what each part of them says. */
export function examplesOf(rule: NumberingRule, many = 3): { number: string; says: string }[] {
	return Array.from({ length: many }, (_, at) => {
		const parts = rule.parts.map((part) => {
			if (part.key === 'serial') return { text: String(at + 1).padStart(rule.serialDigits, '0'), says: '' };
			const value = part.values?.[at % Math.max(1, part.values.length)];
			if (value) return { text: value.code, says: value.name };
			const made = signsOf(part.pattern);
			return {
				text: (made ? PART_SIGNS[made.signs].example : '0').repeat(made?.many ?? 2),
				says: ''
			};
		});
		return {
			number: parts.map(({ text }) => text).join(rule.separator),
			says: parts
				.map(({ says }) => says)
				.filter(Boolean)
				.join(', ')
		};
	});
}

/** The numbers that do not fit a rule, each with why. */
export const misfits = (rule: NumberingRule, numbers: readonly string[]): { number: string; why: string }[] =>
	numbers.flatMap((number) => {
		const fits = checkNumber(rule, number);
		return fits.ok ? [] : [{ number, why: fits.sentence }];
	});

/**
 * The rule as one regular expression over a whole number, in the syntax that JavaScript and PostgreSQL share. Only for
 * rules that {@link checkRule} lets through: these hold no signs with a meaning of their own.
 */
export const expressionOf = (rule: NumberingRule): string =>
	`^${rule.parts
		.map((part) => (part.values ? `(?:${part.values.map(({ code }) => code).join('|')})` : part.pattern))
		.join(rule.separator === '.' ? '\\.' : rule.separator)}$`;
