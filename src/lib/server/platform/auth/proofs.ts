import { createHash, createHmac, timingSafeEqual } from 'node:crypto';
import type { Proof } from '../runner/actor';

/** Cookies of this name, with a pass's id behind it, hold what its holder has proven. */
export const PROOF_COOKIE = 'cupboard-pass-';
/** How long a proof holds before the pass asks again. */
export const PROOF_HOURS = 12;

/** What a proof of a pass stands on: who may use it and its password. When that changes, it is asked for anew. */
export function proofOf(held: { audience: string; passwordHash: string | null }): string {
	return createHash('sha256')
		.update(`${held.audience}:${held.passwordHash ?? ''}`)
		.digest('base64url')
		.slice(0, 12);
}

function seal(secret: string, text: string): string {
	return createHmac('sha256', secret).update(`pass-proof:${text}`).digest('base64url');
}

/** The value of a cookie that proves what the holder of a pass has shown. */
export function writeProof(secret: string, proof: Proof): string {
	const text = Buffer.from(JSON.stringify([proof.passId, proof.email, proof.endsAt, proof.of])).toString(
		'base64url'
	);
	return `${text}.${seal(secret, text)}`;
}

/** The proofs among a browser's cookies; what was not sealed here counts for nothing. */
export function readProofs(secret: string, cookies: { name: string; value: string }[]): Proof[] {
	return cookies.flatMap(({ name, value }) => {
		if (!name.startsWith(PROOF_COOKIE)) return [];
		const [text = '', given = ''] = value.split('.');
		const [a, b] = [Buffer.from(given), Buffer.from(seal(secret, text))];
		if (a.length !== b.length || !timingSafeEqual(a, b)) return [];
		const [passId, email, endsAt, of] = JSON.parse(Buffer.from(text, 'base64url').toString()) as [
			string,
			string | null,
			number,
			string
		];
		return [{ passId, email, endsAt, of }];
	});
}
