import type { WorkDays } from '../time/work-days';
import type { Deliverable, OwnForecast, StagePlan } from './deliverable';
import type { Stage } from './stages';

/**
 * By which part of the rule a forecast came about (G3): the plan, the plan moved by the slip before, what the department
 * usually takes, the forecast of the stage before, or today, before which nothing can be.
 */
export type Basis = 'plan' | 'slip' | 'usual' | 'before' | 'today';

/** Where a deliverable stands at one stage of its plan. Days are YYYY-MM-DD, slip in working days. */
export interface Standing {
	stage: string;
	planned: string | null;
	actual: string | null;
	/** When it is expected: by whoever said so, else by the rule; null when it is met, or when nothing tells. */
	forecast: string | null;
	/** What the rule says, also where somebody said otherwise. */
	rule: { day: string; basis: Basis } | null;
	own: OwnForecast | null;
	/** Working days after the plan, as it was or as it is expected; negative for before it. */
	slip: number | null;
}

/** What departments usually take for a step, in working days: by code and stage. */
export type Usual = ReadonlyMap<string, number>;
export const usualKey = (department: string | null, stage: string): string => `${department ?? ''} ${stage}`;

/** The day on which a stage was met: as it was corrected, else the first issue for its purpose (G2). */
export function actualOf(line: Deliverable, stage: Stage, plan: StagePlan): string | null {
	return (
		plan.corrected?.day ?? line.document?.issues.find((one) => one.purpose === stage.purpose)?.day ?? null
	);
}

/** The stages of a deliverable's plan with what is planned for each, in the project's order. */
export function planned(line: Deliverable, stages: readonly Stage[]): { stage: Stage; plan: StagePlan }[] {
	const found: { stage: Stage; plan: StagePlan }[] = [];
	for (const stage of stages)
		for (const plan of line.plan) if (plan.stage === stage.key) found.push({ stage, plan });
	return found;
}

/**
 * Where a deliverable stands at each stage of its plan, in order. An expected day is never before today nor before that
 * of the stage before; where it has a document and its department a usual time for the step that is not over, it is the
 * last actual day plus that, else the planned day moved by the slip of the stages before (G3).
 * @param today in the project's time zone
 */
export function standings(
	line: Deliverable,
	stages: readonly Stage[],
	usual: Usual,
	today: string,
	days: WorkDays
): Standing[] {
	const soonest = days.next(today);
	const found: Standing[] = [];
	/** The last day that is known or expected, from which a step counts; and the slip there. */
	let last = line.document?.begun ?? null;
	let slipBefore = 0;
	let expectedBefore: string | null = null;
	for (const { stage, plan } of planned(line, stages)) {
		const actual = actualOf(line, stage, plan);
		if (actual !== null) {
			const slip = plan.planned === null ? null : days.between(plan.planned, actual);
			slipBefore = slip ?? slipBefore;
			if (last === null || actual > last) last = actual;
			found.push({
				stage: stage.key,
				planned: plan.planned,
				actual,
				forecast: null,
				rule: null,
				own: plan.own,
				slip
			});
			continue;
		}
		const takes = line.document ? usual.get(usualKey(line.department, stage.key)) : undefined;
		const usually = takes === undefined || last === null ? null : days.plus(last, takes);
		let rule: Standing['rule'] = null;
		// A usual time that is over tells nothing any more, where there is a plan.
		if (usually !== null && (usually >= today || plan.planned === null))
			rule = { day: usually, basis: 'usual' };
		else if (plan.planned !== null)
			rule =
				slipBefore === 0
					? { day: plan.planned, basis: 'plan' }
					: { day: days.plus(plan.planned, slipBefore), basis: 'slip' };
		if (rule && expectedBefore !== null && rule.day < expectedBefore)
			rule = { day: expectedBefore, basis: 'before' };
		if (rule && rule.day < today) rule = { day: soonest, basis: 'today' };
		const forecast: string | null = plan.own
			? plan.own.day < today
				? soonest
				: plan.own.day
			: (rule?.day ?? null);
		const slip = plan.planned === null || forecast === null ? null : days.between(plan.planned, forecast);
		// What is only expected holds up what follows, and brings nothing forward.
		if (slip !== null && slip > 0 && slip > slipBefore) slipBefore = slip;
		if (forecast !== null) {
			last = forecast;
			expectedBefore = forecast;
		}
		found.push({
			stage: stage.key,
			planned: plan.planned,
			actual: null,
			forecast,
			rule,
			own: plan.own,
			slip
		});
	}
	return found;
}

/** Where a line stands as a whole. */
export type Status = 'none' | 'work' | 'with-client' | 'returned' | 'done';

export const STATUS_LABEL: Record<Status, string> = {
	none: 'no document yet',
	work: 'in work',
	'with-client': 'with the client',
	returned: 'returned',
	done: 'all stages met'
};

/** Where a deliverable stands as a whole: what was sent back comes first, then what is waited for. */
export function statusOf(line: Deliverable, at: readonly Standing[]): Status {
	const { document } = line;
	if (!document) return 'none';
	const { reply } = document;
	if (reply?.verdict === 'C' || reply?.verdict === 'D') return 'returned';
	if (reply?.verdict === null && reply.by !== null && document.issued) return 'with-client';
	return at.length > 0 && at.every((one) => one.actual !== null) ? 'done' : 'work';
}

/**
 * The stage that one looks at: the one asked for, when it is in the plan, else the next that is not met, else the last.
 */
export function stageInView(at: readonly Standing[], stage: string | null): Standing | null {
	if (stage !== null) return at.find((one) => one.stage === stage) ?? null;
	return at.find((one) => one.actual === null) ?? at.at(-1) ?? null;
}

/** Whether a stage is late: its planned day is gone by and it is not met. */
export const isLate = (one: Standing, today: string): boolean =>
	one.actual === null && one.planned !== null && one.planned < today;

/** Whether a stage slips: it is expected after its planned day, which is not gone by yet. */
export const isSlipping = (one: Standing, today: string): boolean =>
	one.actual === null && one.planned !== null && one.planned >= today && (one.slip ?? 0) > 0;
