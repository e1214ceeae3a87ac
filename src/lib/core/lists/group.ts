/** What shares a key, together, under each key in the order in which it first comes; what is grouped keeps its order. */
export function groupedBy<Key, One>(all: Iterable<One>, key: (one: One) => Key): Map<Key, One[]> {
	const groups = new Map<Key, One[]>();
	for (const one of all) {
		const k = key(one);
		const group = groups.get(k);
		if (group) group.push(one);
		else groups.set(k, [one]);
	}
	return groups;
}
