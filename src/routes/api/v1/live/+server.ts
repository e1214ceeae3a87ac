import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/acts/run';
import { eventStream } from '$lib/server/http/event-stream';
import { problemResponse } from '$lib/server/http/respond';
import { projectFrame } from '$lib/server/views/places';

/** Events of a project as they happen, as server-sent events, for the person who watches. */
export const GET: RequestHandler = async ({ locals, url }) => {
	const { services } = locals.app;
	try {
		const { project, me } = await readView(services, projectFrame, locals.actor, {
			project: url.searchParams.get('project') ?? ''
		});
		return eventStream((send) => services.live.watch(project.id, me.id, send));
	} catch (error) {
		return problemResponse(error);
	}
};
