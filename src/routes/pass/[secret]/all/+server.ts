import type { RequestHandler } from '@sveltejs/kit';
import { releaseNumber } from '$lib/core/releases';
import { takeAllFromPass } from '$lib/server/passes/acts-release';
import { runAct } from '$lib/server/platform/runner/run';
import { zipResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';

export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const { services } = locals.app;
		const { number, files } = await runAct(services, takeAllFromPass, locals.actor, params, {
			proofs: locals.proofs
		});
		return zipResponse(services, files, `release-${releaseNumber(number)}.zip`);
	} catch (error) {
		return problemResponse(error);
	}
};
