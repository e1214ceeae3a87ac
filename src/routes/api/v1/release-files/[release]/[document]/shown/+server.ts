import type { RequestHandler } from '@sveltejs/kit';
import { openFromRelease } from '$lib/server/releases/acts-approval';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { shownResponse } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { releaseContent } from '$lib/server/releases/views';

/** What the server makes of a document of a release, for those on its route who may not reach its folder. */
export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const before = url.searchParams.has('before');
		const file = await readView(services, releaseContent, locals.actor, { ...params, before });
		return await shownResponse(services, request, file, () =>
			runAct(services, openFromRelease, locals.actor, { ...params, before })
		);
	} catch (error) {
		return problemResponse(error);
	}
};
