import { and, gte, eq, inArray, lte } from 'drizzle-orm';
import type { z } from 'zod';
import type { stepStanding } from '../../contract/shapes/routes';
import { differences, standing, stepDue, type Build } from '../../core/releases';
import { dayOf } from '../../core/time/days';
import { calendarOf } from '../../core/time/working-days';
import type { Querier } from '../platform/db';
import { event, person, standIn, type project, type release } from '../platform/db/schema';
import { decisionsOf } from '../platform/runner/on-route';
import { namesOf } from './route';

/** How far the route of a release is, with the names of everybody on it, and what was decided last. */
export async function routeStanding(
	db: Querier,
	about: typeof release.$inferSelect,
	here: typeof project.$inferSelect,
	looked: { build: Build; digest: string } | null,
	now: Date
) {
	const today = dayOf(now, here.timeZone);
	const [decisions, away] = await Promise.all([
		decisionsOf(db, about.id),
		db
			.select({ person: standIn.personId, name: person.name, until: standIn.untilDay })
			.from(standIn)
			.innerJoin(person, eq(person.id, standIn.standInId))
			.where(and(eq(standIn.projectId, here.id), lte(standIn.fromDay, today), gte(standIn.untilDay, today)))
	]);
	const names = await namesOf(db, [
		...about.route.flatMap((step) => step.of.map((one) => one.id)),
		...decisions.flatMap((one) => [one.by, one.of.id, one.standsFor ?? one.by])
	]);
	const nameOf = (id: string) => names.get(id) ?? '';
	// What is out, or was cancelled, keeps the approvals by which it went.
	const steps = standing(about.route, decisions, looked?.digest ?? about.digest ?? '');
	const route = about.route.map((step, at): z.output<typeof stepStanding> => ({
		...step,
		state: steps[at]!.state,
		needed: steps[at]!.needed,
		of: step.of.map((one) => {
			const gone = one.kind === 'person' && away.find((a) => a.person === one.id);
			return {
				...one,
				name: nameOf(one.id),
				away: gone ? { standIn: gone.name, until: gone.until } : null
			};
		}),
		due:
			about.turn === at && about.turnSince
				? stepDue(step, dayOf(about.turnSince, here.timeZone), calendarOf(here.settings))
				: null,
		given: steps[at]!.given.map((one) => ({
			by: nameOf(one.by),
			of: nameOf(one.of.id),
			standsFor: one.standsFor && nameOf(one.standsFor),
			at: one.at.toISOString()
		}))
	}));
	const final = decisions.at(-1);
	return {
		route,
		last: final
			? {
					says: final.says,
					by: nameOf(final.by),
					standsFor: final.standsFor && nameOf(final.standsFor),
					at: final.at.toISOString(),
					reason: final.reason,
					documents: final.documents,
					changes: final.build && looked ? differences(final.build, looked.build) : []
				}
			: null
	};
}

/** Which documents somebody has opened or taken with exactly the bytes that a release holds of them. */
export async function lookedAt(
	db: Querier,
	personId: string,
	items: readonly { documentId: string; hash: string }[]
): Promise<Set<string>> {
	if (!items.length) return new Set();
	const rows = await db
		.selectDistinct({ documentId: event.documentId, details: event.details })
		.from(event)
		.where(
			and(
				inArray(
					event.documentId,
					items.map((one) => one.documentId)
				),
				eq(event.actor, personId),
				inArray(event.kind, ['document.opened', 'document.downloaded'])
			)
		);
	const seen = new Set(rows.map((row) => `${row.documentId} ${(row.details as { hash?: string }).hash}`));
	return new Set(items.filter((i) => seen.has(`${i.documentId} ${i.hash}`)).map((i) => i.documentId));
}
