import { and, eq } from 'drizzle-orm';
import type { Entry } from '../../core/access/decide';
import type { Tx } from '../platform/db';
import { department, document, group, person } from '../platform/db/schema';
import type { Place, Project } from '../platform/runner/act';

/** What a place is called in sentences and events. */
export async function placeName(tx: Tx, at: Place): Promise<string> {
	if (at.kind !== 'document') return at.name;
	const [row] = await tx
		.select({ number: document.number, title: document.title })
		.from(document)
		.where(eq(document.id, at.id));
	return `${row!.number} ${row!.title}`;
}

/** What a subject is called. */
export async function subjectName(
	tx: Tx,
	project: Project,
	subject: Pick<Entry, 'subjectKind' | 'subjectId'>
): Promise<string | null> {
	const { subjectKind: kind, subjectId: id } = subject;
	if (kind === 'everyone') return id === project.id ? 'Everyone in the project' : null;
	if (kind === 'person')
		return (await tx.select({ name: person.name }).from(person).where(eq(person.id, id)))[0]?.name ?? null;
	if (kind === 'group')
		return (
			(
				await tx
					.select({ name: group.name })
					.from(group)
					.where(and(eq(group.id, id), eq(group.projectId, project.id)))
			)[0]?.name ?? null
		);
	const [row] = await tx
		.select({ name: department.name })
		.from(department)
		.where(and(eq(department.id, id), eq(department.projectId, project.id)));
	return row ? (kind === 'leads' ? `Leads of ${row.name}` : row.name) : null;
}
