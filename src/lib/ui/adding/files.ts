/** Kind of data that rows of a list carry while they are dragged: the ids of documents as JSON. */
export const ROWS_DRAGGED = 'application/x-cupboard-documents';

/** A file to be added, with the folders it lay in when a whole folder was chosen or dropped. */
export interface Gathered {
	file: File;
	folders: string[];
}

/** What was chosen or dropped at one time. */
export interface Batch {
	files: Gathered[];
	/** Ways to folders that hold nothing to be added, and are made all the same. */
	empty: string[][];
}

/** Files that systems leave behind in folders; nobody means to add them. */
const LITTER = /^(\.DS_Store|Thumbs\.db|desktop\.ini|~\$.*|\.~lock\..*)$/i;

export const isLitter = (name: string) => LITTER.test(name);

/** Files from a file field; a folder field tells each file's way, and keeps empty folders to itself. */
export function gatherChosen(list: FileList): Batch {
	const files = [...list]
		.map((file) => ({
			file,
			folders: file.webkitRelativePath ? file.webkitRelativePath.split('/').slice(0, -1) : []
		}))
		.filter(({ file }) => !isLitter(file.name));
	return { files, empty: [] };
}

/** Files and empty folders from a drop, walking into dropped folders. */
export async function gatherDropped(transfer: DataTransfer): Promise<Batch> {
	const entries = [...transfer.items]
		.map((item) => item.webkitGetAsEntry())
		.filter((e): e is FileSystemEntry => e !== null);
	const files: Gathered[] = [];
	const empty: string[][] = [];
	const walk = async (entry: FileSystemEntry, folders: string[]): Promise<void> => {
		if (entry.isFile) {
			const file = await new Promise<File>((resolve, reject) =>
				(entry as FileSystemFileEntry).file(resolve, reject)
			);
			if (!isLitter(file.name)) files.push({ file, folders });
			return;
		}
		const reader = (entry as FileSystemDirectoryEntry).createReader();
		const within = [...folders, entry.name];
		const before = files.length + empty.length;
		for (;;) {
			// A reader gives at most a hundred entries at a time.
			const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
				reader.readEntries(resolve, reject)
			);
			if (!some.length) break;
			for (const one of some) await walk(one, within);
		}
		if (files.length + empty.length === before) empty.push(within);
	};
	for (const entry of entries) await walk(entry, []);
	return { files, empty };
}
