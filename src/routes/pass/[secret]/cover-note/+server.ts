import type { RequestHandler } from '@sveltejs/kit';
import { releaseNumber } from '$lib/core/releases';
import { readView } from '$lib/server/acts/run';
import { contentResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';
import { passCoverNote } from '$lib/server/views/releases';

export const GET: RequestHandler = async ({ locals, params, request }) => {
	try {
		const { services } = locals.app;
		const note = await readView(services, passCoverNote, null, params);
		return await contentResponse(
			services,
			request,
			note.hash,
			`Cover note ${releaseNumber(note.number)}.pdf`,
			'show'
		);
	} catch (error) {
		return problemResponse(error);
	}
};
