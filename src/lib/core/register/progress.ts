import { daysBetween, plusDays } from '../time/days';
import type { Standing } from './forecast';

/** A deliverable's weight with where it stands. */
export interface Weighed {
	weight: number;
	at: readonly Standing[];
}

/** Weight of what is met, of what is late, and of everything (G4). */
export interface Share {
	met: number;
	late: number;
	all: number;
}

const tenths = (n: number) => Math.round(n * 1e6) / 1e6;

/** Progress over some lines: each stage counts with its deliverable's weight. @param stage one only; null for all */
export function progressOf(lines: readonly Weighed[], stage: string | null, today: string): Share {
	const share = { met: 0, late: 0, all: 0 };
	for (const { weight, at } of lines)
		for (const one of at) {
			if (stage !== null && one.stage !== stage) continue;
			share.all += weight;
			if (one.actual !== null) share.met += weight;
			else if (one.planned !== null && one.planned < today) share.late += weight;
		}
	return { met: tenths(share.met), late: tenths(share.late), all: tenths(share.all) };
}

/** A weight that falls due, or was delivered, on a day. */
export interface Point {
	day: string;
	weight: number;
}

/** Weight that is reached by a day, counted from the first. */
export interface CurvePoint {
	day: string;
	total: number;
}

/** Adds up weights day by day: the one function behind all curves (G4). It ends at the sum of all weights. */
export function curveOf(points: readonly Point[], from = 0): CurvePoint[] {
	const byDay = new Map<string, number>();
	for (const { day, weight } of points) byDay.set(day, (byDay.get(day) ?? 0) + weight);
	let total = from;
	return [...byDay]
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([day, weight]) => {
			total += weight;
			return { day, total: tenths(total) };
		});
}

export interface Curves {
	planned: CurvePoint[];
	actual: CurvePoint[];
	/** Goes on from what is met today. */
	forecast: CurvePoint[];
	/** Weight of everything, and of what no day is planned or expected for. */
	total: number;
	unplanned: number;
	unexpected: number;
}

/** Planned, actual and expected weight over time. @param stage one only; null for all */
export function curvesOf(lines: readonly Weighed[], stage: string | null): Curves {
	const [planned, actual, forecast]: [Point[], Point[], Point[]] = [[], [], []];
	let [total, unplanned, unexpected] = [0, 0, 0];
	for (const { weight, at } of lines)
		for (const one of at) {
			if (stage !== null && one.stage !== stage) continue;
			total += weight;
			if (one.planned !== null) planned.push({ day: one.planned, weight });
			else unplanned += weight;
			if (one.actual !== null) actual.push({ day: one.actual, weight });
			else if (one.forecast !== null) forecast.push({ day: one.forecast, weight });
			else unexpected += weight;
		}
	const met = curveOf(actual);
	return {
		planned: curveOf(planned),
		actual: met,
		forecast: curveOf(forecast, met.at(-1)?.total ?? 0),
		total: tenths(total),
		unplanned: tenths(unplanned),
		unexpected: tenths(unexpected)
	};
}

/** A curve at one day: what is reached by then. */
const reached = (curve: readonly CurvePoint[], day: string): number | null => {
	let found: number | null = null;
	for (const point of curve) {
		if (point.day > day) break;
		found = point.total;
	}
	return found;
};

/** Most points that a picture of curves has. */
const MOST_POINTS = 120;

/** The curves at days that lie evenly, for a picture: the actual one up to today, the expected one from there on. */
export function sampled(
	curves: Curves,
	today: string
): { days: string[]; planned: number[]; actual: (number | null)[]; forecast: (number | null)[] } {
	const all = [curves.planned, curves.actual, curves.forecast].flat().map((point) => point.day);
	if (!all.length) return { days: [], planned: [], actual: [], forecast: [] };
	all.push(today);
	const [first, last] = all.reduce(
		([a, b], day) => [day < a ? day : a, day > b ? day : b],
		[all[0]!, all[0]!]
	);
	const days: string[] = [];
	const long = daysBetween(first, last);
	const step = Math.max(1, Math.ceil(long / MOST_POINTS), long > 60 ? 7 : 1);
	for (let day = first; day < last; day = plusDays(day, step)) days.push(day);
	days.push(last);
	if (!days.includes(today)) days.push(today);
	days.sort();
	const met = curves.actual.at(-1)?.total ?? 0;
	return {
		days,
		planned: days.map((day) => reached(curves.planned, day) ?? 0),
		actual: days.map((day) => (day > today ? null : (reached(curves.actual, day) ?? 0))),
		forecast: days.map((day) => (day < today ? null : (reached(curves.forecast, day) ?? met)))
	};
}
