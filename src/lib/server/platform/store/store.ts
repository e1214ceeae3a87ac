import type { Readable } from 'node:stream';

/** What the store knows of an object after taking it in. */
export interface Stored {
	/** SHA-256 in hex. */
	hash: string;
	/** Bytes. */
	size: number;
}

/** Raised while taking in a stream that grows over its limit. */
export class TooLarge extends Error {
	constructor(readonly limit: number) {
		super(`larger than ${limit} bytes`);
	}
}

/**
 * Content by its SHA-256 hash (rule L8). An object is either whole or not there: it appears under its hash
 * only after every byte is on disk. Objects are never changed.
 */
export interface Store {
	/**
	 * Takes in a stream, hashing as it goes, and keeps it under its hash.
	 * @param limit most bytes to accept; raises {@link TooLarge} past it
	 */
	put(source: AsyncIterable<Uint8Array>, limit: number): Promise<Stored>;
	/** Takes over a file of this machine whose bytes have this hash; the file is gone from its place then. */
	adopt(path: string, hash: string): Promise<void>;
	has(hash: string): Promise<boolean>;
	/** Reads an object, or a part of it (`end` inclusive). Raises ENOENT when it is not there. */
	read(hash: string, range?: { start: number; end: number }): Readable;
	/** A path on this machine under which the object can be opened by other programs. */
	localPath(hash: string): Promise<string>;
	/** Hashes the stored bytes again; false when they are gone or differ. */
	holds(hash: string): Promise<boolean>;
	remove(hash: string): Promise<void>;
	/** Every hash kept, in no order. */
	list(): AsyncIterable<string>;
}
