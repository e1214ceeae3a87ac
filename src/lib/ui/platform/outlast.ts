/** Milliseconds between two tries while there is no line. */
const PAUSE = 1_000;

/** Where the framework asks for the data of the page at a path. */
const dataOf = (path: string) => `${path === '/' ? '' : path}/__data.json`;

/**
 * Lets an open page outlast a broken line. What it shows is asked for again whenever somebody changes something; where
 * that finds no line, the framework would give up the page, with what stands in its fields and on its sheets, for an
 * error. So it is tried until there is one, and the page stays as it is meanwhile.
 * @param ask how is asked without this
 * @param open the path of the page that is open now
 */
export function outlasting(
	ask: typeof fetch,
	open: () => string,
	pause: (ms: number) => Promise<unknown> = (ms) => new Promise((done) => setTimeout(done, ms))
): typeof fetch {
	return async (input, init) => {
		const path = new URL(input instanceof Request ? input.url : input, 'http://here').pathname;
		const isOpen = () => path === dataOf(open());
		if (!isOpen()) return ask(input, init);
		for (;;)
			try {
				const answer = await ask(input, init);
				// Read to its end here, where it can be asked for again; data that comes bit by bit is handed on as it comes.
				if (!answer.headers.get('content-type')?.includes('application/json')) return answer;
				return new Response(await answer.arrayBuffer(), answer);
			} catch {
				await pause(PAUSE);
				// Nobody waits for the data of a page that was left, and a fault would lead back to it.
				if (!isOpen()) return new Promise(() => {});
			}
	};
}
