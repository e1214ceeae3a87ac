import type { RequestHandler } from '@sveltejs/kit';
import { downloadDocument, openDocument } from '$lib/server/documents/acts';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { contentOut } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { versionContent } from '$lib/server/documents/views';

/** The bytes of a version, for those who may take them. */
export const GET: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, versionContent, locals.actor, params);
		return await contentOut(services, request, file, {
			mayGive: file.mayGive,
			opened: () => runAct(services, openDocument, locals.actor, params),
			given: async (ranged) =>
				void (await runAct(services, downloadDocument, locals.actor, { ...params, ranged }))
		});
	} catch (error) {
		return problemResponse(error);
	}
};
