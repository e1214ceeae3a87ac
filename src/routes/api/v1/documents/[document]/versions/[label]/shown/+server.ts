import type { RequestHandler } from '@sveltejs/kit';
import { openDocument } from '$lib/server/documents/acts';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { shownResponse } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { versionContent } from '$lib/server/documents/views';

/** What the server makes of a version for showing it, for those who may view and not take. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, versionContent, locals.actor, params);
		return await shownResponse(services, request, file, () =>
			runAct(services, openDocument, locals.actor, params)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
