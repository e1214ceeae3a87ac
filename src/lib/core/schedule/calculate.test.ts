import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { calculate } from './calculate';
import { readExpression, Unread, type Expression } from './expression';
import { FUNCTION_NAMES, type Value } from './functions';

const ROW: Record<string, Value> = {
	Length: 12.5,
	Count: 4,
	Mark: 'P-07',
	Driven: '2026-10-05',
	Note: null,
	Broken: new Error('Length leads back to itself.')
};
const NAMES = Object.keys(ROW);
function work(formula: string): Value {
	return calculate(readExpression(formula), {
		one: (name) => ROW[name] ?? null,
		several: (from, to) => NAMES.slice(NAMES.indexOf(from), NAMES.indexOf(to) + 1).map((name) => ROW[name]!)
	});
}
const fault = (formula: string) => {
	const value = work(formula);
	return value instanceof Error ? value.message : `no fault: ${String(value)}`;
};

describe('a formula is read', () => {
	it.each([
		['2 + 3 * 4', 14],
		['(2 + 3) * 4', 20],
		['10 - 4 - 3', 3],
		['2 ^ 3 ^ 2', 64],
		['-2 ^ 2', 4],
		['2 ^ -1', 0.5],
		['50% * [Count]', 2],
		['1 + 1 & "x"', '2x'],
		['1 & 2 = "12"', true],
		['= 1 + 1', 2],
		['1.5e2', 150],
		['.5', 0.5],
		['"say ""no"""', 'say "no"'],
		['TRUE', true],
		['sum(1, 2)', 3],
		['SUM( [Length] : [Count] )', 16.5],
		['IF(1 > 2, 3, )', null],
		['[ Length ]', 12.5]
	])('%s as spreadsheets do', (formula, value) => expect(work(formula)).toEqual(value));

	it.each([
		'',
		'1 +',
		'* 2',
		'(1',
		'1)',
		'[Length',
		'"open',
		'SUM(1,,',
		'A1 + B2',
		'1 2',
		'[a]:3',
		'#',
		'SUM 1'
	])('“%s” is none', (formula) => expect(() => readExpression(formula)).toThrow(Unread));

	it('whatever it is put together of, and gives what arithmetic gives', () => {
		const { tree } = fc.letrec<{ tree: [string, number] }>((tie) => ({
			tree: fc.oneof(
				{ maxDepth: 5 },
				fc.integer({ min: 0, max: 99 }).map((n): [string, number] => [String(n), n]),
				fc
					.tuple(tie('tree'), fc.constantFrom('+', '-', '*'), tie('tree'))
					.map(([[a, x], sign, [b, y]]): [string, number] => [
						`(${a} ${sign} ${b})`,
						sign === '+' ? x + y : sign === '-' ? x - y : x * y
					]),
				tie('tree').map(([a, x]): [string, number] => [`-${a}`, -x])
			)
		}));
		fc.assert(
			fc.property(tree, ([formula, value]) => {
				expect(work(formula)).toBeCloseTo(value);
			})
		);
	});

	it('or refused, whatever is typed', () => {
		const pieces = fc.constantFrom(
			'[Length]',
			'1',
			'+',
			'(',
			')',
			',',
			'SUM',
			'"',
			':',
			'%',
			'-',
			' ',
			'<>',
			'é'
		);
		fc.assert(
			fc.property(fc.array(pieces, { maxLength: 14 }), (typed) => {
				let read: Expression | null = null;
				try {
					read = readExpression(typed.join(''));
				} catch (error) {
					expect(error).toBeInstanceOf(Unread);
				}
				if (read) work(typed.join(''));
			})
		);
	});
});

