import type { NumberingRule } from '../numbering/numbering';

/** Numbers that nobody uses within a series: from one to another, both included. */
export interface Gap {
	from: string;
	to: string;
	count: number;
}

/** A wider gap is a block that was kept free on purpose, and no number is missing there. */
export const WIDEST_GAP = 9;

/**
 * Numbers that are missing within the series of a project (G5): those between two that are used and are near each other.
 * @param used numbers of deliverables and documents, whatever their order; what does not end in a serial is left out
 */
export function missingNumbers(rule: Pick<NumberingRule, 'separator'>, used: Iterable<string>): Gap[] {
	const series = new Map<string, Set<number>>();
	const widths = new Map<string, number>();
	for (const number of used) {
		const at = number.lastIndexOf(rule.separator) + 1;
		const [head, serial] = [number.slice(0, at), number.slice(at)];
		if (!/^\d{1,9}$/.test(serial)) continue;
		const of = series.get(head) ?? new Set<number>();
		series.set(head, of.add(Number(serial)));
		widths.set(head, Math.max(widths.get(head) ?? 0, serial.length));
	}
	const gaps: Gap[] = [];
	for (const [head, serials] of series) {
		const sorted = [...serials].sort((a, b) => a - b);
		const name = (serial: number) => head + String(serial).padStart(widths.get(head)!, '0');
		for (const [i, serial] of sorted.entries()) {
			const count = i === 0 ? 0 : serial - sorted[i - 1]! - 1;
			if (count > 0 && count <= WIDEST_GAP)
				gaps.push({ from: name(serial - count), to: name(serial - 1), count });
		}
	}
	return gaps.sort((a, b) => (a.from < b.from ? -1 : 1));
}
