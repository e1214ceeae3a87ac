import type { z } from 'zod';
import type { registerFigures } from '../../contract/register';
import { linesOf, seenAt, type Line, type Narrowing } from '../../core/register';
import { dayOf } from '../../core/time/days';
import type { Querier } from '../platform/db';
import type { ContextOf } from '../platform/runner/act';
import { registerFacts, type Facts, type Held } from './facts';

export type Here = ContextOf['project'] & { db: Querier };
type Narrowed = Omit<z.output<(typeof registerFigures)['input']>, 'project'>;

/** The lines that somebody may look at: whose document they may look at, and for colleagues those without one. */
export async function visibleLines(context: Here, stage: string | null) {
	const { db, project, reach, now } = context;
	const facts = await registerFacts(db, project.id);
	const today = dayOf(now, project.timeZone);
	const { stages } = facts;
	const scopes = new Set(reach.scopes());
	const sees = ({ scope }: Held) => (scope === null ? !reach.subject.outside : scopes.has(scope));
	const lines = standing(facts, today).filter((_, i) => sees(facts.held[i]!));
	// That a number is taken, and so that one is missing, is told to those who may add documents (A10).
	const told = reach.scopes('work').length > 0;
	return { facts, today, stages, told, lines: seenAt(lines, stage, told) };
}

/** Where all deliverables stand, worked out once a day as long as the facts hold. */
function standing(facts: Facts, today: string): readonly Line[] {
	if (facts.standing?.today !== today) {
		const deliverables = facts.held.map((one) => one.deliverable);
		facts.standing = {
			today,
			lines: linesOf(deliverables, facts.stages, facts.usual, today, facts.days)
		};
	}
	return facts.standing.lines;
}

/** What a list is asked to be narrowed to. */
export const narrowingOf = (input: Narrowed): Narrowing => ({
	departments: input.departments,
	zones: input.zones,
	types: input.types,
	stage: input.stage ?? null,
	late: input.late,
	wasLate: input.wasLate,
	met: input.met,
	statuses: input.statuses,
	undated: input.undated,
	missing: input.missing,
	from: input.from ?? null,
	to: input.to ?? null,
	responsible: input.responsible,
	words: input.words
});
