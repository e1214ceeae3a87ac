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

	/** The problem document. `type` is a relative reference to the API's own description of the code. */
	document(): Record<string, unknown> {
		return {
			type: `/api/v1/problems#${this.code}`,
			title: this.code,
			status: this.status,
			code: this.code,
			detail: this.sentence,
			...this.facts
		};
	}
}
