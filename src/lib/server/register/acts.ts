import { and, sql } from 'drizzle-orm';
import * as contract from '../../contract/deliverables';
import { Problem } from '../../core/acts/problem';
import { actualOf, planned, stagesOf } from '../../core/register';
import { calendarOf } from '../../core/time/working-days';
import { WorkDays } from '../../core/time/work-days';
import { among } from '../platform/db';
import { deliverable, deliverableStage } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { registerFacts } from './facts';
import {
	checkNamed,
	checkNumbers,
	heldLines,
	holdNumbers,
	named,
	noteChanges,
	plansOf,
	stageOf,
	told,
	type Changed,
	type InProject,
	type Named,
	type Row
} from './lines';
import { insertLines, writeLines, writePlans, type PlannedDay } from './write';

export const addDeliverables = does(contract.addDeliverables, {
	async run(context, input) {
		const names = await named(context);
		const many = input.deliverables.length > 1;
		for (const [i, one] of input.deliverables.entries())
			try {
				checkNamed(names, one);
				for (const key of Object.keys(one.planned)) stageOf(context, key);
			} catch (error) {
				// What is wrong stands at its line; nothing was put in.
				if (error instanceof Problem && many)
					throw new Problem(error.code, error.sentence, { ...error.facts, line: i + 1 });
				throw error;
			}
		await checkNumbers(
			context,
			input.deliverables.map((one) => one.number)
		);
		const ids = await insertLines(context, input.deliverables);
		const { where, which } = await told(context, input.deliverables);
		context.tell({
			...where,
			kind: 'register.added',
			details: { ...which, title: many ? null : input.deliverables[0]!.title }
		});
		return { ids };
	}
});

/** What stands for a stage of the plan without a day. */
const NO_DAY = 'no day yet';
const idsOf = (rows: readonly { id: string }[]): string[] => rows.map(({ id }) => id);

/** What becomes other of a deliverable, in words. */
function changesIn(
	row: typeof deliverable.$inferSelect,
	to: {
		number?: string | undefined;
		title?: string | undefined;
		department?: string | null | undefined;
		responsible?: string | null | undefined;
		weight?: number | undefined;
	},
	{ departments, people }: Named
): Changed[] {
	const changes: Changed[] = [];
	const compare = (what: string, from: string | null, into: string | null | undefined) => {
		if (into !== undefined && into !== from) changes.push({ what, from: from ?? '', to: into ?? '' });
	};
	const code = (id: string | null) => (id === null ? null : (departments.get(id)?.code ?? id));
	const who = (id: string | null) => (id === null ? null : (people.get(id)?.name ?? 'somebody who left'));
	compare('number', row.number, to.number);
	compare('title', row.title, to.title);
	if (to.department !== undefined) compare('department', code(row.departmentId), code(to.department));
	if (to.responsible !== undefined && to.responsible !== row.responsibleId)
		changes.push({
			what: 'who is responsible',
			from: who(row.responsibleId) ?? '',
			to: who(to.responsible) ?? ''
		});
	compare('weight', String(row.weight), to.weight === undefined ? undefined : String(to.weight));
	return changes;
}

export const changeDeliverables = does(contract.changeDeliverables, {
	async run(context, input) {
		const { tx, tell } = context;
		const names = await named(context);
		checkNamed(names, input);
		const stages = [...input.addStages, ...input.dropStages].map((key) => stageOf(context, key));
		const nameOf = (key: string) => stages.find((one) => one.key === key)!.name;
		if (input.number !== undefined && input.deliverables.length > 1)
			throw new Problem('invalid', 'A number is of one deliverable only.', { field: 'number' });
		const rows = await heldLines(context, input.deliverables);
		if (input.number !== undefined && input.number !== rows[0]!.number)
			await checkNumbers(context, [input.number]);
		const plans = await plansOf(context, input.deliverables);
		const { number, title, department, responsible, weight } = input;
		const written: Row[] = [];
		const joining: PlannedDay[] = [];
		const changed: { deliverable: string; changes: Changed[] }[] = [];
		for (const row of rows) {
			const changes = changesIn(row, input, names);
			const plan = plans.get(row.id) ?? new Map<string, typeof deliverableStage.$inferSelect>();
			const joins = input.addStages.filter((key) => !plan.has(key) && !input.dropStages.includes(key));
			const leaves = input.dropStages.filter((key) => plan.has(key));
			for (const key of joins) {
				changes.push({ what: nameOf(key), from: 'not in the plan', to: NO_DAY });
				joining.push({ deliverableId: row.id, stage: key, planned: null });
			}
			for (const key of leaves)
				changes.push({ what: nameOf(key), from: plan.get(key)!.planned ?? NO_DAY, to: 'not in the plan' });
			if (!changes.length) continue;
			written.push({
				...row,
				number: number ?? row.number,
				title: title ?? row.title,
				departmentId: department === undefined ? row.departmentId : department,
				responsibleId: responsible === undefined ? row.responsibleId : responsible,
				weight: weight ?? row.weight
			});
			changed.push({ deliverable: row.id, changes });
		}
		if (!changed.length) return { changed: 0 };
		await writeLines(context, written);
		await writePlans(context, joining);
		await tx
			.delete(deliverableStage)
			.where(
				and(
					among(deliverableStage.deliverableId, idsOf(written)),
					among(deliverableStage.stage, input.dropStages)
				)
			);
		await noteChanges(context, 'changed', changed);
		const { where, which } = await told(context, written);
		tell({
			...where,
			kind: 'register.changed',
			details: {
				...which,
				what: [...new Set(changed.flatMap((one) => one.changes.map((change) => change.what)))]
			}
		});
		return { changed: changed.length };
	}
});

