import type { RequestHandler } from '@sveltejs/kit';
import { downloadFromRelease } from '$lib/server/acts/releases/approval';
import { runAct } from '$lib/server/acts/run';
import { contentResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';

/** A document of a release for those on its route, who may not reach its folder. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	try {
		const { services } = locals.app;
		const file = await runAct(services, downloadFromRelease, locals.actor, params);
		return await contentResponse(services, request, file.hash, file.fileName, 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
