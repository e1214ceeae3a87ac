import { Problem, type ProblemCode } from './problem';

/** Whether something can be done now; if not, what the refusal says. */
export type Answer = { may: true } | { may: false; problem: Problem };

export const yes: Answer = { may: true };

/** The answer that it cannot be done: code, sentence and facts are those of the refusal. */
export function no(code: ProblemCode, sentence: string, facts: Record<string, unknown> = {}): Answer {
	return { may: false, problem: new Problem(code, sentence, facts) };
}

/** What can be done with something, by the name of the act; where it cannot, the sentence of the refusal. */
export type Can<Act extends string> = Record<Act, { may: boolean; why: string }>;

/** The answers of several acts as a page is told them: whether each can be done, and the sentence where it cannot. */
export function told<Act extends string>(acts: readonly Act[], answer: (act: Act) => Answer): Can<Act> {
	return Object.fromEntries(
		acts.map((act) => {
			const asked = answer(act);
			return [act, asked.may ? { may: true, why: '' } : { may: false, why: asked.problem.sentence }];
		})
	) as Can<Act>;
}

/** Raises the {@link Problem} of an answer that says no. */
export function orRefuse(answer: Answer): void {
	if (!answer.may) throw answer.problem;
}
