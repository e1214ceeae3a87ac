import type { RequestEvent } from '@sveltejs/kit';
import type { Proof } from '$lib/server/platform/runner/actor';
import { openPass } from '$lib/server/passes/acts-open';
import { PROOF_COOKIE, writeProof } from '$lib/server/platform/auth/proofs';
import { passGate } from '$lib/server/passes/views';
import { pageAct, pageView } from '../../page-data';

type Event = Pick<RequestEvent, 'locals' | 'url' | 'cookies'>;

/** Remembers in this browser what the holder of a pass has proven. */
export function keepProof({ cookies, locals }: Pick<RequestEvent, 'cookies' | 'locals'>, proof: Proof): void {
	const { config } = locals.app.services;
	cookies.set(PROOF_COOKIE + proof.passId, writeProof(config.secret, proof), {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: config.origin.startsWith('https:'),
		expires: new Date(proof.endsAt)
	});
	locals.proofs = [...locals.proofs, proof];
}

/**
 * Opens a pass for a page: what it still asks for, or nothing; then the use is counted and remembered.
 * @returns the gate; `asks` is nothing when the pass is open
 */
export async function openForPage(event: Event, secret: string) {
	const gate = await pageView(event, passGate, { secret });
	if (gate.accounts && !event.locals.actor) return { ...gate, asks: 'account' as const };
	if (gate.asks !== 'nothing' && gate.asks !== 'account') return gate;
	if (!gate.opened) {
		const { proof } = await pageAct(event, openPass, { secret });
		if (proof) keepProof(event, proof);
	}
	return { ...gate, asks: 'nothing' as const };
}
