/** What the trail says since an entry: where it ends now, and whether something came that concerns what was read. */
export interface Since {
	seq: number;
	changed: boolean;
}

/**
 * What was read at one entry of a project's trail, kept for as long as nothing that concerns it came after. Every change
 * is an entry, written with it, so what is kept is either right or not used.
 */
export class KeptByTrail<T> {
	private readonly kept = new Map<string, { seq: number; value: T }>();
	/** What is just being read, with the entry that it holds at least. */
	private readonly reading = new Map<string, { seq: number; value: Promise<T> }>();

	/** @param most projects for which something is kept; the one that was read longest ago goes first */
	constructor(private readonly most: number) {}

	/**
	 * What holds now.
	 * @param since tells what came after an entry; asked before anything is read
	 * @param read reads it all
	 */
	async get(key: string, since: (seq: number) => Promise<Since>, read: () => Promise<T>): Promise<T> {
		const known = this.kept.get(key);
		const { seq, changed } = await since(known?.seq ?? 0);
		if (known && !changed) {
			known.seq = Math.max(known.seq, seq);
			return known.value;
		}
		// Everybody who looks hears of a change at once: what one of them reads serves the others.
		const under = this.reading.get(key);
		if (under && under.seq >= seq) return under.value;
		const value = read();
		this.reading.set(key, { seq, value });
		try {
			const done = await value;
			this.keep(key, seq, done);
			return done;
		} finally {
			if (this.reading.get(key)?.value === value) this.reading.delete(key);
		}
	}

	/** What took long to read may be older than what was read meanwhile. */
	private keep(key: string, seq: number, value: T): void {
		const other = this.kept.get(key);
		if (other && other.seq > seq) return;
		this.kept.delete(key);
		this.kept.set(key, { seq, value });
		if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value!);
	}
}
