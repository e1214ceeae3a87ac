import type { NumberingRule } from '../numbering/numbering';
import { lastPartOf } from './numbers';

type Rule = Pick<NumberingRule, 'separator'>;

/** Numbers in a row that nobody uses: from one to another, both included. */
export interface Gap {
	from: string;
	to: string;
	count: number;
}

/** A wider gap is a block that was kept free on purpose, and no number is missing there. */
export const WIDEST_GAP = 9;

/** A number as its series and its place in it; null for what does not end in a serial. */
function serialOf(rule: Rule, number: string): { head: string; serial: string } | null {
	const serial = lastPartOf(rule, number);
	return /^\d{1,9}$/.test(serial) ? { head: number.slice(0, -serial.length), serial } : null;
}

/**
 * The numbers that are missing after each number of the register (G5): those between it and the next of its series, where
 * the two are near each other.
 * @param numbers of the deliverables, whatever their order; what does not end in a serial has nothing after it
 * @returns by the number before them, in their order; a document may have one of them all the same
 */
export function missingAfter(rule: Rule, numbers: Iterable<string>): Map<string, string[]> {
	const series = new Map<string, { number: string; at: number; width: number }[]>();
	for (const number of numbers) {
		const is = serialOf(rule, number);
		if (!is) continue;
		const one = { number, at: Number(is.serial), width: is.serial.length };
		const of = series.get(is.head);
		if (of) of.push(one);
		else series.set(is.head, [one]);
	}
	const missing = new Map<string, string[]>();
	for (const [head, of] of series) {
		of.sort((a, b) => a.at - b.at);
		const width = Math.max(...of.map((one) => one.width));
		for (const [i, { number, at }] of of.entries()) {
			const count = (of[i + 1]?.at ?? 0) - at - 1;
			if (count < 1 || count > WIDEST_GAP) continue;
			const name = (n: number) => head + String(at + 1 + n).padStart(width, '0');
			missing.set(
				number,
				Array.from({ length: count }, (_, n) => name(n))
			);
		}
	}
	return missing;
}

/** Missing numbers put together where one follows another. @param missing in their order */
export function gapsOf(rule: Rule, missing: Iterable<string>): Gap[] {
	const gaps: (Gap & { head: string; last: number })[] = [];
	for (const number of missing) {
		const { head, serial } = serialOf(rule, number)!;
		const before = gaps.at(-1);
		if (before?.head === head && before.last + 1 === Number(serial)) {
			before.to = number;
			before.last++;
			before.count++;
		} else gaps.push({ from: number, to: number, count: 1, head, last: Number(serial) });
	}
	return gaps.map(({ from, to, count }) => ({ from, to, count }));
}
