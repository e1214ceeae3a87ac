import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PURPOSES } from '../revisions/revisions';
import { plusDays } from '../time/days';
import { WorkDays } from '../time/work-days';
import { ORDINARY_WEEK } from '../time/working-days';
import type { Deliverable, StagePlan } from './deliverable';
import { medianOf, spreadOf, SPANS, stepsOf, usualOf } from './durations';
import { standings, statusOf, usualKey } from './forecast';
import { countsOf, EVERYTHING, linesOf, ordered, ORDERS, passing, seenAt, usualIn } from './list';
import { gapsOf, missingAfter } from './missing';
import { curveOf, curvesOf, progressOf, sampled } from './progress';
import { checkStages, USUAL_STAGES } from './stages';

const days = new WorkDays(ORDINARY_WEEK);
const today = '2026-11-27';
const stages = USUAL_STAGES;
const near = fc.integer({ min: -200, max: 200 }).map((n) => plusDays(today, n));
const past = fc.integer({ min: -200, max: 0 }).map((n) => plusDays(today, n));

const plan: fc.Arbitrary<StagePlan[]> = fc.subarray(stages.map((one) => one.key)).chain((keys) =>
	fc.tuple(
		...keys.map((stage) =>
			fc.record({
				stage: fc.constant(stage),
				planned: fc.option(near),
				own: fc.option(
					near.map((day) => ({ day, reason: 'said so', by: 'Oke Lindvar', at: '2026-11-01T08:00:00.000Z' }))
				),
				corrected: fc.option(
					past.map((day) => ({ day, reason: 'was sent by hand', by: 'Ines Maddock' })),
					{
						freq: 8
					}
				)
			})
		)
	)
);
const deliverable: fc.Arbitrary<Deliverable> = fc.record({
	id: fc.uuid(),
	number: fc.integer({ min: 1, max: 9999 }).map((n) => `VFT-MW-LS-00-DR-${String(n).padStart(4, '0')}`),
	title: fc.constantFrom('Hinge details', 'Quay wall section', 'Pile schedule'),
	department: fc.constantFrom('MW', 'AR', null),
	zone: fc.constantFrom('LS', 'QW'),
	type: fc.constantFrom('DR', 'SP'),
	responsible: fc.constantFrom(null, { id: 'p1', name: 'Oke Lindvar' }),
	weight: fc.constantFrom(0.5, 1, 1, 3),
	plan,
	document: fc.option(
		fc.record({
			id: fc.uuid(),
			label: fc.constant('P02.1'),
			issued: fc.boolean(),
			begun: past,
			issues: fc.uniqueArray(fc.record({ purpose: fc.constantFrom(...PURPOSES), day: past }), {
				selector: (one) => one.purpose
			}),
			reply: fc.option(
				fc.record({
					release: fc.constant(12),
					to: fc.constant('Vennholm Harbour Trust'),
					by: fc.option(near),
					verdict: fc.constantFrom(null, 'A' as const, 'C' as const)
				})
			)
		})
	),
	missingAfter: fc.subarray(['VFT-MW-LS-00-DR-0002', 'VFT-MW-LS-00-DR-0003'])
});
const many = fc.array(deliverable, { maxLength: 30 });
const linesIn = (all: Deliverable[], stage: string | null = null) =>
	seenAt(linesOf(all, stages, usualIn(all, stages, days), today, days), stage, true);

/** A deliverable of Marine works with a plan, and a document where it was begun. */
const line = (more: Partial<Deliverable> & { planned: Record<string, string | null>; begun?: string }) => {
	const { planned, begun, ...rest } = more;
	return {
		id: 'd',
		number: 'VFT-MW-LS-00-DR-0001',
		title: 'Hinge details',
		department: 'MW',
		zone: 'LS',
		type: 'DR',
		responsible: null,
		weight: 1,
		plan: Object.entries(planned).map(([stage, day]) => ({
			stage,
			planned: day,
			own: null,
			corrected: null
		})),
		document: begun ? { id: 'x', label: 'P01.1', issued: false, begun, issues: [], reply: null } : null,
		missingAfter: [],
		...rest
	} satisfies Deliverable;
};
const at = (one: Deliverable, usual = new Map<string, number>()) =>
	standings(one, stages, usual, today, days);

