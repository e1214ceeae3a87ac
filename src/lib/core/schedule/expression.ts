/** How formulas are written: the notation of spreadsheets (ISO/IEC 29500-1, 18.17.2), with columns by their names. */

export type Operator = '=' | '<>' | '<=' | '>=' | '<' | '>' | '&' | '+' | '-' | '*' | '/' | '^';

/** A formula as it was read. */
export type Expression =
	| { is: 'value'; value: number | string | boolean | null }
	/** What stands in a column of the same row. */
	| { is: 'column'; name: string }
	/** What stands in the columns from one to another. */
	| { is: 'columns'; from: string; to: string }
	| { is: 'call'; name: string; given: Expression[] }
	| { is: 'sign'; sign: '+' | '-' | '%'; of: Expression }
	| { is: 'both'; operator: Operator; left: Expression; right: Expression };

/** The formula cannot be read. */
export class Unread extends Error {}

/** How tightly operators bind; of those that bind alike the left one comes first, as in spreadsheets also for powers. */
const TIGHT: Record<Operator, number> = {
	'=': 1,
	'<>': 1,
	'<': 1,
	'>': 1,
	'<=': 1,
	'>=': 1,
	'&': 2,
	'+': 3,
	'-': 3,
	'*': 4,
	'/': 4,
	'^': 5
};

const TOKEN =
	/\s*(?:(?<number>(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)|"(?<text>(?:[^"]|"")*)"|\[(?<column>[^[\]]{1,80})\]|(?<word>[A-Za-z][A-Za-z0-9.]*)|(?<sign><>|<=|>=|[=<>&+\-*/^%(),:]))\s*/y;

type Token = Partial<Record<'number' | 'text' | 'column' | 'word' | 'sign', string>>;

function tokensOf(formula: string): Token[] {
	const tokens: Token[] = [];
	const text = formula.replace(/^\s*=/, '');
	for (TOKEN.lastIndex = 0; TOKEN.lastIndex < text.length;) {
		const found = TOKEN.exec(text);
		if (!found) throw new Unread();
		tokens.push(found.groups as Token);
	}
	return tokens;
}

/** Reads a formula. Raises {@link Unread}. */
export function readExpression(formula: string): Expression {
	const tokens = tokensOf(formula);
	let at = 0;
	const sign = () => tokens[at]?.sign;
	const take = (wanted: string) => {
		if (sign() !== wanted) throw new Unread();
		at++;
	};

	function operand(): Expression {
		const token = tokens[at++];
		if (!token) throw new Unread();
		if (token.number !== undefined) return { is: 'value', value: Number(token.number) };
		if (token.text !== undefined) return { is: 'value', value: token.text.replaceAll('""', '"') };
		if (token.column !== undefined) {
			const name = token.column.trim();
			if (sign() !== ':') return { is: 'column', name };
			take(':');
			const to = tokens[at++]?.column;
			if (to === undefined) throw new Unread();
			return { is: 'columns', from: name, to: to.trim() };
		}
		if (token.word !== undefined) return word(token.word.toUpperCase());
		if (token.sign === '(') {
			const inner = operation(0);
			take(')');
			return inner;
		}
		if (token.sign === '+' || token.sign === '-') return { is: 'sign', sign: token.sign, of: signed() };
		throw new Unread();
	}

	function word(name: string): Expression {
		if (sign() !== '(') {
			if (name === 'TRUE' || name === 'FALSE') return { is: 'value', value: name === 'TRUE' };
			throw new Unread();
		}
		take('(');
		const given: Expression[] = [];
		if (sign() !== ')')
			for (;;) {
				// What is left out between two commas is nothing.
				given.push(sign() === ',' || sign() === ')' ? { is: 'value', value: null } : operation(0));
				if (sign() !== ',') break;
				take(',');
			}
		take(')');
		return { is: 'call', name, given };
	}

	/** An operand with its percent signs; a sign before it binds tighter than any operator. */
	function signed(): Expression {
		let one = operand();
		while (sign() === '%') {
			take('%');
			one = { is: 'sign', sign: '%', of: one };
		}
		return one;
	}

	/** Operands and what joins them, as far as it binds tighter than what stands before. */
	function operation(than: number): Expression {
		let left = signed();
		for (;;) {
			const operator = sign() as Operator | undefined;
			const tight = operator && TIGHT[operator];
			if (!tight || tight <= than) return left;
			at++;
			left = { is: 'both', operator, left, right: operation(tight) };
		}
	}

	const read = operation(0);
	if (at < tokens.length) throw new Unread();
	return read;
}
