import { sql } from 'drizzle-orm';
import { groupedBy } from '../../core/lists/group';
import * as contract from '../../contract/register';
import {
	curvesOf,
	gapsOf,
	loadOf,
	partOf,
	passing,
	progressOf,
	sampled,
	spreadOf,
	stepsOf
} from '../../core/register';
import { live } from '../access/reach';
import { place } from '../platform/db/schema';
import { offDesks } from '../places/desks';
import { answers } from '../platform/runner/act';
import { narrowingOf, visibleLines } from './seen';

export const registerFigures = answers(contract.registerFigures, {
	async run(context, input) {
		const stage = input.stage ?? null;
		const { facts, today, stages, lines } = await visibleLines(context, stage);
		const left = lines.filter(passing(narrowingOf(input), today));
		const weighed = left.map(({ deliverable, at }) => ({
			weight: deliverable.weight,
			department: deliverable.department,
			at
		}));
		const curves = curvesOf(weighed, stage);
		const byDepartment = groupedBy(weighed, ({ department }) => department);
		const deliverables = left.map((line) => line.deliverable);
		const steps = stepsOf(deliverables, stages, facts.days);
		const documents = new Set(deliverables.flatMap(({ document }) => (document ? [document.id] : [])));
		const answered = facts.answered.filter((one) => documents.has(one.document));
		const months = new Map<string, { month: string; A: number; B: number; C: number; D: number }>();
		for (const { day, code } of answered) {
			const month = day.slice(0, 7);
			const of = months.get(month) ?? { month, A: 0, B: 0, C: 0, D: 0 };
			of[code]++;
			months.set(month, of);
		}
		const waiting = deliverables.flatMap(({ document }) => document?.reply ?? []);
		return {
			curves: {
				...sampled(curves, today),
				total: curves.total,
				unplanned: curves.unplanned,
				unexpected: curves.unexpected
			},
			departments: [...byDepartment]
				.map(([department, of]) => ({ department, ...progressOf(of, stage, today) }))
				.sort((a, b) => (a.department ?? '~').localeCompare(b.department ?? '~')),
			steps: stages
				.filter((one) => stage === null || one.key === stage)
				.map((one) => ({
					stage: one.key,
					...spreadOf(steps.filter((step) => step.stage === one.key).map((step) => step.took))
				})),
			replies: spreadOf(answered.map((one) => facts.days.between(one.issued, one.day))),
			overdue: new Set(
				waiting
					.filter((one) => one.verdict === null && one.by !== null && one.by < today)
					.map((one) => one.release)
			).size,
			verdicts: [...months.values()].sort((a, b) => (a.month < b.month ? -1 : 1)),
			...loadOf(left, stage, today)
		};
	}
});

export const registerGaps = answers(contract.registerGaps, {
	async run(context) {
		const { db, project } = context;
		const rule = project.settings.numbering;
		const { lines } = await visibleLines(context, null);
		const missing = lines.flatMap((line) => line.missingAfter);
		const unplanned = sql`from document d join ${place} on ${place.id} = d.id
			where d.project_id = ${project.id} and d.live and ${live()} and ${offDesks(place.scope)} and not exists (
				select 1 from deliverable l where l.project_id = d.project_id and l.number = d.number and l.removed_at is null)`;
		const documents = await db.execute<{ id: string; number: string; title: string }>(
			sql`select d.id, d.number, d.title ${unplanned} order by d.number limit 2000`
		);
		const [counted] = await db.execute<{ n: number }>(sql`select count(*)::int as n ${unplanned}`);
		return {
			numbers: gapsOf(rule, missing).slice(0, 1_000),
			missing: missing.length,
			documents: documents.map((row) => ({
				...row,
				department: partOf(rule, row.number, 'department') || null,
				type: partOf(rule, row.number, 'type')
			})),
			unplanned: counted!.n
		};
	}
});