describe('the forecast', () => {
	it('is the plan while nothing tells otherwise, and today at the earliest', () => {
		const [comment, approval] = at(line({ planned: { comment: '2026-10-02', approval: '2027-02-01' } }));
		expect(comment).toMatchObject({ forecast: '2026-11-27', rule: { basis: 'today' }, slip: 40 });
		// 40 working days later than planned: so is what follows.
		expect(approval).toMatchObject({ forecast: '2027-03-29', rule: { basis: 'slip' }, slip: 40 });
	});

	it('moves what follows by how late, or how early, the stage before was met', () => {
		const one = line({ planned: { comment: '2026-11-02', approval: '2026-12-14' }, begun: '2026-09-01' });
		const met = (day: string) => ({
			...one,
			document: { ...one.document!, issues: [{ purpose: 'comment' as const, day }] }
		});
		expect(at(met('2026-11-09'))[1]).toMatchObject({ forecast: '2026-12-21', slip: 5 });
		expect(at(met('2026-10-30'))[1]).toMatchObject({ forecast: '2026-12-11', slip: -1 });
		expect(at(met('2026-11-02'))[1]).toMatchObject({ forecast: '2026-12-14', rule: { basis: 'plan' } });
	});

	it('counts from the last actual day what the department usually takes, once there is a document', () => {
		const usual = new Map([[usualKey('MW', 'approval'), 12]]);
		const one = line({ planned: { comment: '2026-11-02', approval: '2026-12-14' }, begun: '2026-09-01' });
		const met = {
			...one,
			document: { ...one.document!, issues: [{ purpose: 'comment' as const, day: '2026-11-20' }] }
		};
		expect(at(met, usual)[1]).toMatchObject({ forecast: '2026-12-08', rule: { basis: 'usual' }, slip: -4 });
		expect(at({ ...met, document: null, department: 'AR' }, usual)[1]!.rule!.basis).not.toBe('usual');
		// Once that time is over, the plan counts again: it does not come today because it is late.
		const over = new Map([[usualKey('MW', 'approval'), 2]]);
		expect(at(met, over)[1]).toMatchObject({ forecast: '2027-01-01', rule: { basis: 'slip' } });
	});

	it('brings nothing forward for what is only expected', () => {
		const usual = new Map([[usualKey('MW', 'comment'), 20]]);
		const one = line({ planned: { comment: '2027-03-01', approval: '2027-05-03' }, begun: '2026-11-23' });
		const [comment, approval] = at(one, usual);
		expect(comment).toMatchObject({ forecast: '2026-12-21', rule: { basis: 'usual' }, slip: -50 });
		expect(approval).toMatchObject({ forecast: '2027-05-03', rule: { basis: 'plan' } });
	});

	it('is what somebody said, with that of the rule beside it', () => {
		const one = line({ planned: { approval: '2026-12-14' } });
		const own = { day: '2027-01-11', reason: 'waits for the survey', by: 'Oke Lindvar', at: '' };
		const [said] = at({ ...one, plan: [{ ...one.plan[0]!, own }] });
		expect(said).toMatchObject({ forecast: '2027-01-11', rule: { day: '2026-12-14' }, own, slip: 20 });
		// A day that is gone by cannot be expected any more.
		const [gone] = at({ ...one, plan: [{ ...one.plan[0]!, own: { ...own, day: '2026-11-02' } }] });
		expect(gone!.forecast).toBe('2026-11-27');
	});

	it('never lies before today, nor before the stage before by the rule; what is met has none', () => {
		fc.assert(
			fc.property(many, (all) => {
				const usual = usualIn(all, stages, days);
				for (const one of all) {
					let before = '';
					for (const stage of standings(one, stages, usual, today, days)) {
						if (stage.actual !== null) {
							expect(stage.forecast).toBeNull();
							continue;
						}
						if (stage.forecast === null) continue;
						expect(stage.forecast >= today).toBe(true);
						if (stage.own === null) expect(stage.forecast >= before).toBe(true);
						before = stage.forecast;
					}
				}
			})
		);
	});
});

