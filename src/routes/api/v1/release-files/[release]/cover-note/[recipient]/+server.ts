import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { coverNoteDraftResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';
import { coverNoteDraft } from '$lib/server/releases/views';

export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const { services } = locals.app;
		return await coverNoteDraftResponse(
			services,
			await readView(services, coverNoteDraft, locals.actor, params)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
