import type { RequestHandler } from '@sveltejs/kit';
import { downloadDocument, openDocument } from '$lib/server/acts/documents';
import { readView, runAct } from '$lib/server/acts/run';
import { fileResponse, problemResponse } from '$lib/server/http/respond';
import { versionContent } from '$lib/server/views/documents';

export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, versionContent, locals.actor, params);
		const download = url.searchParams.has('download');
		// What is continued was noted when it began.
		if (!request.headers.has('range')) {
			if (download) await runAct(services, downloadDocument, locals.actor, params);
			else await runAct(services, openDocument, locals.actor, params);
		}
		return fileResponse(services, request, file, download ? 'download' : 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
