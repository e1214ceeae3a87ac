import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/acts/run';
import { fileResponse, problemResponse } from '$lib/server/http/respond';
import { livePictureContent } from '$lib/server/views/live';

/** The bytes of a picture in a live text. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, livePictureContent, locals.actor, params);
		return fileResponse(services, request, file, 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
