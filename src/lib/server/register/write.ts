import { sql } from 'drizzle-orm';
import { deliverable, deliverableStage } from '../platform/db/schema';
import { inParts, noteChanges, type InProject, type Row } from './lines';

/** The planned day of one stage of a deliverable; null for a stage that has none yet. */
export interface PlannedDay {
	deliverableId: string;
	stage: string;
	planned: string | null;
}

/** The planned days of a deliverable, by stage, as they are written. */
export const plannedDays = (deliverableId: string, planned: Record<string, string | null>): PlannedDay[] =>
	Object.entries(planned).map(([stage, day]) => ({ deliverableId, stage, planned: day }));

/** A deliverable to be put in the register. */
export interface NewLine {
	number: string;
	title: string;
	department: string | null;
	responsible: string | null;
	weight: number;
	planned: Record<string, string | null>;
}

/** Writes new deliverables, whose numbers were checked. @returns their ids, in the same order */
export async function insertLines(context: InProject, lines: readonly NewLine[]): Promise<string[]> {
	const { tx, project, now, newId, person: by } = context;
	const rows = lines.map((one) => ({ id: newId(), ...one }));
	await inParts(rows, (part) =>
		tx.insert(deliverable).values(
			part.map(({ id, number, title, department, responsible, weight }) => ({
				id,
				projectId: project.id,
				number,
				title,
				departmentId: department,
				responsibleId: responsible,
				weight,
				createdBy: by.id,
				createdAt: now
			}))
		)
	);
	await writePlans(
		context,
		rows.flatMap(({ id, planned }) => plannedDays(id, planned))
	);
	await noteChanges(
		context,
		'added',
		rows.map(({ id }) => ({ deliverable: id, changes: [] }))
	);
	return rows.map(({ id }) => id);
}

/** Writes deliverables that are there already, as they are from now on. */
export async function writeLines({ tx }: InProject, rows: readonly Row[]): Promise<void> {
	await inParts(rows, (part) =>
		tx
			.insert(deliverable)
			.values(part)
			.onConflictDoUpdate({
				target: deliverable.id,
				set: {
					number: sql`excluded.number`,
					title: sql`excluded.title`,
					departmentId: sql`excluded.department_id`,
					responsibleId: sql`excluded.responsible_id`,
					weight: sql`excluded.weight`
				}
			})
	);
}

/** Writes planned days; a stage that is new to its deliverable joins the plan. */
export async function writePlans({ tx }: InProject, days: readonly PlannedDay[]): Promise<void> {
	await inParts(days, (part) =>
		tx
			.insert(deliverableStage)
			.values(part)
			.onConflictDoUpdate({
				target: [deliverableStage.deliverableId, deliverableStage.stage],
				set: { planned: sql`excluded.planned` }
			})
	);
}
