import { and, eq, isNull, sql } from 'drizzle-orm';
import { reportDue } from '../../core/register';
import { MEDIA_TYPE } from '../../core/files/media';
import { dayOf, fullDayWords } from '../../core/time/days';
import { plural } from '../../core/words/sentences';
import { loadReach } from '../access/reach';
import { keepMade } from '../content/content';
import { member, person, project } from '../platform/db/schema';
import { log } from '../platform/log';
import { putMail } from '../platform/mail/put';
import type { Person } from '../platform/runner/actor';
import type { Services } from '../platform/services';
import { registerFile } from './give-list';

type Here = typeof project.$inferSelect;

const isDue = ({ settings, timeZone, registerReportedAt }: Here, now: Date): boolean => {
	const plan = settings.registerReport;
	return Boolean(
		plan?.weekday &&
		plan.to.length &&
		reportDue(plan.weekday, dayOf(now, timeZone), registerReportedAt && dayOf(registerReportedAt, timeZone))
	);
};

/** Somebody who controls a project now, so that the report holds the whole register; null when nobody does. */
async function controllerOf({ database: { db } }: Services, here: Here, now: Date): Promise<Person | null> {
	const controllers = await db
		.select({ id: person.id, name: person.name, email: person.email })
		.from(member)
		.innerJoin(person, eq(person.id, member.personId))
		.where(
			and(eq(member.projectId, here.id), member.controller, isNull(member.leftAt), isNull(member.blockedAt))
		)
		.orderBy(member.createdAt);
	for (const one of controllers)
		if ((await loadReach(db, here.id, one.id, now))?.subject.controller) return one;
	return null;
}

/** Sends the register of each project as a report to its list, once a week on its day, however many servers run. */
export async function sendReports(services: Services, now: Date): Promise<void> {
	const { db } = services.database;
	const planned = await db
		.select()
		.from(project)
		.where(sql`settings ? 'registerReport'`);
	for (const here of planned) {
		if (!isDue(here, now)) continue;
		// One that cannot be made keeps no other from it.
		await report(services, here, now).catch((error: unknown) =>
			log.error({ project: here.code, error }, 'the register was not sent')
		);
	}
}

async function report(services: Services, here: Here, now: Date): Promise<void> {
	const controller = await controllerOf(services, here, now);
	if (!controller) return log.warn({ project: here.code }, 'nobody controls it; the register was not sent');
	const file = await registerFile(services, { person: controller, via: 'session' }, 'pdf', {
		project: here.id
	});
	const { hash } = await keepMade(services, file.bytes, MEDIA_TYPE.pdf, now);
	const today = fullDayWords(dayOf(now, here.timeZone));
	await services.database.db.transaction(async (tx) => {
		// Another server may have sent it meanwhile, or the plan may be another.
		const [fresh] = await tx.select().from(project).where(eq(project.id, here.id)).for('update');
		if (!fresh || !isDue(fresh, now)) return;
		await tx.update(project).set({ registerReportedAt: now }).where(eq(project.id, here.id));
		for (const address of fresh.settings.registerReport!.to)
			await putMail(tx, services, {
				projectId: here.id,
				to: { name: address, address },
				subject: `${here.code} register, ${today}`,
				letter: {
					says: [
						`The register of ${here.name} as it stands on ${today}: ${plural(file.deliverables, 'deliverable')}, with what was planned, issued and is expected. The report goes with this mail.`
					],
					link: {
						word: 'Open the register',
						href: `${services.config.origin}/${here.code.toLowerCase()}/register`
					},
					after: ['The link asks you to sign in. Document control can take you off the list.']
				},
				attachment: { hash, name: file.name },
				now
			});
	});
}
