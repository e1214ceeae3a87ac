import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Fingerprint } from './fingerprint';

function of(seed: number, ...parts: (string | number)[]): number {
	const print = new Fingerprint(seed);
	print.begin();
	for (const part of parts)
		if (typeof part === 'number') print.number(part);
		else print.text(part);
	return print.value;
}
const seeds = fc.integer({ min: 0, max: 2 ** 32 - 1 });

describe('a fingerprint', () => {
	it('is the same for what reads the same, however it comes, and a whole number', () => {
		fc.assert(
			fc.property(seeds, fc.string(), fc.string(), (seed, a, b) => {
				expect(of(seed, a, b)).toBe(of(seed, a + b));
				expect(Number.isSafeInteger(of(seed, a))).toBe(true);
			})
		);
	});

	it('tells hundreds of thousands of coordinates apart, and so do both of its halves', () => {
		for (const seed of [0, 1, 0xffffffff]) {
			const prints: number[] = [];
			for (let x = 0; x < 500; x++)
				for (let y = 0; y < 400; y++) prints.push(of(seed, 0x2000a, `${x}.0`, 0x20014, `${y}.0`));
			expect(new Set(prints).size).toBe(200_000);
			// As many doubles as chance makes among 2^32 and 2^21 numbers, and no more.
			expect(new Set(prints.map((print) => print % 2 ** 32)).size).toBeGreaterThan(199_950);
			const expected = 2 ** 21 * (1 - Math.exp(-200_000 / 2 ** 21));
			const halves = new Set(prints.map((print) => Math.floor(print / 2 ** 32))).size;
			expect(Math.abs(halves - expected)).toBeLessThan(1_500);
		}
	});

	it('changes with its seed, and with where one part ends and the next begins', () => {
		expect(of(1, 'LINE')).not.toBe(of(2, 'LINE'));
		expect(of(1, 'A', 7, 'B')).not.toBe(of(1, 'AB', 7));
		expect(of(1, 'A', 7)).not.toBe(of(1, 7, 'A'));
	});
});
