import { randomInt } from 'node:crypto';

/**
 * Chance that can be had again: its seed is printed, and taken from CUPBOARD_SEED when that is set.
 * Gives numbers from 0 to below 1 (mulberry32).
 */
export function seeded(what: string): () => number {
	let state = Number(process.env.CUPBOARD_SEED ?? randomInt(2 ** 31));
	console.info(`${what}: CUPBOARD_SEED=${state}`);
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}
