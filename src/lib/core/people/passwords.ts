/** Shortest and longest password, in characters. */
export const LEAST_PASSWORD = 10;
export const MOST_PASSWORD = 200;

/**
 * What is wrong with a password, in a sentence; null when it may be used. By length, by a list of common ones, and by
 * what is known of its owner (NIST SP 800-63B, 5.1.1.2); no rules about kinds of characters.
 *
 * @param common passwords that many use, in lower case
 * @param own the owner's mail address and name
 */
export function passwordFault(
	password: string,
	common: ReadonlySet<string>,
	own: { email: string; name: string }
): string | null {
	if (password.length < LEAST_PASSWORD) return `A password has at least ${LEAST_PASSWORD} characters.`;
	if (password.length > MOST_PASSWORD) return `A password has at most ${MOST_PASSWORD} characters.`;
	const plain = password.normalize('NFKC').toLowerCase();
	// With figures and marks put around it, a common password stays one.
	const bare = plain.replace(/^[\W\d_]+|[\W\d_]+$/g, '');
	if (common.has(plain) || (bare.length > 0 && bare.length < LEAST_PASSWORD && common.has(bare)))
		return 'This password is among those that are tried first. Choose another, for example four words that do not belong together.';
	if (new Set(plain).size < 4) return 'This password repeats the same few characters. Choose another.';
	const email = own.email.toLowerCase();
	const [local = ''] = email.split('@');
	const names = own.name.toLowerCase().split(/\s+/);
	if (plain.includes(email) || [local, names.join('')].some((word) => word.length >= 4 && bare === word))
		return 'Your own address or name is no password. Choose another.';
	return null;
}
