/** What begins every name under which a browser keeps live documents for when the line is down. */
export const KEPT = 'cupboard-live';

/** Forgets everything that this browser keeps of live documents; for signing out. */
export async function forgetKept(): Promise<void> {
	for (const key of Object.keys(localStorage)) if (key.startsWith(KEPT)) localStorage.removeItem(key);
	for (const { name } of (await indexedDB.databases?.()) ?? [])
		if (name?.startsWith(KEPT)) indexedDB.deleteDatabase(name);
}
