import type { RequestHandler } from '@sveltejs/kit';
import { takeFromPass } from '$lib/server/acts/passes';
import { runAct } from '$lib/server/acts/run';
import { contentResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';

export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	try {
		const { services } = locals.app;
		const how = url.searchParams.has('download') ? 'download' : 'show';
		const file = await runAct(services, takeFromPass, null, {
			...params,
			how: how === 'show' ? 'opened' : 'downloaded'
		});
		return await contentResponse(services, request, file.hash, file.fileName, how);
	} catch (error) {
		return problemResponse(error);
	}
};
