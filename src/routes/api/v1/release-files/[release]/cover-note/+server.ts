import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/acts/run';
import { coverNoteResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';
import { releaseCoverNote } from '$lib/server/views/releases';

export const GET: RequestHandler = async ({ locals, params, request }) => {
	try {
		const { services } = locals.app;
		return await coverNoteResponse(
			services,
			request,
			await readView(services, releaseCoverNote, locals.actor, params)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
