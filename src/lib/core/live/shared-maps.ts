import * as Y from 'yjs';

/** Something that is kept as a map of its properties within a shared map. */
export type Kept = Y.Map<unknown>;

const differ = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);

/** Changes a shared map to hold what another holds, touching only what differs. */
export function rewriteMap<T>(now: Y.Map<T>, then: Y.Map<T>): void {
	for (const key of [...now.keys()]) if (!then.has(key)) now.delete(key);
	for (const [key, value] of then) if (differ(now.get(key), value)) now.set(key, value);
}

/** Changes a shared map of maps to hold what another holds, touching only what differs. */
export function rewriteMaps(now: Y.Map<Kept>, then: Y.Map<Kept>): void {
	for (const id of [...now.keys()]) if (!then.has(id)) now.delete(id);
	for (const [id, wanted] of then) {
		const kept = now.get(id);
		if (kept instanceof Y.Map) rewriteMap(kept, wanted);
		else now.set(id, new Y.Map([...wanted]));
	}
}
