import { API } from './api';

/** The small set of errors that acts and views answer with, as RFC 9457 problem documents. */
export const PROBLEMS = {
	'not-found': 404,
	'needs-sign-in': 401,
	'needs-level': 403,
	'needs-proof': 403,
	'wrong-origin': 403,
	'in-hand': 409,
	frozen: 409,
	'stale-base': 409,
	conflict: 409,
	invalid: 422,
	'too-large': 413,
	'too-many': 429,
	full: 507,
	busy: 503
} as const;
export type ProblemCode = keyof typeof PROBLEMS;

/** What each code means, for whoever writes a program that meets it. */
export const PROBLEM_MEANS: Record<ProblemCode, string> = {
	'not-found': 'There is nothing here, or nothing that you may look at; the two are never told apart.',
	'needs-sign-in': 'Sign in first, or send a token.',
	'needs-level': 'You may look at it, but not do this; what is needed and what you have stand beside.',
	'needs-proof': 'The link asks for a proof first: a password, an account, or a code from a mail.',
	'wrong-origin': 'A change with a cookie, or from a browser, did not come from a page of Cupboard.',
	'in-hand': 'Somebody else has the document in hand; who and since when stand beside.',
	frozen: 'The place is frozen; by whom and why stand beside.',
	'stale-base': 'Others stored versions since the one this was made from; say where it goes.',
	conflict: 'What you see has changed meanwhile, or a rule of the project stands against it.',
	invalid: 'What was sent does not fit; each field that does not stands beside with a sentence.',
	'too-large': 'It is larger than the project or the server takes.',
	'too-many': 'Too many tries; wait as long as Retry-After says.',
	full: 'The disk of the server is full, or what may lie unused is used up. Nothing was changed.',
	busy: 'The server cannot answer now; ask again after Retry-After.'
};

/** An error a person is told: its stable code, a sentence, and the facts (who holds the lock, since when). */
export class Problem extends Error {
	constructor(
		readonly code: ProblemCode,
		readonly sentence: string,
		readonly facts: Record<string, unknown> = {}
	) {
		super(sentence);
	}

	get status(): number {
		return PROBLEMS[this.code];
	}

	/** The problem document. `type` is a relative reference to the page that describes the code. */
	document(): Record<string, unknown> {
		return {
			type: `${API}/problems/${this.code}`,
			title: this.code,
			status: this.status,
			code: this.code,
			detail: this.sentence,
			...this.facts
		};
	}
}
