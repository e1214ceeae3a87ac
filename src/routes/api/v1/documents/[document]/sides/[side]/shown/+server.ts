import type { RequestHandler } from '@sveltejs/kit';
import { takeSide } from '$lib/server/acts/hand-in';
import { readView, runAct } from '$lib/server/acts/run';
import { shownResponse } from '$lib/server/http/giving';
import { problemResponse } from '$lib/server/http/respond';
import { sideContent } from '$lib/server/views/documents';

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
