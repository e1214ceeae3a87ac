import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { eventStream } from '$lib/server/trail/event-stream';
import { load } from '$lib/server/platform/http/load';
import { problemResponse } from '$lib/server/platform/http/respond';
import { passGate } from '$lib/server/passes/views';

/** Says that what a pass shows is not as it was, without saying what: a page that is open is to be asked for again. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const { id, projectId } = await readView(services, passGate, locals.actor, params, {
			proofs: locals.proofs
		});
		const since = Number(url.searchParams.get('since') ?? NaN);
		return eventStream({
			ended: load.begin('line', locals.address, null),
			begin: (send) =>
				services.live.passes.watch(
					{ projectId, passId: id, tell: () => send({ changed: true }) },
					Number.isFinite(since) ? since : null
				)
		});
	} catch (error) {
		return problemResponse(error);
	}
};
