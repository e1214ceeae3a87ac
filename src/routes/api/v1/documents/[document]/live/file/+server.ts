import type { RequestHandler } from '@sveltejs/kit';
import { liveFileResponse } from '$lib/server/live/file';
import { problemResponse } from '$lib/server/platform/http/respond';

/** A live document as it is now, as a file of the kind that `format` names. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const format = url.searchParams.get('format') ?? '';
		return await liveFileResponse(services, locals.actor, params.document!, format);
	} catch (error) {
		return problemResponse(error);
	}
};