describe('what a department usually takes', () => {
	it('is the middle of its last twenty, and nothing of fewer than three', () => {
		const took = (n: number, i: number) => ({
			department: 'MW',
			stage: 'approval',
			day: plusDays('2026-01-05', i),
			took: n
		});
		expect(usualOf([took(3, 0), took(5, 1)]).size).toBe(0);
		expect(usualOf([took(3, 0), took(5, 1), took(30, 2)]).get(usualKey('MW', 'approval'))).toBe(5);
		// Old ones do not count: five that took long, then twenty that did not.
		const all = [
			...Array.from({ length: 5 }, (_, i) => took(90, i)),
			...Array.from({ length: 20 }, (_, i) => took(4, 10 + i))
		];
		expect(usualOf(all).get(usualKey('MW', 'approval'))).toBe(4);
	});

	it('is counted from the first version, then from stage to stage', () => {
		const one = line({ planned: { comment: null, approval: null }, begun: '2026-10-05' });
		const issues = [
			{ purpose: 'comment' as const, day: '2026-10-19' },
			{ purpose: 'approval' as const, day: '2026-11-02' }
		];
		const steps = stepsOf([{ ...one, document: { ...one.document!, issues } }], stages, days);
		expect(steps.map(({ stage, took }) => [stage, took])).toEqual([
			['comment', 10],
			['approval', 10]
		]);
	});

	it('is spread over spans that hold every one', () => {
		fc.assert(
			fc.property(fc.array(fc.integer({ min: 0, max: 200 })), (took) => {
				const spread = spreadOf(took);
				expect(spread.spans.reduce((a, b) => a + b, 0)).toBe(took.length);
				expect(spread.spans[0]).toBe(took.filter((n) => n <= SPANS[0]).length);
				if (!took.length) return;
				const least = took.filter((n) => n <= medianOf(took)!).length;
				expect(least * 2).toBeGreaterThanOrEqual(took.length);
				expect(took).toContain(spread.median);
			})
		);
	});
});

describe('progress', () => {
	it('ends its curves at what is planned, met and expected', () => {
		fc.assert(
			fc.property(many, fc.constantFrom(null, ...stages.map((one) => one.key)), (all, stage) => {
				const weighed = linesIn(all).map((one) => ({ weight: one.deliverable.weight, at: one.at }));
				const curves = curvesOf(weighed, stage);
				const share = progressOf(weighed, stage, today);
				expect(share.all).toBeCloseTo(curves.total);
				expect(curves.planned.at(-1)?.total ?? 0).toBeCloseTo(curves.total - curves.unplanned);
				expect(curves.actual.at(-1)?.total ?? 0).toBeCloseTo(share.met);
				const end = curves.forecast.at(-1)?.total ?? share.met;
				expect(end).toBeCloseTo(curves.total - curves.unexpected);
				const drawn = sampled(curves, today);
				if (!drawn.days.length) return;
				expect(drawn.planned.at(-1)).toBeCloseTo(curves.total - curves.unplanned);
				expect(drawn.forecast.at(-1)).toBeCloseTo(end);
				expect(drawn.actual[drawn.days.indexOf(today)]).toBeCloseTo(share.met);
			})
		);
	});

	it('only ever rises', () => {
		fc.assert(
			fc.property(fc.array(fc.record({ day: near, weight: fc.constantFrom(0.5, 1, 2) })), (points) => {
				const curve = curveOf(points);
				for (const [i, point] of curve.entries()) {
					if (i) expect(point.day > curve[i - 1]!.day && point.total > curve[i - 1]!.total).toBe(true);
				}
			})
		);
	});
});

