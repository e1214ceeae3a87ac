import { hash, verify } from '@node-rs/argon2';

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
