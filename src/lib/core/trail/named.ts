/**
 * Details of events that name places other than the one an event happened at. Who reads the event may look at that
 * place, and perhaps not at these (rule A10).
 */
interface Named {
	/** The detail that holds the id of the place, or a list of ids. */
	id: string;
	/** The detail that says its name; none where only the id is kept. */
	name?: string;
}

const NAMED: Readonly<Record<string, readonly Named[]>> = {
	'folder.made': [{ id: 'inId', name: 'in' }],
	'folder.moved': [{ id: 'toId', name: 'to' }, { id: 'from' }],
	'document.moved': [{ id: 'toId', name: 'to' }, { id: 'from' }],
	'place.restored': [{ id: 'folderIds', name: 'folders' }]
};

type Details = Record<string, unknown>;

function idsIn(value: unknown): string[] {
	return Array.isArray(value) ? value.map(String) : typeof value === 'string' ? [value] : [];
}

/** Ids of the other places that an event's details name. */
export function placesNamed(kind: string, details: Details): string[] {
	return (NAMED[kind] ?? []).flatMap(({ id }) => idsIn(details[id]));
}

/**
 * The details of an event as somebody may read them: without the names and ids of places they may not look at. Older
 * events say a name without its id; then nobody can tell whether it may be read, and it is left out.
 * @param sees whether the reader may look at a place
 */
export function readableDetails(kind: string, details: Details, sees: (placeId: string) => boolean): Details {
	const named = NAMED[kind];
	if (!named) return details;
	const readable = { ...details };
	for (const { id, name } of named) {
		const ids = idsIn(details[id]);
		if (ids.length && ids.every(sees)) continue;
		delete readable[id];
		if (name) delete readable[name];
	}
	return readable;
}
