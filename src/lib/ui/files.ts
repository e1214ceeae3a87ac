/** Kind of data that rows of a list carry while they are dragged: the ids of documents as JSON. */
export const ROWS_DRAGGED = 'application/x-cupboard-documents';

/** A file to be added, with the folders it lay in when a whole folder was chosen or dropped. */
export interface Gathered {
	file: File;
	folders: string[];
}

/** Files that systems leave behind in folders; nobody means to add them. */
const LITTER = /^(\.DS_Store|Thumbs\.db|desktop\.ini|~\$.*|\.~lock\..*)$/i;

export const isLitter = (name: string) => LITTER.test(name);

/** Files from a file field; a folder field tells each file's way. */
export function gatherChosen(list: FileList): Gathered[] {
	return [...list]
		.map((file) => ({
			file,
			folders: file.webkitRelativePath ? file.webkitRelativePath.split('/').slice(0, -1) : []
		}))
		.filter(({ file }) => !isLitter(file.name));
}

/** Files from a drop, walking into dropped folders. */
export async function gatherDropped(transfer: DataTransfer): Promise<Gathered[]> {
	const entries = [...transfer.items]
		.map((item) => item.webkitGetAsEntry())
		.filter((e): e is FileSystemEntry => e !== null);
	const found: Gathered[] = [];
	const walk = async (entry: FileSystemEntry, folders: string[]): Promise<void> => {
		if (entry.isFile) {
			const file = await new Promise<File>((resolve, reject) =>
				(entry as FileSystemFileEntry).file(resolve, reject)
			);
			if (!isLitter(file.name)) found.push({ file, folders });
			return;
		}
		const reader = (entry as FileSystemDirectoryEntry).createReader();
		for (;;) {
			// A reader gives at most a hundred entries at a time.
			const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
				reader.readEntries(resolve, reject)
			);
			if (!some.length) return;
			for (const one of some) await walk(one, [...folders, entry.name]);
		}
	};
	for (const entry of entries) await walk(entry, []);
	return found;
}

/** Has the browser keep what was made here as a file. */
export function saveFile(content: Uint8Array | string, name: string, type: string): void {
	const link = document.createElement('a');
	link.href = URL.createObjectURL(new Blob([content as BlobPart], { type }));
	link.download = name;
	link.click();
	// Not at once: the browser may not have begun to read it.
	setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
