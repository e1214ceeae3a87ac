import type { Readable } from 'node:stream';
import yauzl from 'yauzl';
import { Problem } from '../../core/acts/problem';

/** A file inside an archive. */
export interface ArchiveEntry {
	name: string;
	/** Bytes when unpacked, as the archive says. */
	size: number;
	locked: boolean;
}

/** Most entries of a table of contents that are read. */
const MOST_CHECKED = 100_000;
/** Most entries that are listed, and most bytes of one that are unpacked. */
const MOST_LISTED = 5_000;
const MOST_UNPACKED = 200e6;

const DAMAGED = () => new Problem('invalid', 'The archive is damaged and does not open.');

function open(path: string): Promise<yauzl.ZipFile> {
	return new Promise((done, failed) =>
		yauzl.open(path, { lazyEntries: true, validateEntrySizes: true }, (error, zip) =>
			error ? failed(DAMAGED()) : done(zip)
		)
	);
}

/** Walks the entries until `each` says that it has seen enough. */
function walk(zip: yauzl.ZipFile, each: (entry: yauzl.Entry) => boolean): Promise<void> {
	return new Promise((done, failed) => {
		zip.on('entry', (entry: yauzl.Entry) => (each(entry) ? done() : zip.readEntry()));
		zip.on('end', done);
		zip.on('error', () => failed(DAMAGED()));
		zip.readEntry();
	});
}

/** Reads the table of contents of an archive. Raises `invalid` when it is damaged. */
export async function checkArchive(path: string): Promise<void> {
	const zip = await open(path);
	let count = 0;
	try {
		await walk(zip, () => ++count > MOST_CHECKED);
	} finally {
		zip.close();
	}
}

/** The files in a stored archive by its own table of contents. Raises `invalid` when it is damaged. */
export async function listArchive(path: string): Promise<{ entries: ArchiveEntry[]; more: boolean }> {
	const zip = await open(path);
	const entries: ArchiveEntry[] = [];
	let more = false;
	try {
		await walk(zip, (entry) => {
			if (entry.fileName.endsWith('/')) return false;
			if (entries.length === MOST_LISTED) return (more = true);
			const locked = (entry.generalPurposeBitFlag & 1) === 1;
			entries.push({ name: entry.fileName, size: entry.uncompressedSize, locked });
			return false;
		});
	} finally {
		zip.close();
	}
	return { entries, more };
}

/**
 * Unpacks one file of an archive as a stream. Raises `not-found` when there is no such file, `too-large` past the
 * limit and `invalid` when it is locked or damaged.
 */
export async function openEntry(path: string, name: string): Promise<{ size: number; stream: Readable }> {
	const zip = await open(path);
	let found: yauzl.Entry | undefined;
	try {
		await walk(zip, (entry) => {
			if (entry.fileName !== name || name.endsWith('/')) return false;
			found = entry;
			return true;
		});
		if (!found) throw new Problem('not-found', 'The archive holds no such file.');
		if (found.generalPurposeBitFlag & 1)
			throw new Problem('invalid', 'This file in the archive is locked with a password.');
		if (found.uncompressedSize > MOST_UNPACKED)
			throw new Problem('too-large', 'This file in the archive is too large to open here.');
		const entry = found;
		const stream = await new Promise<Readable>((done, failed) =>
			zip.openReadStream(entry, (error, made) => (error ? failed(DAMAGED()) : done(made)))
		);
		// Sizes are checked while unpacking; an archive that lies breaks off.
		stream.once('close', () => zip.close());
		return { size: found.uncompressedSize, stream };
	} catch (error) {
		zip.close();
		throw error;
	}
}
