/** So many rows come with each page after the first. */
const AT_ONCE = 1_000;

/**
 * The rows of a long list that are here: the first page, which comes anew whenever something changed, and those after it,
 * which were asked for as somebody scrolled. When the first page is another one of the same list, the rest is asked for
 * again and stands until then, so that nobody loses their place; a list that is narrowed otherwise begins anew.
 */
export class Pages<Row extends { id: string }> {
	private first = $state.raw<readonly Row[]>([]);
	private further = $state.raw<readonly Row[]>([]);
	private total = $state(0);
	private list = '';
	/** Counts what was asked for, so that an answer that comes late is known to be. */
	private asked = 0;
	private underWay = false;

	/**
	 * @param ask gives rows after so many others, at most so many; null where that fails
	 * @param begin the first page, when it is there already; see {@link take}
	 */
	constructor(
		private readonly ask: (skip: number, limit: number) => Promise<readonly Row[] | null>,
		begin?: { rows: readonly Row[]; total: number; list: string }
	) {
		if (begin) [this.first, this.total, this.list] = [begin.rows, begin.total, begin.list];
	}

	/** The rows, each once: between two answers one can have moved from a page to the next. */
	readonly rows = $derived.by(() => {
		const there = new Set(this.first.map((row) => row.id));
		return [...this.first, ...this.further.filter((row) => !there.has(row.id))];
	});

	/** Takes in the first page. @param list tells one narrowing from another */
	async take(first: readonly Row[], total: number, list: string): Promise<void> {
		const same = list === this.list;
		[this.first, this.total, this.list] = [first, total, list];
		const now = ++this.asked;
		this.underWay = false;
		const before = this.further.length;
		if (!same || before === 0) {
			this.further = [];
			return;
		}
		const again: Row[] = [];
		while (again.length < before && first.length + again.length < total) {
			const part = await this.ask(first.length + again.length, Math.min(AT_ONCE, before - again.length));
			if (now !== this.asked || !part?.length) return;
			again.push(...part);
		}
		this.further = again;
	}

	/** Asks for the next rows, where there are more; once at a time. */
	async more(): Promise<void> {
		const here = this.first.length + this.further.length;
		if (this.underWay || here >= this.total) return;
		this.underWay = true;
		const now = ++this.asked;
		const part = await this.ask(here, AT_ONCE);
		if (now !== this.asked) return;
		this.underWay = false;
		if (part) this.further = [...this.further, ...part];
	}

	/** Asks for all that are left. @returns the rows; null when they could not all be had, or the list became another */
	async all(): Promise<readonly Row[] | null> {
		const { list } = this;
		while (this.first.length + this.further.length < this.total) {
			const before = this.further.length;
			await this.more();
			if (this.list !== list || this.further.length === before) return null;
		}
		return this.rows;
	}
}
