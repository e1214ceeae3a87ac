import type { RequestHandler } from '@sveltejs/kit';
import { openFromRelease } from '$lib/server/acts/releases/approval';
import { readView, runAct } from '$lib/server/acts/run';
import { shownResponse } from '$lib/server/http/giving';
import { problemResponse } from '$lib/server/http/respond';
import { releaseContent } from '$lib/server/views/releases';

/** What the server makes of a document of a release, for those on its route who may not reach its folder. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, releaseContent, locals.actor, params);
		return await shownResponse(services, request, file, () =>
			runAct(services, openFromRelease, locals.actor, params)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
