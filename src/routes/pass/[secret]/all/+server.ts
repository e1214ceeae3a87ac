import type { RequestHandler } from '@sveltejs/kit';
import { takeAllFromPass } from '$lib/server/passes/acts-release';
import { runAct } from '$lib/server/platform/runner/run';
import { zipResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';

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
