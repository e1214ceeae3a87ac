import type { Expression, Operator } from './expression';
import { callOf, FAULT, numberOf, textOf, type Given, type Value } from './functions';

/** What a formula can see of its row. */
export interface Seen {
	/** What stands in a column, by its name. */
	one(name: string): Value;
	/** What stands in the columns from one to another, in their order. */
	several(from: string, to: string): Value[];
}

/** Only what is needed of these is worked out, so that what is passed over may be wrong. */
const CHOOSING: Partial<
	Record<string, (given: readonly Expression[], of: (one: Expression) => Value) => Value>
> = {
	IF(given, of) {
		if (given.length < 2 || given.length > 3) return FAULT.value;
		const holds = truthOf(of(given[0]!));
		if (holds instanceof Error) return holds;
		const chosen = given[holds ? 1 : 2];
		return chosen ? of(chosen) : holds;
	},
	IFERROR(given, of) {
		const value = given[0] ? of(given[0]) : null;
		return value instanceof Error ? (given[1] ? of(given[1]) : null) : value;
	},
	IFNA(given, of) {
		const value = given[0] ? of(given[0]) : null;
		return value instanceof Error && value.message === FAULT.missing.message
			? given[1]
				? of(given[1])
				: null
			: value;
	}
};

function truthOf(value: Value): boolean | Error {
	if (typeof value !== 'string') return value instanceof Error ? value : Boolean(value);
	const said = value.toUpperCase();
	return said === 'TRUE' ? true : said === 'FALSE' ? false : FAULT.value;
}

/** Works a formula out. What goes wrong is a value, which whatever works with it gives on. */
export function calculate(expression: Expression, seen: Seen): Value {
	const of = (one: Expression): Value => calculate(one, seen);
	const given = (one: Expression): Given =>
		one.is === 'columns' ? [seen.several(one.from, one.to)] : of(one);
	switch (expression.is) {
		case 'value':
			return expression.value;
		case 'column':
			return seen.one(expression.name);
		case 'columns':
			return FAULT.value;
		case 'sign': {
			const number = numberOf(of(expression.of));
			if (number instanceof Error || expression.sign === '+') return number;
			return expression.sign === '-' ? -number : number / 100;
		}
		case 'both':
			return joined(expression.operator, of(expression.left), of(expression.right));
		case 'call': {
			const choosing = CHOOSING[expression.name];
			return choosing ? choosing(expression.given, of) : callOf(expression.name)(expression.given.map(given));
		}
	}
}

const ARITHMETIC: Partial<Record<Operator, (a: number, b: number) => number | Error>> = {
	'+': (a, b) => a + b,
	'-': (a, b) => a - b,
	'*': (a, b) => a * b,
	'/': (a, b) => (b === 0 ? FAULT.divides : a / b),
	'^': (a, b) => a ** b
};
const COMPARED: Partial<Record<Operator, (order: number) => boolean>> = {
	'=': (order) => order === 0,
	'<>': (order) => order !== 0,
	'<': (order) => order < 0,
	'>': (order) => order > 0,
	'<=': (order) => order <= 0,
	'>=': (order) => order >= 0
};

function joined(operator: Operator, left: Value, right: Value): Value {
	if (left instanceof Error) return left;
	if (right instanceof Error) return right;
	const compared = COMPARED[operator];
	if (compared) return compared(orderOf(left, right));
	if (operator === '&') return `${textOf(left) as string}${textOf(right) as string}`;
	const [a, b] = [numberOf(left), numberOf(right)];
	if (a instanceof Error) return a;
	if (b instanceof Error) return b;
	const value = ARITHMETIC[operator]!(a, b);
	return value instanceof Error || Number.isFinite(value) ? value : FAULT.number;
}

/** Figures come before texts, texts before yes and no; an empty cell is like the other one's nothing; case does not count. */
function orderOf(left: Exclude<Value, Error>, right: Exclude<Value, Error>): number {
	const nothing = { number: 0, string: '', boolean: false };
	const blank = (one: typeof left, other: typeof left) =>
		one ?? (other === null ? 0 : nothing[typeof other as keyof typeof nothing]);
	const [a, b] = [blank(left, right), blank(right, left)];
	const rank = { number: 0, string: 1, boolean: 2 };
	const apart = rank[typeof a as keyof typeof rank] - rank[typeof b as keyof typeof rank];
	if (apart) return apart;
	if (typeof a === 'string' && typeof b === 'string')
		return a.toLowerCase() < b.toLowerCase() ? -1 : a.toLowerCase() > b.toLowerCase() ? 1 : 0;
	return Number(a) - Number(b);
}
