import type { RequestHandler } from '@sveltejs/kit';
import { Problem, PROBLEM_MEANS, PROBLEMS, type ProblemCode } from '$lib/core/acts/problem';
import { problemResponse } from '$lib/server/platform/http/respond';

/** What the `type` of a problem document leads to: what its code means, for who writes programs. */
export const GET: RequestHandler = ({ params }) => {
	if (!(params.code! in PROBLEMS))
		return problemResponse(new Problem('not-found', 'There is no such problem.'));
	const code = params.code as ProblemCode;
	return new Response(`${code} (${PROBLEMS[code]})\n\n${PROBLEM_MEANS[code]}\n`, {
		headers: { 'content-type': 'text/plain; charset=utf-8' }
	});
};
