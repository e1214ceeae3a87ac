import { and, asc, eq, isNull } from 'drizzle-orm';
import { releaseNumber, VERDICT_LABEL, type Verdict } from '../../core/releases';
import { dayOf, dayWords } from '../../core/time/days';
import { calendarOf, plusWorkingDays } from '../../core/time/working-days';
import { idsOf } from '../access/reach';
import { departmentMember, document, member, place, remark, type release } from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import type { Acting, ContextOf } from '../platform/runner/act';
import { nextNumber } from '../remarks/acts';

/** Working days in which what came back is to be worked on (G7). */
const DAYS = 10;

type Returning = Pick<ContextOf['pass'] & Acting, 'tx' | 'project' | 'services' | 'now' | 'newId' | 'tell'>;

/** What somebody said of a document; `by` with their company. */
export interface Said {
	code: Verdict;
	remark: string;
	by: string;
}

/**
 * A document whose verdicts came to C, revise and resubmit, or D, refused, returns to its department (T8): it is work
 * in progress again, what was said stands on it as remarks for the department to settle by a day, and its leads are told.
 * @param says what each said who has something to say
 */
export async function returnDocument(
	context: Returning,
	about: typeof release.$inferSelect,
	item: { documentId: string; number: string; versionId: string; chosenLabel: string },
	code: Verdict,
	says: readonly Said[]
): Promise<void> {
	const { tx, project, now, newId, tell } = context;
	const [at] = await tx
		.update(document)
		.set({ state: 'wip' })
		.where(eq(document.id, item.documentId))
		.returning();
	const [here] = await tx.select().from(place).where(eq(place.id, item.documentId));
	const [shelf] = await tx
		.select()
		.from(place)
		.where(eq(place.id, idsOf(here!.path)[0]!));
	const due = plusWorkingDays(dayOf(now, project.timeZone), DAYS, calendarOf(project.settings));
	const first = await nextNumber(tx, item.documentId);
	const inRelease = `release ${releaseNumber(about.number)}`;
	for (const [at, said] of says.entries()) {
		const text = `${said.code}, ${VERDICT_LABEL[said.code]}, on ${item.chosenLabel} in ${inRelease}: ${said.remark}`;
		await tx.insert(remark).values({
			id: newId(),
			documentId: item.documentId,
			number: first + at,
			versionId: item.versionId,
			anchor: { on: 'version' },
			text,
			// Who answers by a pass has no account; what they said hangs on who issued it, under their own name.
			createdBy: about.issuedBy!,
			fromName: said.by,
			releaseId: about.id,
			createdAt: now,
			assignedDepartment: shelf!.departmentId,
			due
		});
		tell({
			kind: 'remark.added',
			placeId: item.documentId,
			documentId: item.documentId,
			details: { number: item.number, label: item.chosenLabel, remark: first + at, text }
		});
	}
	tell({
		kind: 'document.returned',
		placeId: item.documentId,
		documentId: item.documentId,
		releaseId: about.id,
		details: { number: item.number, label: item.chosenLabel, code, release: about.number, due }
	});
	const leads = shelf!.departmentId
		? await tx
				.select({ id: departmentMember.personId })
				.from(departmentMember)
				.innerJoin(
					member,
					and(eq(member.personId, departmentMember.personId), eq(member.projectId, project.id))
				)
				.where(
					and(
						eq(departmentMember.departmentId, shelf!.departmentId),
						eq(departmentMember.lead, true),
						isNull(member.leftAt)
					)
				)
				.orderBy(asc(departmentMember.personId))
		: [];
	await tellNotices(context, {
		kind: 'remark-assigned',
		people: leads.map((l) => l.id),
		placeId: item.documentId,
		sentence: `${says.map((said) => `${said.by} answered ${item.number}, “${at!.title}”, with ${said.code}, ${VERDICT_LABEL[said.code]}: ${said.remark}`).join(' ')} It is your department’s again, to be answered by ${dayWords(due, dayOf(now, project.timeZone))}.`,
		way: `document/${item.documentId}?remark=${first}`
	});
}
