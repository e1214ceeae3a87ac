import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { coverNoteResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';
import { passCoverNote } from '$lib/server/releases/views-pass';

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
