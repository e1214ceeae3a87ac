import { unzipSync } from 'fflate';
import { Unreadable } from './fault';

/** Most bytes that are unpacked from one office file; more is a bomb or not for reading here. */
const MOST_UNPACKED = 300e6;
/** What files of an office begin with when they are locked with a password: a compound file (MS-CFB, 2.2). */
const COMPOUND = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/** Whether bytes are a compound file: an office file that is locked, or one of the kinds before 2007. */
export const isCompound = (bytes: Uint8Array): boolean => COMPOUND.every((byte, i) => bytes[i] === byte);

/** Raises {@link Unreadable} for an office file that is locked, or would be too large when it is unpacked. */
export function checkPackage(bytes: Uint8Array): void {
	if (isCompound(bytes))
		throw new Unreadable(
			'This file is locked with a password. Unlock it in its own program and hand it in anew.'
		);
	let size = 0;
	unzipSync(bytes, {
		filter(file) {
			size += file.originalSize;
			if (size > MOST_UNPACKED) throw new Unreadable('Unpacked, this file is too large to show here.');
			return false;
		}
	});
}
