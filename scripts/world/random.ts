/** A small generator with a seed (mulberry32), so that the world comes out the same each time. */
export class Random {
	private state: number;

	constructor(seed: number | string) {
		this.state =
			typeof seed === 'number'
				? seed
				: [...seed].reduce((h, c) => Math.imul(h ^ c.charCodeAt(0), 16777619), 2166136261);
	}

	/** The next number from 0 up to 1. */
	next(): number {
		this.state = (this.state + 0x6d2b79f5) | 0;
		let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	}

	int(from: number, to: number): number {
		return from + Math.floor(this.next() * (to - from + 1));
	}

	pick<T>(list: readonly T[]): T {
		return list[Math.floor(this.next() * list.length)]!;
	}

	chance(p: number): boolean {
		return this.next() < p;
	}
}
