import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { Problem } from '$lib/core/acts/problem';
import type { Kind } from '$lib/contract/act';
import type { Act, View } from '$lib/server/platform/runner/act';
import { readView, runAct } from '$lib/server/platform/runner/run';

type Where = Pick<RequestEvent, 'locals' | 'url'>;

/** Turns a problem into what a page shows: the sign-in page when nobody is signed in, else its sentence. */
function fail(problem: unknown, { url }: Where): never {
	if (!(problem instanceof Problem)) throw problem;
	if (problem.code === 'needs-sign-in')
		redirect(303, `/sign-in?to=${encodeURIComponent(url.pathname + url.search)}`);
	const { heading } = problem.facts;
	error(problem.status, {
		message: problem.sentence,
		code: problem.code,
		...(typeof heading === 'string' ? { heading } : {})
	});
}

/** Reads a view for a page's load. */
export async function pageView<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	event: Where,
	view: View<K, S, O>,
	input: unknown
): Promise<z.output<O>> {
	const { app, actor, proofs } = event.locals;
	return readView(app.services, view, actor, input, { proofs }).catch((problem: unknown) =>
		fail(problem, event)
	);
}

/** Does an act that belongs to showing a page, such as noting that a document was opened. */
export async function pageAct<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
	event: Where,
	act: Act<K, S, O>,
	input: unknown
): Promise<z.output<O>> {
	const { app, actor, proofs } = event.locals;
	return runAct(app.services, act, actor, input, { proofs }).catch((problem: unknown) =>
		fail(problem, event)
	);
}
