import type { RequestHandler } from '@sveltejs/kit';
import { takeSide } from '$lib/server/acts/hand-in';
import { runAct } from '$lib/server/acts/run';
import { fileResponse, problemResponse } from '$lib/server/http/respond';

/** The bytes of a side version, to look at or to take. */
export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const download = url.searchParams.has('download');
		const how = download ? 'downloaded' : 'opened';
		const file = await runAct(services, takeSide, locals.actor, { ...params, how });
		return fileResponse(services, request, file, download ? 'download' : 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
