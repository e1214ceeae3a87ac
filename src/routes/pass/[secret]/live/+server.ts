import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { eventStream } from '$lib/server/trail/event-stream';
import { load } from '$lib/server/platform/http/load';
import { problemResponse } from '$lib/server/platform/http/respond';
import { passGate } from '$lib/server/passes/views';

/** Says when a pass is withdrawn, so that an open page stops. */
export const GET: RequestHandler = async ({ locals, params }) => {
	const { services } = locals.app;
	try {
		const { id, projectId } = await readView(services, passGate, locals.actor, params, {
			proofs: locals.proofs
		});
		return eventStream({
			ended: load.begin('line', locals.address, null),
			begin: (send) => services.live.watchPass(projectId, id, () => send({ ended: true }))
		});
	} catch (error) {
		return problemResponse(error);
	}
};
