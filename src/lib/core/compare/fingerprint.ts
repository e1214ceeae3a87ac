/** Two odd numbers without small factors, one for each half. */
const [FIRST, SECOND] = [0x9e3779b1, 0x5f356495];

/** The last mixing of a half (MurmurHash3 by A. Appleby, fmix32): each bit depends on every other. */
function settled(half: number): number {
	let h = half;
	h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
	h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
	return (h ^ (h >>> 16)) >>> 0;
}

/**
 * A number of 53 bits that stands for a long reading, so that hundreds of thousands can be compared and handed from one
 * worker to another. By chance two different readings come to one number once in 9 × 10^15 times; which two would
 * depends on the seed, which is thrown for each comparison.
 */
export class Fingerprint {
	private first = 0;
	private second = 0;

	/** @param seed a whole number below 2^32 */
	constructor(private readonly seed: number) {}

	begin(): void {
		this.first = this.seed ^ FIRST;
		this.second = Math.imul(this.seed, SECOND) ^ FIRST;
	}

	/** A whole number below 2^32: where one text ends and the next begins, for one. */
	number(value: number): void {
		this.first = Math.imul(this.first ^ value, FIRST);
		this.second = Math.imul((this.second << 13) | (this.second >>> 19), SECOND) ^ value;
	}

	text(text: string): void {
		let { first, second } = this;
		for (let i = 0; i < text.length; i++) {
			const value = text.charCodeAt(i);
			first = Math.imul(first ^ value, FIRST);
			second = Math.imul((second << 13) | (second >>> 19), SECOND) ^ value;
		}
		this.first = first;
		this.second = second;
	}

	/** The number for what was taken since it began. */
	get value(): number {
		return (settled(this.first) & 0x1fffff) * 2 ** 32 + settled(this.second ^ this.first);
	}
}
