import type { RequestHandler } from '@sveltejs/kit';
import { FILES } from '$lib/contract/files';
import { queryInput } from '$lib/server/platform/http/query';
import { problemResponse } from '$lib/server/platform/http/respond';
import { parseInput } from '$lib/server/platform/runner/input';
import { releasesListResponse } from '$lib/server/releases/give-releases';

/** The releases as a sheet or as CSV, narrowed as on screen. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	try {
		const { format, ...asked } = parseInput(FILES.releasesList.input, {
			...queryInput(url.searchParams),
			...params
		});
		return await releasesListResponse(locals.app.services, locals.actor, format, asked);
	} catch (error) {
		return problemResponse(error);
	}
};
