import { nextNumber, type NumberingRule } from '../numbering/numbering';
import type { WorkDays } from '../time/work-days';

/** One deliverable of a template: everything that does not belong to one place of a project alone. */
export interface TemplateLine {
	title: string;
	/** What its number says beside project, department and serial, by the keys of the numbering rule. */
	parts: Record<string, string>;
	weight: number;
	/** By stage: working days from the beginning of the work; null for a stage without a day. */
	stages: Record<string, number | null>;
}

/** Parts of a number that a template leaves to who uses it, or to the rule. */
const LEFT = new Set(['project', 'department', 'serial']);

/** A deliverable that a template is made of. */
interface Pattern {
	number: string;
	title: string;
	weight: number;
	planned: Readonly<Record<string, string | null>>;
}

/** A template of deliverables: their days are counted from the first that is planned of any of them. */
export function templateOf(
	patterns: readonly Pattern[],
	rule: NumberingRule,
	days: WorkDays
): TemplateLine[] {
	const all = patterns.flatMap(({ planned }) => Object.values(planned).filter((day) => day !== null));
	const first = all.reduce<string | null>(
		(least, day) => (least === null || day < least ? day : least),
		null
	);
	return patterns.map(({ number, title, weight, planned }) => {
		const given = number.split(rule.separator);
		return {
			title,
			weight,
			parts: Object.fromEntries(
				rule.parts.flatMap(({ key }, i) => (LEFT.has(key) || !given[i] ? [] : [[key, given[i]]]))
			),
			stages: Object.fromEntries(
				Object.entries(planned).map(([stage, day]) => [
					stage,
					day === null || first === null ? null : days.between(first, day)
				])
			)
		};
	});
}

/**
 * Deliverables as a template makes them, with numbers that are free and days from a beginning on.
 * @param at codes for parts of the numbers: project, department, and what shall be other than in the template
 * @param taken numbers that are used or reserved; those that are made are put among them
 */
export function fromTemplate(
	lines: readonly TemplateLine[],
	rule: NumberingRule,
	at: Readonly<Record<string, string>>,
	begins: string,
	days: WorkDays,
	taken: Set<string>
): { number: string; title: string; weight: number; planned: Record<string, string | null> }[] {
	return lines.map(({ title, parts, weight, stages }) => {
		const number = nextNumber(rule, { ...parts, ...at }, taken);
		taken.add(number);
		return {
			number,
			title,
			weight,
			planned: Object.fromEntries(
				Object.entries(stages).map(([stage, offset]) => [
					stage,
					offset === null ? null : days.plus(begins, offset)
				])
			)
		};
	});
}
