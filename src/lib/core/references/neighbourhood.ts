/** The neighbourhood of a document: what it names and what names it, and the same of these (two steps). */

/** A document names another one; both by their ids. */
export interface Names {
	from: string;
	to: string;
}

/** Where a document stands in the picture: −2 and −1 are who names it, 1 and 2 what it names; rows count from 0. */
export interface Placed {
	id: string;
	column: -2 | -1 | 0 | 1 | 2;
	row: number;
}

/** How far a neighbourhood goes. */
export const STEPS = 2;

/** So many documents stand in a column; of the rest it is said how many there are. */
export const MOST_IN_COLUMN = 14;

/** Steps from a document along references, each the least that leads there. */
function stepsFrom(centre: string, next: ReadonlyMap<string, readonly string[]>): Map<string, number> {
	const steps = new Map([[centre, 0]]);
	let edge = [centre];
	for (let step = 1; step <= STEPS; step++) {
		edge = edge.flatMap((id) => next.get(id) ?? []).filter((id) => !steps.has(id));
		for (const id of edge) steps.set(id, step);
	}
	steps.delete(centre);
	return steps;
}

/** What each leads to, by one end of the references. */
function byEnd(names: readonly Names[], end: keyof Names, other: keyof Names): Map<string, string[]> {
	const found = new Map<string, string[]>();
	for (const one of names) found.set(one[end], [...(found.get(one[end]) ?? []), one[other]]);
	return found;
}

/**
 * Places a document in the middle and its neighbourhood in columns beside it. What stands both before and behind it
 * stands where it is nearer, and behind it where that is the same. A column is in the order of the middle of what its
 * documents hang on (the barycentre of Sugiyama, Tagawa and Toda, 1981), so that lines cross little; then by name.
 * @param nameOf by what documents that hang on the same are put in order
 * @returns those that have room, and how many of each column have none
 */
export function neighbourhood(
	centre: string,
	names: readonly Names[],
	nameOf: (id: string) => string
): { placed: Placed[]; left: Partial<Record<Placed['column'], number>> } {
	const [out, into] = [byEnd(names, 'from', 'to'), byEnd(names, 'to', 'from')];
	const [behind, before] = [stepsFrom(centre, out), stepsFrom(centre, into)];
	const columns = new Map<Placed['column'], string[]>();
	for (const id of new Set([...behind.keys(), ...before.keys()])) {
		const [b, a] = [before.get(id) ?? Infinity, behind.get(id) ?? Infinity];
		const column = (a <= b ? a : -b) as Placed['column'];
		columns.set(column, [...(columns.get(column) ?? []), id]);
	}
	const rows = new Map([[centre, 0]]);
	const placed: Placed[] = [{ id: centre, column: 0, row: 0 }];
	const left: Partial<Record<Placed['column'], number>> = {};
	for (const column of [-1, 1, -2, 2] as const) {
		const nearer = column < 0 ? out : into;
		const middle = new Map(
			(columns.get(column) ?? []).map((id) => {
				const hangsOn = (nearer.get(id) ?? []).flatMap((other) => rows.get(other) ?? []);
				// What hangs on something that had no room goes last.
				return [id, hangsOn.length ? hangsOn.reduce((sum, row) => sum + row, 0) / hangsOn.length : Infinity];
			})
		);
		const inOrder = [...middle.keys()].sort((x, y) => {
			const [a, b] = [middle.get(x)!, middle.get(y)!];
			return (a === b ? 0 : a - b) || nameOf(x).localeCompare(nameOf(y));
		});
		const shown = inOrder.slice(0, MOST_IN_COLUMN);
		shown.forEach((id, row) => {
			rows.set(id, row);
			placed.push({ id, column, row });
		});
		if (inOrder.length > shown.length) left[column] = inOrder.length - shown.length;
	}
	return { placed, left };
}
