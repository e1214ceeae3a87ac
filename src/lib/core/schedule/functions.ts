/**
 * What formulas may call. All work with what they are given, in a time that does not depend on how large it is: nothing
 * that reaches outside the row, changes by itself, or repeats something a billion times.
 */
import * as given from '@formulajs/formulajs';
import { format } from 'numfmt';
import { dayOfLocalMidnight, localMidnightOf } from '../time/days';

/** A value of a formula; an Error is one that says why there is none, under the name spreadsheets give it. */
export type Value = number | string | boolean | null | Error;
/** What a function is given: values, or what stands in several columns. */
export type Given = Value | Value[][];

const NAMES = `
	ABS ACOS ASIN ATAN ATAN2 CEILING COS COSH DEGREES EVEN EXP FLOOR GCD INT LCM LN LOG LOG10 MOD MROUND
	ODD PI POWER PRODUCT RADIANS ROUND ROUNDDOWN ROUNDUP SIGN SIN SINH SQRT SQRTPI SUM SUMIF SUMPRODUCT
	SUMSQ TAN TANH TRUNC QUOTIENT CONVERT AVERAGE AVERAGEA AVERAGEIF COUNT COUNTA COUNTBLANK COUNTIF
	LARGE MAX MAXA MEDIAN MIN MINA SMALL STDEV STDEVP VAR VARP AND CHOOSE IFS NOT OR SWITCH XOR ISBLANK
	ISEVEN ISLOGICAL ISNONTEXT ISNUMBER ISODD ISTEXT N CHAR CLEAN CODE CONCAT CONCATENATE EXACT FIND
	LEFT LEN LOWER MID NUMBERVALUE PROPER REPLACE RIGHT SEARCH SUBSTITUTE T TEXTJOIN TRIM UNICHAR
	UNICODE UPPER DEC2BIN DEC2HEX BIN2DEC HEX2DEC ROMAN ARABIC DATE DATEDIF DAY DAYS EDATE EOMONTH
	ISOWEEKNUM MONTH WEEKDAY WEEKNUM YEAR YEARFRAC
`
	.trim()
	.split(/\s+/) as (keyof typeof given)[];
const DAYS = new Set(
	'DATEDIF DAY DAYS EDATE EOMONTH ISOWEEKNUM MONTH WEEKDAY WEEKNUM YEAR YEARFRAC'.split(' ')
);

export const FAULT = {
	divides: new Error('#DIV/0!'),
	value: new Error('#VALUE!'),
	number: new Error('#NUM!'),
	name: new Error('#NAME?'),
	missing: new Error('#N/A')
} as const;

/** A figure as arithmetic takes it; an empty cell is none. */
export function numberOf(value: Value): number | Error {
	if (value instanceof Error || typeof value === 'number') return value;
	if (value === null) return 0;
	if (typeof value === 'boolean') return Number(value);
	const number = value.trim() === '' ? NaN : Number(value);
	return Number.isFinite(number) ? number : FAULT.value;
}

export function textOf(value: Value): string | Error {
	if (value instanceof Error) return value;
	if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
	return value === null ? '' : String(value);
}

const isMany = (one: Given): one is Value[][] => Array.isArray(one);
const first = (one: Given | undefined): Value =>
	isMany(one as Given) ? FAULT.value : ((one ?? null) as Value);

/** Days are kept as text, and reckoned with as days of the calendar wherever the reader is. */
const asDate = (one: Given): unknown => (typeof one === 'string' ? (localMidnightOf(one) ?? one) : one);

/** What the library gives, as a value of ours: days as text, figures without the noise of binary fractions. */
function settled(said: unknown): Value {
	if (said instanceof Error || typeof said === 'string' || typeof said === 'boolean') return said;
	if (said instanceof Date) return dayOfLocalMidnight(said) ?? FAULT.number;
	if (typeof said === 'number')
		return Number.isFinite(said)
			? Number(said.toPrecision(15))
			: Number.isNaN(said)
				? FAULT.number
				: FAULT.divides;
	return said === null || said === undefined ? null : FAULT.value;
}

type Call = (given: Given[]) => Value;
const FUNCTIONS = new Map<string, Call>(
	NAMES.map((name) => [
		name,
		(values) => {
			const fault = values.flat(2).find((one) => one instanceof Error);
			if (fault) return fault;
			const taken = DAYS.has(name) ? values.map(asDate) : values;
			try {
				return settled((given[name] as (...of: unknown[]) => unknown)(...taken));
			} catch {
				return FAULT.value;
			}
		}
	])
);
/** Those that say what went wrong, or go past it; and those that the library does not do as spreadsheets do. */
const OWN: Record<string, Call> = {
	TRUE: () => true,
	FALSE: () => false,
	NA: () => FAULT.missing,
	ISERROR: ([value]) => first(value) instanceof Error,
	ISNA: ([value]) => codeOf(first(value)) === '#N/A',
	ISERR: ([value]) => first(value) instanceof Error && codeOf(first(value)) !== '#N/A',
	VALUE: ([value]) => numberOf(first(value)),
	TEXT([value, pattern]) {
		const [one, how] = [first(value), textOf(first(pattern))];
		if (one instanceof Error || how instanceof Error) return one instanceof Error ? one : how;
		const number = typeof one === 'string' ? numberOf(one) : one;
		try {
			return format(how, number instanceof Error ? one : number);
		} catch {
			return FAULT.value;
		}
	}
};
for (const [name, call] of Object.entries(OWN)) FUNCTIONS.set(name, call);

const codeOf = (value: Value) => (value instanceof Error ? value.message : '');

/** Names of all that may be called. */
export const FUNCTION_NAMES: readonly string[] = [...FUNCTIONS.keys()];

/** What a function gives; a fault when there is none of the name. */
export const callOf = (name: string): Call => FUNCTIONS.get(name) ?? (() => FAULT.name);
