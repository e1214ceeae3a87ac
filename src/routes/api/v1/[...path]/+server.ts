import { json, type RequestHandler } from '@sveltejs/kit';
import { answerApi } from '$lib/server/api/answer';
import { problemResponse } from '$lib/server/platform/http/respond';

const answer: RequestHandler = async ({ locals, request, params }) => {
	try {
		return json(
			(await answerApi(locals.app.services, locals.actor, request, '/' + params.path, locals.proofs)) ?? {},
			{
				headers: { 'cache-control': 'no-store' }
			}
		);
	} catch (error) {
		return problemResponse(error);
	}
};

export { answer as GET, answer as POST, answer as PUT, answer as PATCH, answer as DELETE };
