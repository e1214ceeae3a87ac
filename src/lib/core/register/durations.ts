import { groupedBy } from '../lists/group';
import type { WorkDays } from '../time/work-days';
import type { Deliverable } from './deliverable';
import { actualOf, planned, usualKey, type Usual } from './forecast';
import type { Stage } from './stages';

/** So many of the latest steps of a department tell what it usually takes, and so few tell nothing (G3). */
const LATEST = 20;
const FEWEST = 3;

/** The middle of some numbers; of an even count the lower of the two, so that it is one that happened. */
export function medianOf(values: readonly number[]): number | null {
	if (!values.length) return null;
	const sorted = [...values].sort((a, b) => a - b);
	return sorted[Math.floor((sorted.length - 1) / 2)]!;
}

/** A step that was made: from the stage before, or the first version, to the issue that met this one. */
export interface Step {
	department: string | null;
	stage: string;
	/** The day on which it ended. */
	day: string;
	/** Working days. */
	took: number;
}

/** Every step that was made, in no order. */
export function stepsOf(lines: readonly Deliverable[], stages: readonly Stage[], days: WorkDays): Step[] {
	const steps: Step[] = [];
	for (const line of lines) {
		if (!line.document) continue;
		let from = line.document.begun;
		for (const { stage, plan } of planned(line, stages)) {
			const day = actualOf(line, stage, plan);
			if (day === null || day < from) continue;
			steps.push({ department: line.department, stage: stage.key, day, took: days.between(from, day) });
			from = day;
		}
	}
	return steps;
}

/** What each department usually takes for a step: the median of its last twenty. */
export function usualOf(steps: readonly Step[]): Usual {
	const latest = groupedBy(steps, (step) => usualKey(step.department, step.stage));
	const usual = new Map<string, number>();
	for (const [key, of] of latest) {
		if (of.length < FEWEST) continue;
		const last = of.sort((a, b) => (a.day < b.day ? 1 : -1)).slice(0, LATEST);
		usual.set(key, medianOf(last.map((step) => step.took))!);
	}
	return usual;
}

/** How long something took, over all times it was done. */
export interface Spread {
	count: number;
	median: number | null;
	longest: number | null;
	/** How many took up to each of {@link SPANS} working days, and how many took longer. */
	spans: number[];
}

/** Ends of the spans in which durations are counted, in working days. */
export const SPANS = [5, 10, 15, 20, 30] as const;

/** How durations are spread. @param took working days each */
export function spreadOf(took: readonly number[]): Spread {
	const spans = Array.from({ length: SPANS.length + 1 }, () => 0);
	for (const days of took) {
		const at = SPANS.findIndex((end) => days <= end);
		spans[at < 0 ? SPANS.length : at]! += 1;
	}
	return {
		count: took.length,
		median: medianOf(took),
		longest: took.length ? Math.max(...took) : null,
		spans
	};
}
