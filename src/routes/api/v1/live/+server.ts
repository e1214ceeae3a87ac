import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { eventStream } from '$lib/server/trail/event-stream';
import { SOMETHING_CHANGED } from '$lib/server/trail/following';
import { load } from '$lib/server/platform/http/load';
import { problemResponse } from '$lib/server/platform/http/respond';
import { projectFrame } from '$lib/server/places/views';

/** Events of a project as they happen, as server-sent events, for the person who watches. Ends with their session. */
export const GET: RequestHandler = async ({ locals, request, url }) => {
	const { services, auth } = locals.app;
	try {
		const { project, me } = await readView(services, projectFrame, locals.actor, {
			project: url.searchParams.get('project') ?? ''
		});
		const self = locals.actor!.person.id;
		const ended = load.begin('line', locals.address, self);
		const goesOn = async () => (await auth.actor(request.headers))?.person.id === self;
		return eventStream({
			ended,
			goesOn,
			begin(send, close) {
				const stop = services.live.watch(project.id, me.id, send);
				const since = Number(url.searchParams.get('since') ?? NaN);
				if (services.live.heardSince(project.id, since)) send(SOMETHING_CHANGED);
				const unheard = services.live.watchSessions(self, () => {
					goesOn().then(
						(may) => may || close(),
						() => close()
					);
				});
				return () => {
					stop();
					unheard();
				};
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};
