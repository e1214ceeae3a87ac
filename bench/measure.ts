import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';

/** One line of the table: what, its value, and the budget it is held against. */
export interface Line {
	what: string;
	value: number;
	unit: string;
	/** Most (or with `least`, least) that the budget allows; null where there is none. */
	budget: number | null;
	least?: boolean;
	/** What it is compared with in the same run, such as an empty request. */
	baseline?: { what: string; value: number };
}

export function fits(line: Line): boolean {
	return line.budget === null || (line.least ? line.value >= line.budget : line.value <= line.budget);
}

/** Processor time by now, and how much of what was wanted the machine gave to others (`steal`, proc(5)). */
function processor(): { all: number; stolen: number } {
	try {
		const line = readFileSync('/proc/stat', 'utf8').split('\n')[0]!;
		const times = line.trim().split(/\s+/).slice(1).map(Number);
		const idle = times[3]! + times[4]!;
		return { all: times.reduce((a, b) => a + b, 0) - idle, stolen: times[7] ?? 0 };
	} catch {
		return { all: 0, stolen: 0 };
	}
}

/** Taken again this often while others had more than this share of the processor. */
const TAKES = 4;
const MOST_STOLEN = 0.04;
/** The largest share that others had during a measurement that was kept. */
export let disturbed = 0;

/**
 * Measures something on a machine that others may share: what was measured while they had the processor tells of them
 * and not of Cupboard, so it is taken again, and the least disturbed is kept.
 */
export async function undisturbed<T>(measure: () => T | Promise<T>): Promise<T> {
	let best: { value: T; stolen: number } | null = null;
	for (let i = 0; i < TAKES; i++) {
		const before = processor();
		const value = await measure();
		const after = processor();
		const stolen = (after.stolen - before.stolen) / Math.max(1, after.all - before.all);
		if (!best || stolen < best.stolen) best = { value, stolen };
		if (stolen <= MOST_STOLEN) break;
		await new Promise((done) => setTimeout(done, 5_000));
	}
	disturbed = Math.max(disturbed, best!.stolen);
	return best!.value;
}

/**
 * Measures something several times, several ways to the same end in turns, so that a machine that changes its speed changes it for all of them.
 * @param ways each gives how fast it went, or how long it took
 * @returns the median of each
 */
export async function inTurns<Way extends string>(
	ways: Record<Way, () => Promise<number>>,
	turns = 3
): Promise<Record<Way, number>> {
	const names = Object.keys(ways) as Way[];
	const taken = Object.fromEntries(names.map((name) => [name, [] as number[]])) as Record<Way, number[]>;
	for (let i = 0; i < turns; i++) for (const name of names) taken[name].push(await undisturbed(ways[name]));
	const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
	return Object.fromEntries(names.map((name) => [name, median(taken[name])])) as Record<Way, number>;
}

/**
 * The time in milliseconds that 95 of 100 calls stay under, on a server that has been in use for a while.
 * @param before done before each of them, and not measured
 */
export async function p95(
	call: () => Promise<unknown>,
	times = 60,
	before?: () => Promise<unknown>
): Promise<number> {
	for (let i = 0; i < 40; i++) await call();
	return undisturbed(async () => {
		const taken: number[] = [];
		for (let i = 0; i < times; i++) {
			await before?.();
			const begin = performance.now();
			await call();
			taken.push(performance.now() - begin);
		}
		return taken.sort((a, b) => a - b)[Math.floor(times * 0.95)]!;
	});
}

/** How many times a second something quick can be done. */
export function perSecond(doing: (n: number) => void, milliseconds = 1_500): number {
	for (let i = 0; i < 20_000; i++) doing(i);
	const begin = performance.now();
	let n = 0;
	while (performance.now() - begin < milliseconds) for (let i = 0; i < 2_000; i++) doing(n++);
	return (n / (performance.now() - begin)) * 1_000;
}

export function print(lines: Line[]): void {
	const text = (value: number, unit: string) =>
		`${value >= 100 ? Math.round(value).toLocaleString('en') : value.toFixed(value < 10 ? 2 : 1)} ${unit}`;
	const rows = lines.map((l) => [
		fits(l) ? '✓' : '✕',
		l.what,
		text(l.value, l.unit),
		l.budget === null ? '' : `${l.least ? 'at least' : 'at most'} ${text(l.budget, l.unit)}`,
		l.baseline
			? `${(l.value / l.baseline.value).toFixed(2)} × ${l.baseline.what} (${text(l.baseline.value, l.unit)})`
			: ''
	]);
	const widths = [0, 1, 2, 3, 4].map((i) => Math.max(...rows.map((r) => r[i]!.length)));
	for (const row of rows)
		console.log(
			row
				.map((cell, i) => cell.padEnd(widths[i]!))
				.join('  ')
				.trimEnd()
		);
}
