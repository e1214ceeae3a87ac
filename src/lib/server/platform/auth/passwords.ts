import { hash, verify } from '@node-rs/argon2';
import { passwordFault } from '../../../core/people/passwords';
import { Problem } from '../../../core/acts/problem';

/** argon2id with the memory and time that OWASP's password storage sheet names as its first choice (19 MiB, 2, 1). */
const OPTIONS = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export function hashPassword(password: string): Promise<string> {
	return hash(password.normalize('NFKC'), OPTIONS);
}

export function verifyPassword({
	hash: stored,
	password
}: {
	hash: string;
	password: string;
}): Promise<boolean> {
	return verify(stored, password.normalize('NFKC')).catch(() => false);
}

let common: Promise<ReadonlySet<string>> | null = null;

/** The passwords that are tried first, from a list that ships with the application. */
function commonPasswords(): Promise<ReadonlySet<string>> {
	common ??= import('@zxcvbn-ts/language-common').then(
		({ dictionary }) => new Set((dictionary['passwords-common'] as string[]).map((one) => one.toLowerCase()))
	);
	return common;
}

/** Raises `invalid` for a password that may not be used. */
export async function checkPassword(password: string, own: { email: string; name: string }): Promise<void> {
	const fault = passwordFault(password, await commonPasswords(), own);
	if (fault) throw new Problem('invalid', fault, { field: 'password' });
}