describe('the list', () => {
	it('counts each figure as what narrowing to it leaves', () => {
		fc.assert(
			fc.property(many, fc.constantFrom(null, 'approval', 'construction'), (all, stage) => {
				const lines = linesIn(all, stage);
				const counts = countsOf(lines, stage, today);
				const left = (to: Partial<typeof EVERYTHING>) =>
					lines.filter(passing({ ...EVERYTHING, stage, ...to }, today)).length;
				expect(counts.late).toBe(left({ late: true }));
				expect(counts.none).toBe(left({ statuses: ['none'] }));
				expect(counts.missing).toBe(left({ missing: true }));
				expect(counts.wasLate).toBeLessThanOrEqual(counts.met);
				expect(counts.none).toBeLessThanOrEqual(all.filter((one) => !one.document).length);
				// Each narrowing leaves no more than the wider one.
				expect(left({ late: true, departments: ['MW'] })).toBeLessThanOrEqual(counts.late);
			})
		);
	});

	it('keeps every line in every order, groups together', () => {
		fc.assert(
			fc.property(many, fc.constantFrom(...ORDERS), fc.boolean(), (all, by, down) => {
				const lines = linesIn(all);
				const sorted = ordered(lines, by, down, 'department');
				expect([...sorted].map((one) => one.deliverable.id).sort()).toEqual(
					lines.map((one) => one.deliverable.id).sort()
				);
				const heads = sorted.map((one) => one.deliverable.department ?? '');
				expect(heads.filter((head, i) => i > 0 && head !== heads[i - 1]).length).toBe(
					Math.max(0, new Set(heads).size - 1)
				);
			})
		);
	});

	it('says of a line what is waited for', () => {
		const one = line({ planned: { comment: '2026-11-02' }, begun: '2026-09-01' });
		const as = (more: Partial<NonNullable<Deliverable['document']>>) => {
			const with_ = { ...one, document: { ...one.document!, ...more } };
			return statusOf(with_, at(with_));
		};
		const reply = { release: 3, to: 'Vennholm Harbour Trust', by: '2026-12-10', verdict: null };
		expect(statusOf(line({ planned: {} }), [])).toBe('none');
		expect(as({})).toBe('work');
		expect(as({ reply, issued: true })).toBe('with-client');
		expect(as({ reply, issued: false })).toBe('work');
		expect(as({ reply: { ...reply, verdict: 'C' }, issued: true })).toBe('returned');
		expect(as({ issues: [{ purpose: 'comment', day: '2026-11-03' }] })).toBe('done');
	});
});

describe('numbers that are missing', () => {
	const rule = { separator: '-' };

	it('lie between two of a series that are near each other', () => {
		const used = ['A-0201', 'A-0107', 'A-0103', 'A-0101', 'B-0001', 'minutes'];
		const missing = missingAfter(rule, used);
		expect(Object.fromEntries(missing)).toEqual({
			'A-0101': ['A-0102'],
			'A-0103': ['A-0104', 'A-0105', 'A-0106']
		});
		expect(gapsOf(rule, [...missing.values()].flat())).toEqual([
			{ from: 'A-0102', to: 'A-0102', count: 1 },
			{ from: 'A-0104', to: 'A-0106', count: 3 }
		]);
		expect(gapsOf(rule, ['A-0104', 'A-0106', 'B-0107'])).toHaveLength(3);
	});

	it('are none once each of them is used', () => {
		const numbers = fc.uniqueArray(fc.integer({ min: 1, max: 300 }), { maxLength: 60 });
		const named = (n: number) => `VFT-${String(n).padStart(4, '0')}`;
		fc.assert(
			fc.property(numbers, (serials) => {
				const used = new Set(serials.map(named));
				const missing = missingAfter(rule, used);
				for (const [after, free] of missing) {
					expect(used.has(after)).toBe(true);
					for (const [i, number] of free.entries()) {
						expect(used.has(number)).toBe(false);
						expect(number).toBe(named(Number(after.slice(4)) + i + 1));
					}
				}
				const all = [...missing.values()].flat();
				expect(new Set(all).size).toBe(all.length);
				expect(gapsOf(rule, all.sort()).reduce((n, gap) => n + gap.count, 0)).toBe(all.length);
				expect(missingAfter(rule, [...used, ...all]).size).toBe(0);
			})
		);
	});

	it('are told to nobody who is not told which are taken', () => {
		fc.assert(
			fc.property(many, (all) => {
				const lines = linesOf(all, stages, usualIn(all, stages, days), today, days);
				const told = seenAt(lines, null, true);
				const untold = seenAt(lines, null, false);
				const missing = { ...EVERYTHING, missing: true };
				expect(untold.filter(passing(missing, today))).toEqual([]);
				expect(countsOf(untold, null, today)).toEqual({ ...countsOf(told, null, today), missing: 0 });
			})
		);
	});
});

describe('stages', () => {
	it('are refused when an issue could meet two, and when they are not told apart', () => {
		expect(checkStages(stages)).toBeNull();
		expect(checkStages([])).toContain('at least one');
		expect(checkStages([stages[0]!, { ...stages[1]!, name: 'FOR COMMENT' }])).toContain(
			'Two stages are called'
		);
		expect(checkStages([stages[0]!, { key: 'second', name: 'Again', purpose: 'comment' }])).toContain(
			'Each purpose meets one stage'
		);
	});
});
