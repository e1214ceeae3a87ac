import type { RequestHandler } from '@sveltejs/kit';
import { takeAllFromPass } from '$lib/server/acts/passes';
import { runAct } from '$lib/server/acts/run';
import { zipResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';

export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const { services } = locals.app;
		return zipResponse(
			services,
			await runAct(services, takeAllFromPass, locals.actor, params, { proofs: locals.proofs })
		);
	} catch (error) {
		return problemResponse(error);
	}
};
