import { METHOD_OVERRIDE } from '../../core/acts/api';
import { Problem } from '../../core/acts/problem';
import type { Act, View } from '../platform/runner/act';
import type { Actor, Proof } from '../platform/runner/actor';
import { ACTS } from './acts';
import { queryInput } from '../platform/http/query';
import { readView, runAct } from '../platform/runner/run';
import type { Services } from '../platform/services';
import { VIEWS } from './views';

interface Route {
	method: string;
	pattern: RegExp;
	names: string[];
	act?: Act;
	view?: View;
}

function route(method: string, path: string, target: Pick<Route, 'act' | 'view'>): Route {
	const names = [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
	const pattern = new RegExp('^' + path.replace(/\{\w+\}/g, '([^/]+)') + '$');
	return { method, pattern, names, ...target };
}

const ROUTES: Route[] = [
	...ACTS.map((act) => route(act.method, act.path, { act })),
	...VIEWS.map((view) => route('GET', view.path, { view }))
];

/** Whether a question comes in a body, because it is too long for an address: a POST that says so in a header. */
const asksByBody = (request: Request) =>
	request.method === 'POST' && request.headers.get(METHOD_OVERRIDE)?.toUpperCase() === 'GET';

/** The JSON body of a request, which was bounded when it came in (`body.ts`). */
async function readBody(request: Request): Promise<Record<string, unknown>> {
	const text = await request.text();
	if (text.trim() === '') return {};
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch {
		throw new Problem('invalid', 'The request body is not JSON.');
	}
	if (typeof value !== 'object' || value === null || Array.isArray(value))
		throw new Problem('invalid', 'The request body must be a JSON object.');
	return value as Record<string, unknown>;
}

/**
 * Answers a request to /api/v1 from the declared acts and views.
 * @param path what follows /api/v1, decoded
 */
export async function answerApi(
	services: Services,
	actor: Actor,
	request: Request,
	path: string,
	proofs: readonly Proof[]
): Promise<unknown> {
	const matching = ROUTES.map((r) => ({ r, match: r.pattern.exec(path) })).filter(({ match }) => match);
	const byBody = asksByBody(request);
	const method = byBody ? 'GET' : request.method;
	const found = matching.find(({ r }) => r.method === method);
	if (!found) {
		throw new Problem(
			'not-found',
			matching.length ? `${method} is not possible here.` : 'There is nothing at this address of the API.'
		);
	}
	const parameters = Object.fromEntries(found.r.names.map((name, i) => [name, found.match![i + 1]!]));
	if (found.r.view) {
		const query = byBody ? await readBody(request) : queryInput(new URL(request.url).searchParams);
		return readView(services, found.r.view, actor, { ...query, ...parameters }, { proofs });
	}
	return runAct(services, found.r.act!, actor, { ...(await readBody(request)), ...parameters }, { proofs });
}
