import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/acts/run';
import { problemResponse } from '$lib/server/http/respond';
import { projectFrame } from '$lib/server/views/places';

/** Events of a project as they happen, as server-sent events, for the person who watches. */
export const GET: RequestHandler = async ({ locals, url }) => {
	const { services } = locals.app;
	try {
		const { project, me } = await readView(services, projectFrame, locals.actor, {
			project: url.searchParams.get('project') ?? ''
		});
		let end = () => {};
		const stream = new ReadableStream<Uint8Array>({
			start(controller) {
				const encoder = new TextEncoder();
				const send = (text: string) => {
					try {
						controller.enqueue(encoder.encode(text));
					} catch {
						end();
					}
				};
				send('retry: 2000\n\n');
				const stop = services.live.watch(project.id, me.id, (notice) =>
					send(`data: ${JSON.stringify(notice)}\n\n`)
				);
				const beat = setInterval(() => send(': still here\n\n'), 20_000);
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
	} catch (error) {
		return problemResponse(error);
	}
};
