import type { RequestHandler } from '@sveltejs/kit';
import { takeSide } from '$lib/server/documents/acts-hand-in';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { contentOut } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { sideContent } from '$lib/server/documents/views';

/** The bytes of a side version, to look at or to take. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, sideContent, locals.actor, params);
		const note = (how: 'opened' | 'downloaded', ranged = false) =>
			runAct(services, takeSide, locals.actor, { ...params, how, ranged });
		return await contentOut(services, request, file, {
			mayGive: file.mayGive,
			opened: () => note('opened'),
			given: async (ranged) => void (await note('downloaded', ranged))
		});
	} catch (error) {
		return problemResponse(error);
	}
};
