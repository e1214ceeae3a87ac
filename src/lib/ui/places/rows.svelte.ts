import type { DocumentRow as Row } from '../../core/documents/rows';

/** Some documents, and the number to ask on with when there are more. */
type Page = { rows: readonly Row[]; next?: string | undefined };

/**
 * The documents of the folder that is open. The first of them come with the page, and again whenever something changed;
 * the others are asked for then, and those that were here stand until they have come, so that nobody loses their place.
 */
export class FolderRows {
	/** Each document once, by number. */
	rows = $state.raw<readonly Row[]>([]);
	private place = '';
	/** What came one by one while the others were asked for: newer than what those answers say; null for what left. */
	private since = new Map<string, Row | null>();
	private coming: Promise<boolean> = Promise.resolve(true);

	/** @param ask gives the documents of a place after a number; null where that fails */
	constructor(private readonly ask: (place: string, after: string) => Promise<Page | null>) {}

	/**
	 * Takes in the first documents of a folder.
	 * @param count how many it has
	 * @returns whether they have all come; false when some cannot be had, or the folder is another one meanwhile
	 */
	take(place: string, first: readonly Row[], count: number): Promise<boolean> {
		const stood = place === this.place ? this.rows.slice(first.length) : [];
		this.place = place;
		this.since = new Map();
		const last = first.at(-1);
		if (!last || count <= first.length) {
			this.rows = first;
			this.coming = Promise.resolve(true);
		} else {
			this.rows = joined(first, stood);
			this.coming = this.rest(first, last.number, stood.length > 0);
		}
		return this.coming;
	}

	/** Waits for the documents that are still to come, also when they are asked for again meanwhile. @returns as {@link take} does */
	async all(): Promise<boolean> {
		const { place } = this;
		for (;;) {
			const { coming } = this;
			const came = await coming;
			if (place !== this.place) return false;
			if (coming === this.coming) return came;
		}
	}

	/** Takes in one document that changed or came. */
	put(row: Row): void {
		this.since.set(row.id, row);
		this.rows = withChanges(this.rows, new Map([[row.id, row]]));
	}

	/** Forgets one that is gone. */
	drop(id: string): void {
		this.since.set(id, null);
		this.rows = this.rows.filter((row) => row.id !== id);
	}

	private async rest(first: readonly Row[], last: string, stands: boolean): Promise<boolean> {
		const { place, since } = this;
		let fresh = first;
		for (let after: string | undefined = last; after !== undefined;) {
			const page: Page | null = await this.ask(place, after);
			if (since !== this.since) return false;
			if (!page) return false;
			fresh = joined(fresh, page.rows);
			after = page.rows.length ? page.next : undefined;
			// Where others stand meanwhile they stay until all have come.
			if (!stands || after === undefined) this.rows = withChanges(fresh, since);
		}
		return true;
	}
}

/** Two lists as one, each document once. */
function joined(one: readonly Row[], other: readonly Row[]): readonly Row[] {
	const there = new Set(one.map((row) => row.id));
	return [...one, ...other.filter((row) => !there.has(row.id))];
}

/** Rows with some of them newer, some gone, and what is new at the end. */
function withChanges(rows: readonly Row[], changes: ReadonlyMap<string, Row | null>): readonly Row[] {
	if (!changes.size) return rows;
	const kept = rows.flatMap((row) => (changes.has(row.id) ? (changes.get(row.id) ?? []) : row));
	return joined(
		kept,
		[...changes.values()].filter((row) => row !== null)
	);
}
