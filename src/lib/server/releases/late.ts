import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import { decidersOf, releaseNumber, sameApprover, standing, stepDue } from '../../core/releases';
import { dayOf, dayWords } from '../../core/time/days';
import { calendarOf } from '../../core/time/working-days';
import { tellNotices } from '../notices/tell';
import { member, project, release } from '../platform/db/schema';
import { newId } from '../platform/ids';
import { decisionsOf, speakersOf } from '../platform/runner/on-route';
import type { Services } from '../platform/services';
import { namesOf } from './route';

/** Tells those whose turn it is, and the controllers, once, that a step of a release is late (T3). */
export async function tellLateSteps(services: Services, now = new Date()): Promise<void> {
	const { db } = services.database;
	const open = await db
		.select({ release, project })
		.from(release)
		.innerJoin(project, eq(project.id, release.projectId))
		.where(and(eq(release.state, 'in-review'), isNotNull(release.turnSince), eq(release.turnTold, false)));
	for (const { release: about, project: here } of open) {
		const step = about.route[about.turn!]!;
		const today = dayOf(now, here.timeZone);
		const due = stepDue(step, dayOf(about.turnSince!, here.timeZone), calendarOf(here.settings));
		if (due === null || due >= today) continue;
		await db.transaction(async (tx) => {
			const [told] = await tx
				.update(release)
				.set({ turnTold: true })
				.where(
					and(
						eq(release.id, about.id),
						eq(release.state, 'in-review'),
						eq(release.turn, about.turn!),
						eq(release.turnTold, false)
					)
				)
				.returning();
			if (!told) return;
			const { given } = standing(about.route, await decisionsOf(tx, about.id), about.digest ?? '')[
				about.turn!
			]!;
			const waiting = step.of.filter((one) => !given.some((other) => sameApprover(other.of, one)));
			const [speakers, names, controllers] = await Promise.all([
				speakersOf(tx, here, now),
				namesOf(
					tx,
					waiting.map((one) => one.id)
				),
				tx
					.select({ id: member.personId })
					.from(member)
					.where(and(eq(member.projectId, here.id), eq(member.controller, true), isNull(member.leftAt)))
			]);
			const people = new Set([
				...waiting.flatMap((one) => decidersOf(one, speakers)),
				...controllers.map((one) => one.id)
			]);
			for (const one of given) people.delete(one.by);
			await tellNotices(
				{ tx, services, project: here, now, newId },
				{
					kind: 'approval-asked',
					people: [...people],
					releaseId: about.id,
					sentence: `“${step.name}” of release ${releaseNumber(about.number)}, “${about.title}”, was to be decided by ${dayWords(due, today)}. It waits for ${waiting.map((one) => names.get(one.id)).join(', ')}.`,
					way: `releases/${about.number}`
				}
			);
		});
	}
}
