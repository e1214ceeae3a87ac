/** How long a sender is heard out whose bytes are not wanted any more, in milliseconds. */
const PATIENCE = 60_000;

/**
 * The bytes of a request as they come. When the reader stops early (a full disk, a file past its limit), the rest
 * is read and dropped: a sender that is cut off in the middle never gets to hear why.
 */
export async function* heardOut(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
	const reader = body.getReader();
	let ended = false;
	const next = async () => {
		const { value, done } = await reader.read();
		ended = done;
		return value;
	};
	try {
		for (let chunk = await next(); chunk; chunk = await next()) yield chunk;
	} finally {
		const until = Date.now() + PATIENCE;
		while (!ended && Date.now() < until) await next().catch(() => (ended = true));
	}
}
