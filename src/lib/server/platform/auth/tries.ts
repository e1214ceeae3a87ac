import { lt } from 'drizzle-orm';
import { RateLimiterDrizzle, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from '../../../core/acts/problem';
import type { Database } from '../db';
import { tries, usedCode } from '../db/schema';

/** How often something may be tried, by what, within how many seconds. */
const LIMITS = {
	/** Wrong passwords for one mail address from one network address: nobody else is kept out by them. */
	'sign-in': { points: 10, duration: 300 },
	/** Wrong passwords from one network address, whatever the mail addresses. */
	'sign-in-source': { points: 100, duration: 300 },
	/** Guesses of codes within one half-made sign-in, and of passwords within one session. */
	guess: { points: 10, duration: 900 },
	/** Links for a forgotten password to one mail address. */
	renew: { points: 3, duration: 900 },
	/** Wrong passwords and codes of one pass. */
	pass: { points: 30, duration: 300 },
	/** Addresses of passes and hatches that lead nowhere, from one network address: chosen endings can be guessed. */
	address: { points: 60, duration: 300 },
	/** Files through one hatch, or with the answers by one pass. */
	hatch: { points: 1_000, duration: 600 }
} as const;
export type Tried = keyof typeof LIMITS;

type Limiters = Record<Tried, RateLimiterDrizzle>;
const made = new WeakMap<Database, Limiters>();

function limitersOf(database: Database): Limiters {
	const known = made.get(database);
	if (known) return known;
	const limiters = Object.fromEntries(
		Object.entries(LIMITS).map(([keyPrefix, limit]) => [
			keyPrefix,
			new RateLimiterDrizzle({
				storeClient: database.db,
				schema: tries,
				keyPrefix,
				clearExpiredByTimeout: false,
				...limit
			})
		])
	) as Limiters;
	made.set(database, limiters);
	return limiters;
}

const TOO_MANY = (ms: number) =>
	new Problem('too-many', `Too many tries. Wait ${waitText(ms)}, then try again.`, {
		seconds: Math.ceil(ms / 1_000)
	});

function waitText(ms: number): string {
	const minutes = Math.ceil(ms / 60_000);
	return minutes <= 1 ? 'a minute' : `${minutes} minutes`;
}

/** Counts a try, for all processes together. Raises `too-many` past the limit. */
export async function countTry(database: Database, what: Tried, key: string): Promise<void> {
	try {
		await limitersOf(database)[what].consume(key);
	} catch (error) {
		if (error instanceof RateLimiterRes) throw TOO_MANY(error.msBeforeNext);
		throw error;
	}
}

/** Raises `too-many` when nothing may be tried any more; counts nothing. */
export async function checkTries(database: Database, what: Tried, key: string): Promise<void> {
	const now = await limitersOf(database)[what].get(key);
	if (now && now.consumedPoints >= LIMITS[what].points) throw TOO_MANY(now.msBeforeNext);
}

/** How often something was tried of late. */
export async function triesOf(database: Database, what: Tried, key: string): Promise<number> {
	return (await limitersOf(database)[what].get(key))?.consumedPoints ?? 0;
}

/** Forgets the tries, since it was right in the end. */
export async function forgetTries(database: Database, what: Tried, key: string): Promise<void> {
	await limitersOf(database)[what].delete(key);
}

/** Forgets what has run out, so that the table stays small. */
export async function forgetOldTries({ db }: Database, now: Date): Promise<void> {
	await db.delete(tries).where(lt(tries.expire, now));
	await db.delete(usedCode).where(lt(usedCode.at, new Date(now.getTime() - 600_000)));
}
