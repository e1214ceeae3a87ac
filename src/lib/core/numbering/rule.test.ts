import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkNumber, standardRule, type NumberingRule } from './numbering';
import {
	checkRule,
	examplesOf,
	expressionOf,
	misfits,
	patternOf,
	PART_SIGNS,
	settled,
	signsOf,
	type PartSigns
} from './rule';

const usual = standardRule('VFT', [{ code: 'MW', name: 'Marine works' }]);
const code = fc.stringMatching(/^[A-Z0-9]{1,8}$/);
/** Rules that may be used, and what people might make of them. */
const rules = fc
	.record({
		separator: fc.constantFrom('-', '_', '.', '/', ' '),
		serialDigits: fc.integer({ min: 1, max: 8 }),
		parts: fc.array(
			fc.oneof(
				fc.record({
					values: fc.uniqueArray(fc.record({ code, name: fc.string() }), {
						minLength: 1,
						maxLength: 5,
						selector: (one) => one.code
					}),
					pattern: fc.constant(null)
				}),
				fc.record({
					values: fc.constant(null),
					pattern: fc
						.tuple(fc.constantFrom<PartSigns>('letters', 'digits', 'either'), fc.integer({ min: 1, max: 8 }))
						.map(([signs, many]) => patternOf(signs, many))
				})
			),
			{ minLength: 1, maxLength: 9 }
		)
	})
	.map(({ parts, ...rest }): NumberingRule =>
		settled({
			...rest,
			parts: [
				...parts.map((part, i) => ({ key: `part-${i}`, label: `Part ${i}`, ...part })),
				{ key: 'serial', label: 'Serial', values: null, pattern: null }
			]
		})
	);

describe('a numbering rule', () => {
	it('that projects begin with can be used', () => expect(checkRule(usual)).toBeNull());

	it('makes examples that fit itself, whatever rule it is', () => {
		fc.assert(
			fc.property(rules, (rule) => {
				expect(checkRule(rule)).toBeNull();
				for (const { number } of examplesOf(rule))
					expect(checkNumber(rule, number)).toMatchObject({ ok: true });
			})
		);
	});

	it('is one expression that says the same as looking part by part', () => {
		fc.assert(
			fc.property(rules, fc.array(fc.string(), { maxLength: 5 }), (rule, others) => {
				const whole = new RegExp(expressionOf(rule));
				const numbers = examplesOf(rule).map(({ number }) => number);
				for (const number of [...numbers, ...others, ...numbers.map((one) => `${one}X`)])
					expect(whole.test(number)).toBe(checkNumber(rule, number).ok);
			})
		);
	});

	it('says back which signs its patterns are of, and of no other pattern', () => {
		for (const signs of Object.keys(PART_SIGNS) as PartSigns[])
			expect(signsOf(patternOf(signs, 3))).toEqual({ signs, many: 3 });
		expect(signsOf('(a+)+')).toBeNull();
		expect(signsOf(null)).toBeNull();
	});

	const part = { key: 'zone', label: 'Zone', values: null, pattern: patternOf('letters', 2) };
	const serial = { key: 'serial', label: 'Serial', values: null, pattern: '\\d{4}' };
	const rule = (parts: NumberingRule['parts'], more: Partial<NumberingRule> = {}) =>
		checkRule({ separator: '-', serialDigits: 4, parts, ...more });
	it.each([
		['no part but the serial', rule([serial]), /at least one part/],
		['no serial at the end', rule([serial, part]), /serial/],
		['a separator of two signs', rule([part, serial], { separator: '--' }), /separated by/],
		['a separator that is a letter', rule([part, serial], { separator: 'A' }), /separated by/],
		['no digits', rule([part, serial], { serialDigits: 0 }), /1 to 8 digits/],
		['two parts of one key', rule([part, part, serial]), /same key/],
		['a part without a name', rule([{ ...part, label: ' ' }, serial]), /needs a name/],
		['a pattern of somebody’s own', rule([{ ...part, pattern: '(a+)+' }, serial]), /which signs/],
		['a list without codes', rule([{ ...part, values: [] }, serial]), /at least one code/],
		[
			'a code with the separator',
			rule([{ ...part, values: [{ code: 'L-S', name: '' }] }, serial]),
			/without “-”/
		],
		[
			'a code twice',
			rule([{ ...part, values: ['LS', 'LS'].map((one) => ({ code: one, name: '' })) }, serial]),
			/stands twice/
		]
	])('is refused with %s', (_what, fault, sentence) => expect(fault).toMatch(sentence));

	it('names the numbers that do not fit it', () => {
		expect(misfits(usual, ['VFT-MW-LS-00-DR-0101', 'VFT-MW-LS-00-DR-101'])).toMatchObject([
			{ number: 'VFT-MW-LS-00-DR-101', why: expect.stringContaining('serial') }
		]);
	});
});
