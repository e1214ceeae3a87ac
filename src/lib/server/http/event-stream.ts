/** How often a line without news shows that it is still there, in milliseconds. */
const BEAT = 20_000;

/**
 * A response of server-sent events.
 * @param begin starts the watching and gives the function that ends it
 */
export function eventStream(begin: (send: (message: unknown) => void) => () => void): Response {
	let end = () => {};
	const stream = new ReadableStream<Uint8Array>({
		start(controller) {
			const encoder = new TextEncoder();
			const write = (text: string) => {
				try {
					controller.enqueue(encoder.encode(text));
				} catch {
					end();
				}
			};
			write('retry: 2000\n\n');
			const stop = begin((message) => write(`data: ${JSON.stringify(message)}\n\n`));
			const beat = setInterval(() => write(': still here\n\n'), BEAT);
			end = () => {
				clearInterval(beat);
				stop();
			};
		},
		cancel: () => end()
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
