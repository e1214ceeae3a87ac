import type { RequestHandler } from '@sveltejs/kit';
import { openArrival } from '$lib/server/hatches/acts';
import { runAct } from '$lib/server/platform/runner/run';
import { contentResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';

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
