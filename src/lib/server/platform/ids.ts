import { createHash, randomBytes } from 'node:crypto';
import { customAlphabet } from 'nanoid';
import { ID_LENGTH } from '../../core/acts/ids';

/** Makes an id of ten characters (about 50 bits): short enough for an address, too many to guess through. */
export const newId = customAlphabet('23456789abcdefghjkmnpqrstuvwxyz', ID_LENGTH);

/** A secret for a link or token, 192 bits, as base64url. */
export function newSecret(): string {
	return randomBytes(24).toString('base64url');
}

/** How secrets are kept: their SHA-256 (they are long and random, so no slow hash is needed). */
export function secretHash(secret: string): string {
	return createHash('sha256').update(secret).digest('hex');
}
