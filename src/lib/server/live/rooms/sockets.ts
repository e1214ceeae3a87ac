import type { IncomingMessage } from 'node:http';
import type { WebSocket } from 'ws';

/** Reasons for which a connection is closed, as the browser hears them (RFC 6455 leaves 4000 to 4999 to applications). */
export const CLOSED = { accessChanged: 4408, refused: 4409, tooMuch: 4429 } as const;

/** Most messages of one connection within ten seconds: more than any hand sends. */
const MOST_MESSAGES = 3_000;
const WITHIN = 10_000;

/** Cuts off a connection that sends faster than any hand. */
export function limitRate(socket: WebSocket): void {
	let since = Date.now();
	let messages = 0;
	socket.prependListener('message', () => {
		const now = Date.now();
		if (now - since > WITHIN) {
			since = now;
			messages = 0;
		}
		if (++messages > MOST_MESSAGES) socket.close(CLOSED.tooMuch, 'too many messages');
	});
}

/** The headers of a request as the rest of the server reads them. */
export function headersOf(request: IncomingMessage): Headers {
	const headers = new Headers();
	for (const [name, value] of Object.entries(request.headers))
		if (typeof value === 'string') headers.set(name, value);
	return headers;
}
