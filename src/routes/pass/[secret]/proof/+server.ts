import { json, type RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { openPass } from '$lib/server/passes/acts-open';
import { runAct } from '$lib/server/platform/runner/run';
import { problemResponse } from '$lib/server/platform/http/respond';
import { keepProof } from '../open';

/** Takes the password, or the address with its code, and remembers in this browser that they were right. */
export const POST: RequestHandler = async (event) => {
	const { locals, params, request } = event;
	try {
		const given = (await request.json().catch(() => ({}))) as Record<string, unknown>;
		const { proof } = await runAct(
			locals.app.services,
			openPass,
			locals.actor,
			{ ...given, secret: params.secret },
			{ proofs: locals.proofs }
		);
		if (!proof) throw new Problem('invalid', 'That is not right. Check it and try again.');
		keepProof(event, proof);
		return json({});
	} catch (error) {
		return problemResponse(error);
	}
};
