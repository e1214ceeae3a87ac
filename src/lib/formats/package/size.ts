import { unzipSync } from 'fflate';
import { isCompound } from './compound';
import { Unreadable } from './fault';

/** Most bytes that are unpacked from one office file; more is a bomb or not for reading here. */
const MOST_UNPACKED = 300e6;
/** What is said of an office file that asks for a password. */
export const LOCKED =
	'This file is locked with a password. Unlock it in its own program and hand it in anew.';

/** Raises {@link Unreadable} for an office file that is locked, or would be too large when it is unpacked. */
export function checkPackage(bytes: Uint8Array): void {
	if (isCompound(bytes)) throw new Unreadable(LOCKED);
	let size = 0;
	unzipSync(bytes, {
		filter(file) {
			size += file.originalSize;
			if (size > MOST_UNPACKED) throw new Unreadable('Unpacked, this file is too large to show here.');
			return false;
		}
	});
}
