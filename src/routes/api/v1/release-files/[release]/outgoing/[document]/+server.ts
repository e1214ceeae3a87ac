import type { RequestHandler } from '@sveltejs/kit';
import { openFromRelease } from '$lib/server/releases/acts-approval';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { outgoingResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';
import { releaseOutgoing } from '$lib/server/releases/views';

/** A document of a release as it goes out, with its stamp and the marks burned in. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, releaseOutgoing, locals.actor, params);
		await runAct(services, openFromRelease, locals.actor, params);
		return await outgoingResponse(services, request, file);
	} catch (error) {
		return problemResponse(error);
	}
};
