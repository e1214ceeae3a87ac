import type { RequestHandler } from '@sveltejs/kit';
import { FILES } from '$lib/contract/files';
import { queryInput } from '$lib/server/platform/http/query';
import { problemResponse } from '$lib/server/platform/http/respond';
import { parseInput } from '$lib/server/platform/runner/input';
import { holdersListResponse } from '$lib/server/releases/give-holders';

/** Who holds what as a sheet or as CSV, narrowed as on screen. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	try {
		const { format, ...asked } = parseInput(FILES.holdersList.input, {
			...queryInput(url.searchParams),
			...params
		});
		return await holdersListResponse(locals.app.services, locals.actor, format, asked);
	} catch (error) {
		return problemResponse(error);
	}
};
