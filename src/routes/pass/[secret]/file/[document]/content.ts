import type { RequestEvent } from '@sveltejs/kit';
import { takeFromPass } from '$lib/server/passes/acts-release';
import { openPass, takeFromPlacePass } from '$lib/server/passes/acts-open';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { passGate, placePassContent, releasePassContent } from '$lib/server/passes/views';

/**
 * A document that a pass leads to, of either kind, and how its opening and its taking are noted.
 * @param before of a release: as they had it before
 */
export async function byPass({ locals, params }: Pick<RequestEvent, 'locals' | 'params'>, before = false) {
	const { services } = locals.app;
	const { secret } = params;
	let { proofs } = locals;
	const { leadsTo, opened, asks } = await readView(services, passGate, locals.actor, { secret }, { proofs });
	// A program opens nothing first: its request is one use, like that of a browser that comes back with its proof.
	if (!opened && asks === 'nothing') {
		const { proof } = await runAct(services, openPass, locals.actor, { secret }, { proofs });
		if (proof) proofs = [...proofs, proof];
	}
	const options = { proofs };
	if (leadsTo === 'release') {
		const file = await readView(services, releasePassContent, locals.actor, { ...params, before }, options);
		return {
			file,
			note: async (how: 'opened' | 'downloaded', ranged = false) => {
				await runAct(services, takeFromPass, locals.actor, { ...params, how, ranged, before }, options);
				return null;
			}
		};
	}
	const file = await readView(services, placePassContent, locals.actor, params, options);
	return {
		file,
		/** Gives the version with what its copy carries, a name or marks, where the pass says so. */
		note: async (how: 'opened' | 'downloaded', ranged = false) => {
			const input = { ...params, how, ranged };
			const taken = await runAct(services, takeFromPlacePass, locals.actor, input, options);
			return taken.stamp === null && !taken.marks ? null : taken;
		}
	};
}
