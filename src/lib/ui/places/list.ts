import type { DocumentRow } from '../../core/documents/rows';

export type SortKey = 'number' | 'title' | 'label' | 'now' | 'changed' | 'kind' | 'size';

/** A folder as a line of the folder that it lies in. */
export interface FolderRow {
	id: string;
	name: string;
	documents: number;
	closed: boolean;
	frozen: boolean;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

const VALUE: Record<SortKey, (row: DocumentRow) => string | number> = {
	number: (r) => r.number,
	title: (r) => r.title,
	label: (r) => r.label,
	now: (r) =>
		r.lock ? `a${r.lock.holder}` : r.inRelease ? `b${r.inRelease}` : r.withClient ? `c${r.withClient}` : 'd',
	changed: (r) => r.changedAt,
	kind: (r) => r.mediaType,
	size: (r) => r.size
};

const wordsOf = (filter: string) => filter.toLowerCase().split(/\s+/).filter(Boolean);

/** Folders whose name holds every word of the filter, by name. */
export function sortFolders(folders: readonly FolderRow[], filter: string, down: boolean): FolderRow[] {
	const words = wordsOf(filter);
	return folders
		.filter((f) => words.every((word) => f.name.toLowerCase().includes(word)))
		.sort((a, b) => (down ? -1 : 1) * collator.compare(a.name, b.name));
}

/** Rows that hold every word of the filter in number, title, revision or holder, in the order asked; ties by number. */
export function sortRows(
	rows: readonly DocumentRow[],
	filter: string,
	key: SortKey,
	down: boolean
): DocumentRow[] {
	const words = wordsOf(filter);
	const fitting = words.length
		? rows.filter((row) => {
				const text =
					`${row.number} ${row.title} ${row.tags.join(' ')} ${row.label} ${row.lock ? `${row.lock.holder} in hand` : ''}`.toLowerCase();
				return words.every((word) => text.includes(word));
			})
		: [...rows];
	const value = VALUE[key];
	const sign = down ? -1 : 1;
	return fitting.sort((a, b) => {
		const x = value(a);
		const y = value(b);
		const order =
			typeof x === 'number' && typeof y === 'number'
				? x - y
				: key === 'changed'
					? x < y
						? -1
						: x > y
							? 1
							: 0
					: collator.compare(String(x), String(y));
		return sign * order || collator.compare(a.number, b.number);
	});
}
