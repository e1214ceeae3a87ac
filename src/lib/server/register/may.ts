import type { ContextOf } from '../platform/runner/act';

/** Whether somebody may say when a deliverable is expected: who answers for it, a lead of its department, a controller. */
export function mayForecast(
	{ person, reach }: Pick<ContextOf['project'], 'person' | 'reach'>,
	of: { departmentId: string | null; responsibleId: string | null }
): boolean {
	const { controller, leads } = reach.subject;
	return (
		controller ||
		of.responsibleId === person.id ||
		(of.departmentId !== null && leads.includes(of.departmentId))
	);
}
