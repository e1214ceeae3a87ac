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

/**
 * Calls the public API (the pages have no other way).
 * @param path what follows /api/v1
 * @returns the answer; raises {@link CallError} for a problem document
 */
export async function call<T = unknown>(
	method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
	path: string,
	body?: unknown
): Promise<T> {
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
	return answer as T;
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
