import type { RequestHandler } from '@sveltejs/kit';
import { FILES } from '$lib/contract/files';
import { problemResponse } from '$lib/server/platform/http/respond';
import { parseInput } from '$lib/server/platform/runner/input';
import { queryInput } from '$lib/server/platform/http/query';
import { registerListResponse } from '$lib/server/register/give-list';

/** The register as a sheet with its curves, as CSV, or as a report, narrowed as its list is. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	try {
		const { format, ...asked } = parseInput(FILES.registerList.input, {
			...queryInput(url.searchParams),
			...params
		});
		return await registerListResponse(locals.app.services, locals.actor, format, asked);
	} catch (error) {
		return problemResponse(error);
	}
};