/** Which stages of some deliverables are met, by `id stage`; as the register says it (G2). */
async function metStages({ services, project }: InProject): Promise<Set<string>> {
	const { held, stages } = await registerFacts(services.database.db, project.id);
	return new Set(
		held.flatMap(({ deliverable: line }) =>
			planned(line, stages)
				.filter(({ stage, plan }) => actualOf(line, stage, plan) !== null)
				.map(({ stage }) => `${line.id} ${stage.key}`)
		)
	);
}

export const movePlanned = does(contract.movePlanned, {
	async run(context, input) {
		const { project, tell } = context;
		const days = new WorkDays(calendarOf(project.settings));
		const stages = input.stage === null ? stagesOf(project.settings) : [stageOf(context, input.stage)];
		const rows = await heldLines(context, input.deliverables);
		const plans = await plansOf(context, input.deliverables);
		// What is over keeps the day it was planned for, unless that very stage is named.
		const met = input.stage === null ? await metStages(context) : new Set<string>();
		const moves: PlannedDay[] = [];
		const changed: { deliverable: string; changes: Changed[] }[] = [];
		const touched = new Set<string>();
		for (const row of rows) {
			const changes: Changed[] = [];
			for (const { key, name } of stages) {
				const plan = plans.get(row.id)?.get(key);
				if (!plan || met.has(`${row.id} ${key}`)) continue;
				const before = plan.planned;
				const after =
					input.by === undefined ? input.to! : before === null ? null : days.plus(before, input.by);
				if (after === before) continue;
				moves.push({ deliverableId: row.id, stage: key, planned: after });
				changes.push({ what: name, from: before ?? NO_DAY, to: after ?? NO_DAY });
				touched.add(name);
			}
			if (changes.length) changed.push({ deliverable: row.id, changes });
		}
		if (!changed.length) return { moved: 0 };
		await writePlans(context, moves);
		await noteChanges(context, 'moved', changed, input.reason);
		const ids = new Set(changed.map((one) => one.deliverable));
		const { where, which } = await told(
			context,
			rows.filter((row) => ids.has(row.id))
		);
		tell({
			...where,
			kind: 'register.moved',
			details: {
				...which,
				stages: [...touched],
				days: input.by ?? null,
				to: input.to ?? null,
				reason: input.reason
			}
		});
		return { moved: changed.length };
	}
});

export const removeDeliverables = does(contract.removeDeliverables, {
	async run(context, input) {
		const { tx, now, tell } = context;
		const rows = await heldLines(context, input.deliverables);
		const { where, which } = await told(context, rows);
		await tx
			.update(deliverable)
			.set({ removedAt: now })
			.where(among(deliverable.id, idsOf(rows)));
		await noteChanges(
			context,
			'removed',
			rows.map((row) => ({ deliverable: row.id, changes: [] })),
			input.reason
		);
		tell({ ...where, kind: 'register.removed', details: { ...which, reason: input.reason } });
		return { removed: rows.length };
	}
});

export const restoreDeliverables = does(contract.restoreDeliverables, {
	async run(context, input) {
		const { tx, project, tell } = context;
		await holdNumbers(context);
		const rows = await heldLines(context, input.deliverables, true);
		const [taken] = await tx.execute<{ number: string }>(sql`
			select number from deliverable where project_id = ${project.id} and removed_at is null
				and number = any(${sql.param(rows.map((row) => row.number))}::text[]) limit 1`);
		if (taken)
			throw new Problem(
				'conflict',
				`${taken.number} is in the register again meanwhile. Take that out first, or leave this one out.`
			);
		await tx
			.update(deliverable)
			.set({ removedAt: null })
			.where(among(deliverable.id, idsOf(rows)));
		await noteChanges(
			context,
			'restored',
			rows.map((row) => ({ deliverable: row.id, changes: [] }))
		);
		const { where, which } = await told(context, rows);
		tell({ ...where, kind: 'register.restored', details: which });
		return { restored: rows.length };
	}
});
