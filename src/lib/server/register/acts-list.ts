import { and, eq, isNull } from 'drizzle-orm';
import * as contract from '../../contract/deliverables';
import { Problem } from '../../core/acts/problem';
import { stagesOf } from '../../core/register';
import {
	fatesOf,
	headKey,
	type Change,
	type ColumnOf,
	type Fate,
	type Present
} from '../../core/register/import';
import { dayOf } from '../../core/time/days';
import { plural } from '../../core/words/sentences';
import { deliverable, project } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import {
	holdNumbers,
	named,
	noteChanges,
	plansOf,
	type Changed,
	type InProject,
	type Named,
	type Row
} from './lines';
import { insertLines, plannedDays, writeLines, writePlans, type PlannedDay } from './write';

/** The deliverables of a project by their numbers, in the words of a list. */
async function presentIn(context: InProject) {
	const { tx, project: here } = context;
	const rows = await tx
		.select()
		.from(deliverable)
		.where(and(eq(deliverable.projectId, here.id), isNull(deliverable.removedAt)));
	const plans = await plansOf(
		context,
		rows.map((row) => row.id)
	);
	return new Map(
		rows.map((row) => {
			const present: Present = {
				number: row.number,
				title: row.title,
				department: row.departmentId,
				responsible: row.responsibleId,
				weight: row.weight,
				planned: Object.fromEntries([...(plans.get(row.id) ?? [])].map(([key, plan]) => [key, plan.planned]))
			};
			return [row.number, { row, present }];
		})
	);
}

/** What becomes other, in words instead of ids. */
function inWords(changes: readonly Change[], { departments, people }: Named, stages: Map<string, string>) {
	return changes.map(({ what, from, to }) => {
		if (what === 'department')
			return { what, from: departments.get(from)?.code ?? '', to: departments.get(to)?.code ?? '' };
		if (what === 'responsible')
			return {
				what: 'who is responsible',
				from: people.get(from)?.name ?? '',
				to: people.get(to)?.name ?? ''
			};
		return {
			what: what.startsWith('planned:') ? (stages.get(what.slice('planned:'.length)) ?? what) : what,
			from,
			to
		};
	});
}

/** What becomes of some lines, told in an order in which one reads it: what cannot be first. */
function toldLines(
	fates: readonly Fate[],
	rows: readonly string[][],
	numberAt: number,
	words: (changes: readonly Change[]) => Changed[]
) {
	const lines = fates.flatMap((fate, i) =>
		fate.fate === 'same'
			? []
			: [
					{
						line: i + 1,
						fate: fate.fate,
						number: rows[i]![numberAt]?.trim() ?? '',
						why: fate.fate === 'refused' ? fate.why : '',
						changes: fate.fate === 'changed' ? words(fate.changes) : []
					}
				]
	);
	const rank = { refused: 0, changed: 1, new: 2 };
	return lines.sort((a, b) => rank[a.fate] - rank[b.fate] || a.line - b.line).slice(0, contract.FATES_TOLD);
}

/** Most heads of lists whose columns are remembered. */
const MOST_HEADS = 400;

/** The next list with these heads is matched as this one was. */
async function rememberColumns(
	{ tx, project: here }: InProject,
	heads: readonly string[],
	columns: readonly (ColumnOf | null)[]
): Promise<void> {
	const [fresh] = await tx.select().from(project).where(eq(project.id, here.id)).for('update');
	const known = {
		...fresh!.settings.registerColumns,
		...Object.fromEntries(heads.map((head, i) => [headKey(head), columns[i]!]))
	};
	const registerColumns = Object.fromEntries(Object.entries(known).slice(-MOST_HEADS));
	await tx
		.update(project)
		.set({ settings: { ...fresh!.settings, registerColumns } })
		.where(eq(project.id, here.id));
}

export const importDeliverables = does(contract.importDeliverables, {
	async run(context, input) {
		const { project: here, now, tell } = context;
		if (input.columns.length !== input.heads.length)
			throw new Problem('invalid', 'Say of every column what it holds.', { field: 'columns' });
		const numberAt = input.columns.indexOf('number');
		if (numberAt < 0)
			throw new Problem('invalid', 'Say which column holds the number.', { field: 'columns' });
		if (!input.trial) await holdNumbers(context);
		const there = await presentIn(context);
		const names = await named(
			context,
			[...there.values()].flatMap(({ row }) => row.responsibleId ?? [])
		);
		const stages = stagesOf(here.settings);
		const stageNames = new Map(stages.map((one) => [one.key, one.name]));
		const fates = fatesOf(
			input.rows,
			input.columns,
			{
				rule: here.settings.numbering,
				stages,
				departments: [...names.departments.values()],
				people: [...names.people.values()],
				today: dayOf(now, here.timeZone)
			},
			new Map([...there].map(([number, { present }]) => [number, present]))
		);
		const words = (changes: readonly Change[]) => inWords(changes, names, stageNames);
		const counts = { new: 0, changed: 0, same: 0, refused: 0 };
		for (const { fate } of fates) counts[fate]++;
		const answer = {
			added: counts.new,
			changed: counts.changed,
			same: counts.same,
			refused: counts.refused,
			lines: toldLines(fates, input.rows, numberAt, words)
		};
		if (input.trial) return answer;
		if (counts.refused && !input.leaveOut)
			throw new Problem(
				'invalid',
				`${plural(counts.refused, 'line')} cannot be taken in. Mend the list, or leave them out.`,
				{ field: 'rows', lines: answer.lines.filter((one) => one.fate === 'refused').slice(0, 20) }
			);
		const fresh = fates.flatMap((fate) => (fate.fate === 'new' ? [fate.wanted] : []));
		await insertLines(
			context,
			fresh.map((wanted) => ({
				number: wanted.number,
				title: wanted.title!,
				department: wanted.department ?? null,
				responsible: wanted.responsible ?? null,
				weight: wanted.weight ?? 1,
				planned: wanted.planned ?? {}
			}))
		);
		const written: Row[] = [];
		const days: PlannedDay[] = [];
		const changed: { deliverable: string; changes: Changed[] }[] = [];
		for (const fate of fates) {
			if (fate.fate !== 'changed') continue;
			const { row } = there.get(fate.wanted.number)!;
			const { title, department, responsible, weight, planned } = fate.wanted;
			written.push({
				...row,
				title: title ?? row.title,
				departmentId: department ?? row.departmentId,
				responsibleId: responsible ?? row.responsibleId,
				weight: weight ?? row.weight
			});
			days.push(...plannedDays(row.id, planned ?? {}));
			changed.push({ deliverable: row.id, changes: words(fate.changes) });
		}
		await writeLines(context, written);
		await writePlans(context, days);
		await noteChanges(context, 'changed', changed, input.file);
		await rememberColumns(context, input.heads, input.columns);
		if (counts.new || counts.changed)
			tell({
				kind: 'register.imported',
				details: { added: counts.new, changed: counts.changed, file: input.file }
			});
		return answer;
	}
});
