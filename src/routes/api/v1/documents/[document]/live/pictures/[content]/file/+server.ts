import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { shownResponse } from '$lib/server/content/giving';
import { fileResponse, problemResponse } from '$lib/server/platform/http/respond';
import { livePictureContent } from '$lib/server/live/views';

/** The bytes of a picture in a live text. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, livePictureContent, locals.actor, params);
		if (file.mayGive) return fileResponse(services, request, file, 'show');
		// For those who may view only it is drawn anew, as everything else is.
		const address = new URL(request.url);
		address.searchParams.set('part', 'page');
		return await shownResponse(services, new Request(address, request), file, async () => {});
	} catch (error) {
		return problemResponse(error);
	}
};
