import { addressOf } from '../../client/cupboard';
import { toast } from '../kit/toast';
import { CallError } from '../../client/call';

/** An error of any kind as a sentence for people. */
export function sentenceOf(error: unknown): string {
	if (error instanceof CallError) return error.message;
	return 'The server cannot be reached. What you entered is still here; try again when the line is back.';
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
	return addressOf('sendFile', { project, name });
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