describe('a formula works with', () => {
	it('empty cells as nothing: no figure, no letters', () => {
		expect([work('[Note] + 1'), work('[Note] & "x"'), work('[Note] = 0'), work('[Note] = ""')]).toEqual([
			1,
			'x',
			true,
			true
		]);
		expect([work('COUNT([Length]:[Note])'), work('COUNTA([Length]:[Note])')]).toEqual([2, 4]);
	});

	it('figures that are written as text, and refuses what is none', () => {
		expect(work('"3" * 2')).toBe(6);
		expect(fault('[Mark] * 2')).toBe('#VALUE!');
		expect(fault('VALUE("x")')).toBe('#VALUE!');
	});

	it('every function that may be called, and no other', () => {
		const named = [...FUNCTION_NAMES];
		expect(named).toContain('SUM');
		for (const name of named) expect(fault(`${name}()`), name).not.toBe('#NAME?');
		expect(fault('RATE(1)')).toBe('#NAME?');
	});

	it('texts whatever their case, after figures and before yes and no', () => {
		expect([work('"p-07" = [Mark]'), work('"a" < "B"'), work('9 < "1"'), work('"z" < TRUE')]).toEqual([
			true,
			true,
			true,
			true
		]);
	});

	it('functions of figures, texts and choices', () => {
		expect(work('ROUND([Length] / 3, 1)')).toBe(4.2);
		expect(work('CEILING(2.31, 0.1)')).toBe(2.4);
		expect(work('MAX([Length]:[Count])')).toBe(12.5);
		expect(work('UPPER(LEFT([Mark], 1)) & TEXT([Count], "000")')).toBe('P004');
		expect(work('TEXT([Length], "0.00") & " m"')).toBe('12.50 m');
		expect(work('IF(AND([Count] > 3, [Length] > 10), "many", "few")')).toBe('many');
		expect(work('SWITCH([Count], 3, "three", 4, "four")')).toBe('four');
		expect(work('0.1 + 0.2 = 0.3')).toBe(false);
		expect(work('ROUND(0.1 + 0.2, 2) = 0.3')).toBe(true);
	});

	it('what went wrong elsewhere, which goes through everything but what asks for it', () => {
		expect(fault('[Broken] + 1')).toBe('Length leads back to itself.');
		expect(fault('SUM([Length], [Broken])')).toBe('Length leads back to itself.');
		expect(work('IFERROR([Broken], 0)')).toBe(0);
		expect([work('ISERROR(1 / 0)'), work('ISERR(NA())'), work('ISNA(NA())')]).toEqual([true, false, true]);
		expect([work('IFNA(NA(), 1)'), fault('IFNA(1 / 0, 1)')]).toEqual([1, '#DIV/0!']);
	});

	it('what is chosen only, so that the other may be wrong', () => {
		expect(work('IF([Count] = 0, 1 / 0, [Length] / [Count])')).toBe(3.125);
		expect(fault('IF([Mark], 1, 2)')).toBe('#VALUE!');
	});

	it.each([
		['1 / 0', '#DIV/0!'],
		['MOD(1, 0)', '#DIV/0!'],
		['SQRT(-1)', '#NUM!'],
		['10 ^ 400', '#NUM!'],
		['REPT("x", 9)', '#NAME?'],
		['constructor(1)', '#NAME?'],
		['FIND("z", [Mark])', '#VALUE!'],
		['[Length]:[Count]', '#VALUE!']
	])('%s gives no value', (formula, code) => expect(fault(formula)).toBe(code));
});

describe('days in formulas', () => {
	const zone = process.env.TZ;
	afterEach(() => {
		process.env.TZ = zone;
	});
	it.each(['UTC', 'America/Los_Angeles', 'Pacific/Kiritimati', 'Europe/Oslo'])(
		'are the same in %s',
		(where) => {
			process.env.TZ = where;
			expect(work('DAY([Driven])')).toBe(5);
			expect(work('EDATE([Driven], 1)')).toBe('2026-11-05');
			expect(work('DAYS("2026-11-05", [Driven])')).toBe(31);
			expect(work('DATE(2026, 2, 30)')).toBe('2026-03-02');
		}
	);
});
