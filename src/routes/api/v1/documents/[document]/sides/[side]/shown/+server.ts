import type { RequestHandler } from '@sveltejs/kit';
import { takeSide } from '$lib/server/documents/acts-hand-in';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { shownResponse } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { sideContent } from '$lib/server/documents/views';

/** What the server makes of a side version for showing it. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, sideContent, locals.actor, params);
		return await shownResponse(services, request, file, () =>
			runAct(services, takeSide, locals.actor, { ...params, how: 'opened' })
		);
	} catch (error) {
		return problemResponse(error);
	}
};
