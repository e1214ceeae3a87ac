import { count, eq } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import type { Database } from '../platform/db';
import { account, installation, person } from '../platform/db/schema';
import { newId, newSecret, secretHash } from '../platform/ids';
import { hashPassword } from '../platform/auth/passwords';

const KEY = 'first-controller-code';

/**
 * On an installation without people, makes the one-time code for the first document controller. Only its hash
 * is kept, so every start makes a new one. Gives null when there are people.
 */
export async function firstCode({ db }: Database): Promise<string | null> {
	const [row] = await db.select({ n: count() }).from(person);
	if (row!.n > 0) return null;
	const code = newSecret().slice(0, 12);
	const value = secretHash(code);
	await db
		.insert(installation)
		.values({ key: KEY, value })
		.onConflictDoUpdate({ target: installation.key, set: { value } });
	return code;
}

/** Whether the installation still waits for its first document controller. */
export async function waitsForFirst({ db }: Database): Promise<boolean> {
	const [row] = await db.select({ n: count() }).from(person);
	return row!.n === 0;
}

/** Makes the first person. Raises `invalid` for a wrong code, `conflict` when there is somebody already. */
export async function makeFirst(
	{ db }: Database,
	code: string,
	who: { name: string; email: string; password: string }
): Promise<void> {
	const password = await hashPassword(who.password);
	await db.transaction(async (tx) => {
		const [kept] = await tx.select().from(installation).where(eq(installation.key, KEY)).for('update');
		const [row] = await tx.select({ n: count() }).from(person);
		if (row!.n > 0) throw new Problem('conflict', 'The first document controller exists already. Sign in.');
		if (!kept || kept.value !== secretHash(code.trim()))
			throw new Problem(
				'invalid',
				'The code is not right. It stands on the console where Cupboard was started.'
			);
		const id = newId();
		await tx.insert(person).values({ id, name: who.name, email: who.email, emailVerified: true });
		await tx
			.insert(account)
			.values({ id: newId(), accountId: id, providerId: 'credential', userId: id, password });
		await tx.delete(installation).where(eq(installation.key, KEY));
	});
}
