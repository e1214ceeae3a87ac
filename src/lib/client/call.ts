import { API, METHOD_OVERRIDE } from '../core/acts/api';

/** What went wrong with a call, as the server's problem document says it. */
export class CallError extends Error {
	constructor(
		readonly code: string,
		message: string,
		readonly facts: Record<string, unknown>
	) {
		super(message);
	}
}

/** How long after its answer the same change counts as the same press, in milliseconds. */
const DOUBLE_PRESS = 500;
/** Changes that are under way, by what they say. */
const going = new Map<string, Promise<unknown>>();
/** The change asked for last: once another came, the same again is meant. */
let last: { change: string; answer: Promise<unknown>; until: number } | null = null;

/**
 * Asks the public API for something, or changes something there (the pages have no other way). The very same change, asked for again while it is under way or
 * just after, is a second press of one button: it is done once, and both get its answer.
 * @param path what follows /api/v1, with everything filled in
 * @param body of a change; of a question where it is too long for an address
 * @returns the answer; raises {@link CallError} for a problem document
 */
export function call<T = unknown>(
	method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
	path: string,
	body?: unknown
): Promise<T> {
	if (method === 'GET') return callOnce(method, path, body) as Promise<T>;
	const change = `${method} ${path} ${JSON.stringify(body)}`;
	const known =
		going.get(change) ?? (last?.change === change && performance.now() < last.until ? last.answer : null);
	if (known) return known as Promise<T>;
	const answer = callOnce(method, path, body).finally(() => going.delete(change));
	const mine = (last = { change, answer, until: Infinity });
	going.set(change, answer);
	answer.then(
		() => (mine.until = performance.now() + DOUBLE_PRESS),
		// What failed may be tried again at once.
		() => (mine.until = 0)
	);
	return answer as Promise<T>;
}

async function callOnce(method: string, path: string, body: unknown): Promise<unknown> {
	const asksByBody = method === 'GET' && body !== undefined;
	const response = await fetch(`${API}${path}`, {
		method: asksByBody ? 'POST' : method,
		headers: {
			...(body === undefined ? {} : { 'content-type': 'application/json' }),
			...(asksByBody ? { [METHOD_OVERRIDE]: method } : {})
		},
		body: body === undefined ? undefined : JSON.stringify(body)
	});
	const answer = (await response.json().catch(() => ({}))) as Record<string, unknown>;
	if (!response.ok)
		throw new CallError(
			String(answer.code ?? 'busy'),
			String(answer.detail ?? 'The server did not answer as expected.'),
			answer
		);
	return answer;
}
