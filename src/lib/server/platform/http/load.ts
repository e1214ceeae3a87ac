import { Problem } from '../../../core/acts/problem';

/** Most requests with a body, and most lines that stay open, of one network address and of one person at a time. */
const MOST = { body: { address: 100, person: 60 }, line: { address: 200, person: 40 } } as const;
/** How often memory is looked at, in milliseconds. */
const LOOK = 250;
/** Above the mark by this much, nobody is let in any more. */
const ALL_OUT = 1.5;

/** What is going on in this process at a time, so that nobody alone can fill it. */
class Load {
	private readonly open = new Map<string, number>();
	private looked = 0;
	private resident = 0;

	/**
	 * Counts something that goes on for a while; gives the function that ends it. Raises `too-many` when an address or a
	 * person has too many of it.
	 */
	begin(what: keyof typeof MOST, address: string, person: string | null): () => void {
		const keys: [string, number][] = [[`${what}:a:${address}`, MOST[what].address]];
		if (person) keys.push([`${what}:p:${person}`, MOST[what].person]);
		if (keys.some(([key, most]) => (this.open.get(key) ?? 0) >= most))
			throw new Problem('too-many', 'Too much is open at a time. Close some pages, then try again.');
		for (const [key] of keys) this.open.set(key, (this.open.get(key) ?? 0) + 1);
		let ended = false;
		return () => {
			if (ended) return;
			ended = true;
			for (const [key] of keys) {
				const left = (this.open.get(key) ?? 1) - 1;
				if (left) this.open.set(key, left);
				else this.open.delete(key);
			}
		};
	}

	/** Raises `busy` when the memory of the process is above the mark (in MB): those who are not signed in first. */
	checkMemory(mark: number, signedIn: boolean): void {
		const now = Date.now();
		if (now - this.looked > LOOK) {
			this.looked = now;
			this.resident = process.memoryUsage.rss() / 1e6;
		}
		if (this.resident > (signedIn ? mark * ALL_OUT : mark))
			throw new Problem('busy', 'The server has its hands full. Try again in a moment.', { seconds: 10 });
	}
}

/** One for the process. */
export const load = new Load();
