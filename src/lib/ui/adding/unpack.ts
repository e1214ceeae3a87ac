import { BlobReader, BlobWriter, configure, ZipReader, type FileEntry } from '@zip.js/zip.js';
import { isLitter, type Batch, type Gathered } from './files';

/** Most files that one archive is unpacked into, most bytes of them together, and most times an entry may grow. */
const MOST_FILES = 2_000;
const MOST_BYTES = 4e9;
const MOST_GROWTH = 200;

/** An archive that is not unpacked, with the sentence why. */
export class UnpackError extends Error {
	override name = 'UnpackError';
}

/**
 * Unpacks a zip archive in the browser into the files and folders it holds, one after the other.
 * @param progress told how many of how many files are done
 * Raises {@link UnpackError} for archives that are damaged, locked, or larger unpacked than is good.
 */
export async function unpack(file: File, progress: (done: number, all: number) => void): Promise<Batch> {
	// Workers of the library come from blob addresses, which the pages' policy refuses; the browser's own unpacking is quick.
	configure({ useWebWorkers: false });
	const zip = new ZipReader(new BlobReader(file));
	try {
		const all = await zip.getEntries().catch(() => {
			throw new UnpackError('The archive is damaged and does not open.');
		});
		const entries = all.filter((e): e is FileEntry => !e.directory);
		const wanted = entries.filter((e) => !isLitter(nameOf(e)) && !e.filename.startsWith('__MACOSX/'));
		refuse(file, wanted);
		const files: Gathered[] = [];
		for (const entry of wanted) {
			// The archive says how large an entry is; one that lies breaks off when it grows past that.
			const blob = await entry.getData(new BlobWriter(), { checkSignature: true }).catch(() => {
				throw new UnpackError(`“${entry.filename}” in the archive is damaged.`);
			});
			if (blob.size !== entry.uncompressedSize)
				throw new UnpackError(`“${entry.filename}” is not as large as the archive says.`);
			files.push({
				file: new File([blob], nameOf(entry), { lastModified: entry.lastModDate.getTime() }),
				folders: foldersOf(entry)
			});
			progress(files.length, wanted.length);
		}
		const folders = all.filter((e) => e.directory).map((e) => stepsOf(e.filename));
		return { files, empty: emptyAmong(folders, files) };
	} finally {
		await zip.close();
	}
}

function refuse(file: File, entries: FileEntry[]): void {
	if (!entries.length) throw new UnpackError('The archive holds no files.');
	if (entries.length > MOST_FILES)
		throw new UnpackError(
			`The archive holds ${entries.length} files; at most ${MOST_FILES} are unpacked at a time.`
		);
	if (entries.some((e) => e.encrypted))
		throw new UnpackError('The archive is locked with a password. Unpack it yourself, or add it as it is.');
	const bytes = entries.reduce((sum, e) => sum + e.uncompressedSize, 0);
	if (bytes > MOST_BYTES || bytes > file.size * MOST_GROWTH)
		throw new UnpackError('Unpacked, the archive would be far larger than it should be. Add it as it is.');
}

/** Of folders that an archive names, those that hold neither a file nor another folder. */
function emptyAmong(folders: string[][], files: Gathered[]): string[][] {
	const within = (inner: string[], outer: string[]) => outer.every((step, i) => inner[i] === step);
	return folders.filter(
		(one) =>
			one[0] !== '__MACOSX' &&
			!files.some((f) => within(f.folders, one)) &&
			!folders.some((other) => other.length > one.length && within(other, one))
	);
}

const stepsOf = (way: string) => way.split(/[/\\]/).filter((s) => s && s !== '.' && s !== '..');
const nameOf = (entry: FileEntry) => stepsOf(entry.filename).at(-1) ?? 'file';
const foldersOf = (entry: FileEntry) => stepsOf(entry.filename).slice(0, -1);
