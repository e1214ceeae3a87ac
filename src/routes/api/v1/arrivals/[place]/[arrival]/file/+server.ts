import type { RequestHandler } from '@sveltejs/kit';
import { openArrival } from '$lib/server/acts/hatches';
import { runAct } from '$lib/server/acts/run';
import { contentResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';

/** The bytes of a file that came in and was found safe, for who sorts it; never shown in the browser. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	try {
		const { services } = locals.app;
		const ranged = request.headers.has('range');
		const file = await runAct(services, openArrival, locals.actor, { ...params, ranged });
		return await contentResponse(services, request, file.hash, file.fileName, 'download');
	} catch (error) {
		return problemResponse(error);
	}
};
