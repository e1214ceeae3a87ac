import type { RequestHandler } from '@sveltejs/kit';
import { openFromRelease } from '$lib/server/releases/acts-approval';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { contentOut } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { releaseContent } from '$lib/server/releases/views';

/** A document of a release for those on its route, as far as they may take it where it lies. */
export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const before = url.searchParams.has('before');
		const file = await readView(services, releaseContent, locals.actor, { ...params, before });
		const note = (how: 'opened' | 'downloaded', ranged = false) =>
			runAct(services, openFromRelease, locals.actor, { ...params, how, ranged, before });
		return await contentOut(services, request, file, {
			mayGive: file.mayGive,
			opened: () => note('opened'),
			given: async (ranged) => void (await note('downloaded', ranged))
		});
	} catch (error) {
		return problemResponse(error);
	}
};
