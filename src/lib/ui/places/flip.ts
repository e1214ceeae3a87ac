import { cupboard } from '../../client/cupboard';

const KEY = 'cupboard-list';

interface Remembered {
	place: string;
	ids: string[];
}

/** Keeps the order in which documents of a folder were last listed, for going from one to the next. */
export function rememberList(place: string, ids: string[]): void {
	try {
		sessionStorage.setItem(KEY, JSON.stringify({ place, ids } satisfies Remembered));
	} catch {
		// A list too long for the browser to keep is asked for again when it is needed.
		sessionStorage.removeItem(KEY);
	}
}

/** Where a document stands among the others. */
export interface Flip {
	before: string | null;
	after: string | null;
	/** Counted from one. */
	at: number;
	of: number;
}

/**
 * The documents before and after one: in the list one came from, sorted and filtered as it was, or else in its folder
 * by number. Null when the document stands alone.
 */
export async function flipFrom(document: string, folder: string): Promise<Flip | null> {
	const ids = remembered(folder, document) ?? (await listed(folder));
	const at = ids.indexOf(document);
	if (at < 0 || ids.length < 2) return null;
	return { before: ids[at - 1] ?? null, after: ids[at + 1] ?? null, at: at + 1, of: ids.length };
}

function remembered(folder: string, document: string): string[] | null {
	const kept = JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as Remembered | null;
	return kept?.place === folder && kept.ids.includes(document) ? kept.ids : null;
}

/** Most documents of a folder that are gone through without having listed it. */
const MOST_LISTED = 5_000;

async function listed(folder: string): Promise<string[]> {
	const { rows } = await cupboard.documentsIn({ place: folder, limit: MOST_LISTED });
	const ids = rows.map((r) => r.id);
	rememberList(folder, ids);
	return ids;
}
