import { and, eq } from 'drizzle-orm';
import * as contract from '../../contract/deliverables';
import { Problem } from '../../core/acts/problem';
import { nameKey } from '../../core/files/names';
import { headOf } from '../../core/numbering/numbering';
import { fromTemplate, templateOf } from '../../core/register';
import { WorkDays } from '../../core/time/work-days';
import { calendarOf } from '../../core/time/working-days';
import { numbersUnder } from '../places/numbers';
import { registerTemplate } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import {
	checkNamed,
	checkNumbers,
	heldLines,
	holdNumbers,
	named,
	plansOf,
	told,
	type InProject
} from './lines';
import { insertLines } from './write';

/** @throws Problem `not-found` for a template that the project has not (any more) */
async function templateWith({ tx, project }: InProject, id: string) {
	const [found] = await tx
		.select()
		.from(registerTemplate)
		.where(and(eq(registerTemplate.projectId, project.id), eq(registerTemplate.id, id)))
		.for('update');
	if (!found) throw new Problem('not-found', 'There is no such template.');
	return found;
}

export const keepTemplate = does(contract.keepTemplate, {
	async run(context, input) {
		const { tx, project, now, newId, tell } = context;
		const rows = await heldLines(context, input.deliverables);
		const plans = await plansOf(context, input.deliverables);
		const lines = templateOf(
			rows.map(({ id, number, title, weight }) => ({
				number,
				title,
				weight,
				planned: Object.fromEntries([...(plans.get(id) ?? [])].map(([stage, plan]) => [stage, plan.planned]))
			})),
			project.settings.numbering,
			new WorkDays(calendarOf(project.settings))
		);
		const [kept] = await tx
			.insert(registerTemplate)
			.values({
				id: newId(),
				projectId: project.id,
				name: input.name,
				nameKey: nameKey(input.name),
				lines,
				createdAt: now
			})
			.onConflictDoUpdate({
				target: [registerTemplate.projectId, registerTemplate.nameKey],
				set: { name: input.name, lines }
			})
			.returning({ id: registerTemplate.id });
		tell({ kind: 'register.template-kept', details: { name: input.name, count: lines.length } });
		return { id: kept!.id };
	}
});

export const endTemplate = does(contract.endTemplate, {
	async run(context, input) {
		const found = await templateWith(context, input.template);
		await context.tx.delete(registerTemplate).where(eq(registerTemplate.id, found.id));
		context.tell({ kind: 'register.template-ended', details: { name: found.name } });
		return {};
	}
});

export const addFromTemplate = does(contract.addFromTemplate, {
	async run(context, input) {
		const { tx, project, tell } = context;
		const template = await templateWith(context, input.template);
		const names = await named(context);
		checkNamed(names, input);
		await holdNumbers(context);
		const rule = project.settings.numbering;
		const code = input.department ? names.departments.get(input.department)!.code : null;
		const at = { project: project.code, ...(code ? { department: code } : {}), ...input.parts };
		const heads = template.lines.map((line) => headOf(rule, { ...line.parts, ...at }));
		const lines = fromTemplate(
			template.lines,
			rule,
			at,
			input.begins,
			new WorkDays(calendarOf(project.settings)),
			await numbersUnder(tx, project.id, heads)
		);
		const deliverables = lines.map(({ number, title, planned }) => ({ number, title, planned }));
		await checkNumbers(
			context,
			lines.map((line) => line.number)
		);
		if (input.trial) return { deliverables };
		await insertLines(
			context,
			lines.map((line) => ({ ...line, department: input.department, responsible: input.responsible }))
		);
		const { where, which } = await told(context, lines);
		tell({
			...where,
			kind: 'register.added',
			details: { ...which, title: lines.length === 1 ? lines[0]!.title : null }
		});
		return { deliverables };
	}
});
