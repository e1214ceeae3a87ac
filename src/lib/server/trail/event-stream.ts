/** How often a line without news shows that it is still there, in milliseconds. */
const BEAT = 20_000;

/** A line of server-sent events that stays open. */
export interface Line {
	/** Starts the watching and gives the function that ends it. */
	begin: (send: (message: unknown) => void, close: () => void) => () => void;
	/** Whether it may go on: asked with every beat, since a session may have ended meanwhile. */
	goesOn?: () => Promise<boolean>;
	/** Called when it has ended, however. */
	ended: () => void;
}

/** A response of server-sent events. */
export function eventStream({ begin, goesOn, ended }: Line): Response {
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
			const close = () => {
				end();
				try {
					controller.close();
				} catch {
					// The other side was quicker.
				}
			};
			write('retry: 2000\n\n');
			const stop = begin((message) => write(`data: ${JSON.stringify(message)}\n\n`), close);
			const beat = setInterval(() => {
				write(': still here\n\n');
				goesOn?.().then(
					(may) => may || close(),
					() => {}
				);
			}, BEAT);
			let over = false;
			end = () => {
				if (over) return;
				over = true;
				clearInterval(beat);
				stop();
				ended();
			};
		},
		cancel: () => end()
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
