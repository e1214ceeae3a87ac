import { Problem, type ProblemCode } from './problem';

/** Whether something can be done now; if not, what the refusal says. */
export type Answer = { may: true } | { may: false; problem: Problem };

export const yes: Answer = { may: true };

/** The answer that it cannot be done: code, sentence and facts are those of the refusal. */
export function no(code: ProblemCode, sentence: string, facts: Record<string, unknown> = {}): Answer {
	return { may: false, problem: new Problem(code, sentence, facts) };
}

/** Raises the {@link Problem} of an answer that says no. */
export function orRefuse(answer: Answer): void {
	if (!answer.may) throw answer.problem;
}
