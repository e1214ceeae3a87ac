import type { RequestHandler } from '@sveltejs/kit';
import { takeFromPass } from '$lib/server/acts/passes';
import { takeFromPlacePass } from '$lib/server/acts/place-passes';
import { readView, runAct } from '$lib/server/acts/run';
import { contentResponse, stampedResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';
import { passGate } from '$lib/server/views/passes';

export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	try {
		const { services } = locals.app;
		const circumstances = { proofs: locals.proofs };
		const how = url.searchParams.has('download') ? 'download' : 'show';
		const input = { ...params, how: how === 'show' ? 'opened' : 'downloaded' };
		const gate = await readView(services, passGate, locals.actor, params, circumstances);
		if (gate.leadsTo === 'release') {
			const file = await runAct(services, takeFromPass, locals.actor, input, circumstances);
			return await contentResponse(services, request, file.hash, file.fileName, how);
		}
		const file = await runAct(services, takeFromPlacePass, locals.actor, input, circumstances);
		if (file.stamp !== null) return await stampedResponse(services, file, file.stamp);
		return await contentResponse(services, request, file.hash, file.fileName, how);
	} catch (error) {
		return problemResponse(error);
	}
};
