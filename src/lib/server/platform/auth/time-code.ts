import { and, eq } from 'drizzle-orm';
import { createOTP } from '@better-auth/utils/otp';
import { symmetricDecrypt } from 'better-auth/crypto';
import { Problem } from '../../../core/acts/problem';
import type { Querier } from '../db';
import { twoFactor, usedCode } from '../db/schema';
import { secretHash } from '../ids';
import type { Services } from '../services';
import { checkTries, countTry } from './tries';

/** What a wrong code is answered with, wherever one is asked for. */
export const WRONG_CODE = 'The code is wrong, or has been used. Codes change every half minute.';

/** Digits of a time code, and seconds for which it stands: what authenticators take where nothing is said (RFC 6238). */
export const TIME_CODE = { digits: 6, period: 30 } as const;

/**
 * Whether a time code of a person's authenticator is right, now or half a minute to either side. Raises `invalid` at
 * the field `timeCode` where it is not, and `too-many` after too many wrong ones; only wrong ones count.
 */
export async function checkTimeCode(
	{ config, database }: Services,
	personId: string,
	code: string
): Promise<void> {
	await checkTries(database, 'guess', personId);
	const [own] = await database.db
		.select({ secret: twoFactor.secret })
		.from(twoFactor)
		.where(and(eq(twoFactor.userId, personId), eq(twoFactor.verified, true)));
	const secret = own && (await symmetricDecrypt({ key: config.secret, data: own.secret }));
	if (secret && (await createOTP(secret, TIME_CODE).verify(code))) return;
	await countTry(database, 'guess', personId);
	throw new Problem('invalid', WRONG_CODE, { field: 'timeCode' });
}

/** Uses a time code up, as far as its transaction does. Says whether it was good still: each is for once. */
export async function useTimeCode(db: Querier, personId: string, code: string, now: Date): Promise<boolean> {
	const used = await db
		.insert(usedCode)
		.values({ personId, codeHash: secretHash(`${personId}:${code}`), at: now })
		.onConflictDoNothing()
		.returning();
	return used.length > 0;
}
