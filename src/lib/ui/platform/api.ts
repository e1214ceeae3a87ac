import { toast } from 'svelte-sonner';

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

/** An error of any kind as a sentence for people. */
export function sentenceOf(error: unknown): string {
	if (error instanceof CallError) return error.message;
	return 'The server cannot be reached. What you entered is still here; try again when the line is back.';
}

/** How long after its answer the same change counts as the same press, in milliseconds. */
const DOUBLE_PRESS = 500;
/** Changes that are under way, by what they say. */
const going = new Map<string, Promise<unknown>>();
/** The change asked for last: once another came, the same again is meant. */
let last: { change: string; answer: Promise<unknown>; until: number } | null = null;

/**
 * Calls the public API (the pages have no other way). The very same change, asked for again while it is under way or
 * just after, is a second press of one button: it is done once, and both get its answer.
 * @param path what follows /api/v1
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
	const response = await fetch(`/api/v1${path}`, {
		method,
		headers: body === undefined ? {} : { 'content-type': 'application/json' },
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

/** Calls the API and shows a failure as a passing note; gives null then. */
export async function attempt<T>(doing: () => Promise<T>): Promise<T | null> {
	try {
		return await doing();
	} catch (error) {
		toast.error(sentenceOf(error));
		return null;
	}
}

/** What the server answered for a file it received. */
export interface Received {
	upload: string;
	hash: string;
	size: number;
	mediaType: string;
	fileName: string;
}

/** Where files of members are sent. */
export function uploadAddress(project: string, name: string): string {
	return `/api/v1/uploads?project=${encodeURIComponent(project)}&name=${encodeURIComponent(name)}`;
}

/** Sends one file as a stream with progress; `cancel` stops it. */
export function sendFile(
	address: string,
	file: File,
	progress: (sent: number) => void
): { done: Promise<Received>; cancel: () => void } {
	const request = new XMLHttpRequest();
	const done = new Promise<Received>((resolve, reject) => {
		request.open('POST', address);
		request.setRequestHeader('content-type', 'application/octet-stream');
		request.upload.onprogress = (event) => progress(event.loaded);
		request.onload = () => {
			let answer: Record<string, unknown> = {};
			try {
				answer = JSON.parse(request.responseText) as Record<string, unknown>;
			} catch {
				answer = {};
			}
			if (request.status === 200) resolve(answer as unknown as Received);
			else
				reject(
					new CallError(
						String(answer.code ?? 'busy'),
						String(answer.detail ?? 'The file was not received.'),
						answer
					)
				);
		};
		request.onerror = () => reject(new Error('line'));
		request.onabort = () => reject(new CallError('cancelled', 'Cancelled.', {}));
		request.send(file);
	});
	return { done, cancel: () => request.abort() };
}
