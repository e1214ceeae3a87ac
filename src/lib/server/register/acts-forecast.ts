import { and, eq } from 'drizzle-orm';
import * as contract from '../../contract/deliverables';
import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import type { Stage } from '../../core/register';
import { dayOf } from '../../core/time/days';
import { deliverableStage, document, place } from '../platform/db/schema';
import { offDesks } from '../places/desks';
import { does } from '../platform/runner/act';
import { heldLines, NO_SUCH, noteChanges, plansOf, stageOf, told, type InProject, type Row } from './lines';
import { mayForecast } from './may';

/** A deliverable with one stage of its plan, held. @throws Problem `invalid` when the stage is not in its plan */
async function heldStage(context: InProject, input: { deliverable: string; stage: string }) {
	const stage: Stage = stageOf(context, input.stage);
	const [row] = await heldLines(context, [input.deliverable]);
	const plan = (await plansOf(context, [row!.id])).get(row!.id)?.get(stage.key);
	return { stage, row: row!, plan };
}

/** Whether somebody may look at a deliverable: at its document, or as a colleague when it has none. */
async function sees({ tx, project, reach }: InProject, { number }: Row): Promise<boolean> {
	const [its] = await tx
		.select({ scope: place.scope })
		.from(document)
		.innerJoin(place, eq(place.id, document.id))
		.where(
			and(
				eq(document.projectId, project.id),
				eq(document.number, number),
				eq(document.live, true),
				offDesks(place.scope)
			)
		);
	if (!its) return !reach.subject.outside;
	return allows(reach.level(its.scope), 'view');
}

const notInPlan = (row: Row, stage: Stage) =>
	new Problem('invalid', `${stage.name} is not in the plan of ${row.number}.`, { field: 'stage' });

export const setForecast = does(contract.setForecast, {
	async run(context, input) {
		const { tx, person: by, project, now, tell } = context;
		const { stage, row, plan } = await heldStage(context, input);
		if (!(await sees(context, row))) throw new Problem('not-found', NO_SUCH);
		if (!mayForecast(context, row))
			throw new Problem(
				'needs-level',
				'When a deliverable comes is said by who is responsible for it, a lead of its department, or a document controller.'
			);
		if (!plan) throw notInPlan(row, stage);
		if (input.day !== null && input.day < dayOf(now, project.timeZone))
			throw new Problem('invalid', 'A forecast lies today or later.', { field: 'day' });
		if (plan.ownDay === input.day && plan.ownReason === (input.day === null ? null : input.reason)) return {};
		const { where } = await told(context, [row]);
		await tx
			.update(deliverableStage)
			.set(
				input.day === null
					? { ownDay: null, ownReason: null, ownBy: null, ownAt: null }
					: { ownDay: input.day, ownReason: input.reason, ownBy: by.id, ownAt: now }
			)
			.where(and(eq(deliverableStage.deliverableId, row.id), eq(deliverableStage.stage, stage.key)));
		const change = { what: stage.name, from: plan.ownDay ?? 'by the rule', to: input.day ?? 'by the rule' };
		await noteChanges(context, 'forecast', [{ deliverable: row.id, changes: [change] }], input.reason);
		tell({
			...where,
			kind: 'register.forecast',
			details: {
				number: row.number,
				stage: stage.name,
				before: plan.ownDay,
				day: input.day,
				reason: input.reason
			}
		});
		return {};
	}
});

export const correctActual = does(contract.correctActual, {
	async run(context, input) {
		const { tx, person: by, project, now, tell } = context;
		const { stage, row, plan } = await heldStage(context, input);
		if (!plan) throw notInPlan(row, stage);
		if (input.day !== null && input.day > dayOf(now, project.timeZone))
			throw new Problem('invalid', 'What is met was met today or before.', { field: 'day' });
		if (plan.correctedDay === input.day && (input.day === null || plan.correctedReason === input.reason))
			return {};
		const { where } = await told(context, [row]);
		await tx
			.update(deliverableStage)
			.set(
				input.day === null
					? { correctedDay: null, correctedReason: null, correctedBy: null }
					: { correctedDay: input.day, correctedReason: input.reason, correctedBy: by.id }
			)
			.where(and(eq(deliverableStage.deliverableId, row.id), eq(deliverableStage.stage, stage.key)));
		const says = 'as the trail says';
		const change = { what: stage.name, from: plan.correctedDay ?? says, to: input.day ?? says };
		await noteChanges(context, 'corrected', [{ deliverable: row.id, changes: [change] }], input.reason);
		tell({
			...where,
			kind: 'register.corrected',
			details: {
				number: row.number,
				stage: stage.name,
				before: plan.correctedDay,
				day: input.day,
				reason: input.reason
			}
		});
		return {};
	}
});
