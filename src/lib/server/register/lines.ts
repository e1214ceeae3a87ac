import { and, eq, isNotNull, isNull, or, sql } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { checkNumber } from '../../core/numbering/numbering';
import { stagesOf, type Stage } from '../../core/register';
import { among } from '../platform/db';
import {
	deliverable,
	deliverableChange,
	deliverableStage,
	department,
	document,
	member,
	person,
	place,
	type DELIVERABLE_CHANGES
} from '../platform/db/schema';
import { offDesks } from '../places/desks';
import type { Acting, ContextOf } from '../platform/runner/act';

export type InProject = ContextOf['project'] & Acting;
export type Row = typeof deliverable.$inferSelect;

/** A value of a deliverable that became another, in words. */
export interface Changed {
	what: string;
	from: string;
	to: string;
}

/** What is said of a deliverable that is not there, and of one that somebody may not look at: the two are not told apart. */
export const NO_SUCH = 'There is no such deliverable in the register.';

/** So many rows are written at a time. */
const AT_ONCE = 1_000;

/** Does something with many rows, some at a time. */
export async function inParts<T>(all: readonly T[], each: (part: T[]) => Promise<unknown>): Promise<void> {
	for (let i = 0; i < all.length; i += AT_ONCE) await each(all.slice(i, i + AT_ONCE));
}

/** Keeps the numbers of a project's register still until the act has ended. */
export async function holdNumbers({ tx, project }: InProject): Promise<void> {
	await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${'register:' + project.id}))`);
}

/**
 * The deliverables with these ids, held until the act has ended, by number.
 * @param removed those that were taken out, instead of those in the register
 * @throws Problem `not-found` when one of them is not there
 */
export async function heldLines(
	{ tx, project }: InProject,
	ids: readonly string[],
	removed = false
): Promise<Row[]> {
	const wanted = new Set(ids);
	const rows = await tx
		.select()
		.from(deliverable)
		.where(
			and(
				eq(deliverable.projectId, project.id),
				among(deliverable.id, wanted),
				(removed ? isNotNull : isNull)(deliverable.removedAt)
			)
		)
		.orderBy(deliverable.number)
		.for('update');
	if (rows.length < wanted.size) throw new Problem('not-found', NO_SUCH);
	return rows;
}

/** What is planned of some deliverables, by deliverable and stage. */
export async function plansOf({ tx }: InProject, ids: readonly string[]) {
	const rows = await tx.select().from(deliverableStage).where(among(deliverableStage.deliverableId, ids));
	const plans = new Map<string, Map<string, (typeof rows)[number]>>();
	for (const row of rows) {
		const of = plans.get(row.deliverableId) ?? new Map<string, (typeof rows)[number]>();
		plans.set(row.deliverableId, of.set(row.stage, row));
	}
	return plans;
}

/** The stage of the project with a key. @throws Problem `invalid` when there is none */
export function stageOf({ project }: InProject, key: string): Stage {
	const found = stagesOf(project.settings).find((one) => one.key === key);
	if (!found) throw new Problem('invalid', 'The project has no such stage.', { field: 'stage' });
	return found;
}

/**
 * Departments and people of a project by their ids, as deliverables name them.
 * @param also ids of people who may have left, and are named all the same
 */
export async function named({ tx, project }: InProject, also: readonly string[] = []) {
	const [departments, people] = await Promise.all([
		tx
			.select({ id: department.id, code: department.code, name: department.name })
			.from(department)
			.where(eq(department.projectId, project.id)),
		tx
			.select({ id: person.id, name: person.name, email: person.email })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(
				and(eq(member.projectId, project.id), or(isNull(member.leftAt), among(person.id, new Set(also))))
			)
	]);
	return {
		departments: new Map(departments.map((one) => [one.id, one])),
		people: new Map(people.map((one) => [one.id, one]))
	};
}
export type Named = Awaited<ReturnType<typeof named>>;

/** @throws Problem `invalid` for a department or a person that is not in the project */
export function checkNamed(
	{ departments, people }: Named,
	of: { department?: string | null; responsible?: string | null }
): void {
	if (of.department && !departments.has(of.department))
		throw new Problem('invalid', 'This department is not in the project.', { field: 'department' });
	if (of.responsible && !people.has(of.responsible))
		throw new Problem('invalid', 'Who is responsible is not in this project.', { field: 'responsible' });
}

/** @throws Problem `invalid` for a number that breaks the rule, `conflict` for one that stands in the register */
export async function checkNumbers(context: InProject, numbers: readonly string[]): Promise<void> {
	const { tx, project } = context;
	await holdNumbers(context);
	const at = (i: number) => (numbers.length > 1 ? { line: i + 1 } : {});
	for (const [i, number] of numbers.entries()) {
		const fits = checkNumber(project.settings.numbering, number);
		if (!fits.ok) throw new Problem('invalid', fits.sentence, { field: 'number', ...at(i) });
		const before = numbers.indexOf(number);
		if (before < i)
			throw new Problem('invalid', `${number} stands in line ${before + 1} already.`, {
				field: 'number',
				...at(i)
			});
	}
	const [there] = await tx
		.select({ number: deliverable.number })
		.from(deliverable)
		.where(
			and(
				eq(deliverable.projectId, project.id),
				isNull(deliverable.removedAt),
				among(deliverable.number, numbers)
			)
		)
		.limit(1);
	if (there)
		throw new Problem('conflict', `${there.number} is in the register already.`, {
			field: 'number',
			...at(numbers.indexOf(there.number))
		});
}

/** Writes into the history of deliverables what an act did to them. */
export async function noteChanges(
	{ tx, now, newId, person: by }: InProject,
	kind: (typeof DELIVERABLE_CHANGES)[number],
	changes: readonly { deliverable: string; changes: Changed[] }[],
	reason = ''
): Promise<void> {
	await inParts(changes, (part) =>
		tx.insert(deliverableChange).values(
			part.map((one) => ({
				id: newId(),
				deliverableId: one.deliverable,
				kind,
				at: now,
				by: by.id,
				reason,
				changes: one.changes
			}))
		)
	);
}

/**
 * Which deliverables an event is about. One alone is told by its number, at its document where it has one, so that only
 * those who may look at it read of it; several are counted (A10).
 */
export async function told({ tx, project }: InProject, lines: readonly Pick<Row, 'number'>[]) {
	const [first] = lines;
	if (lines.length !== 1 || !first) return { where: {}, which: { count: lines.length, number: null } };
	const [its] = await tx
		.select({ id: document.id })
		.from(document)
		.innerJoin(place, eq(place.id, document.id))
		.where(
			and(
				eq(document.projectId, project.id),
				eq(document.number, first.number),
				eq(document.live, true),
				offDesks(place.scope)
			)
		);
	return {
		where: its ? { placeId: its.id, documentId: its.id } : {},
		which: { count: 1, number: first.number }
	};
}
