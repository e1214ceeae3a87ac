import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/acts/run';
import { coverNoteResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';
import { passCoverNote } from '$lib/server/views/releases';

export const GET: RequestHandler = async ({ locals, params, request }) => {
	try {
		const { services } = locals.app;
		return await coverNoteResponse(
			services,
			request,
			await readView(services, passCoverNote, locals.actor, params, { proofs: locals.proofs })
		);
	} catch (error) {
		return problemResponse(error);
	}
};
