import type { RequestHandler } from '@sveltejs/kit';
import { problemResponse } from '$lib/server/platform/http/respond';
import { runAct } from '$lib/server/platform/runner/run';
import { takeReleasePackage } from '$lib/server/releases/acts-package';
import { zipResponse } from '$lib/server/releases/file';

export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const { services } = locals.app;
		const { name, files } = await runAct(services, takeReleasePackage, locals.actor, params);
		return zipResponse(services, files, name);
	} catch (error) {
		return problemResponse(error);
	}
};
